"""API: signing in to the console and out of it."""

from __future__ import annotations

import math
import secrets
from dataclasses import replace
from datetime import timedelta

from flask import Request

from anchorline.store.sign_in_brake import SignInTry
from anchorline.store.tidy import PLACES_REMEMBERED as BROWSER_REMEMBERED
from anchorline.store.users import SESSION_LENGTH, LoginSession
from anchorline.wire.base import Shape
from anchorline.wire.session import SessionAnswer, SignIn

from ..access import SESSION_COOKIE, Access
from ..endpoints import Area, Call, Reply
from ..logs import logger
from ..problems import ProblemError

area = Area("session")
# Tells a browser that signed in before from one that guesses; it opens nothing.
BROWSER_COOKIE = "anchorline_browser"
_log = logger("session")


@area.endpoint(
    "POST",
    "/session",
    access=Access.PUBLIC,
    body=SignIn,
    answer=SessionAnswer,
    problems=(401, 429),
    largest_body=4_096,
    answer_headers={"Set-Cookie": "The session's cookie"},
)
def sign_in(call: Call) -> Reply:
    """Signs a person in with e-mail address and password."""
    given, services = call.body(SignIn), call.services
    tried = SignInTry(
        given.email, call.request.remote_addr or "", call.request.cookies.get(BROWSER_COOKIE, "")
    )
    wait = services.sign_in_brake.count(tried).total_seconds()
    if wait > 0:
        seconds = math.ceil(wait)
        raise ProblemError(
            429,
            f"Too many failed tries. Wait {seconds} s and try again.",
            headers={"Retry-After": str(seconds)},
        )
    user = services.users.check_password(given.email, given.password)
    if user is None:
        _log.warning("sign-in failed", host=call.request.remote_addr)
        raise ProblemError(401, "The e-mail address or the password is not right.")
    browser = tried.browser or secrets.token_urlsafe(24)
    services.sign_in_brake.succeeded(replace(tried, browser=browser))
    token, session = services.users.open_session(user)
    _log.info("signed in", user=user.id)
    cookies = [
        _cookie(call, SESSION_COOKIE, token, SESSION_LENGTH),
        _cookie(call, BROWSER_COOKIE, browser, BROWSER_REMEMBERED),
    ]
    return Reply(_answer(session), cookies=cookies)


@area.endpoint("GET", "/session", access=Access.PERSON, answer=SessionAnswer)
def get_session(call: Call) -> Shape:
    """Who is signed in."""
    assert call.caller.session is not None
    return _answer(call.caller.session)


@area.endpoint("DELETE", "/session", access=Access.PERSON, answer=None, status=204)
def sign_out(call: Call) -> Reply:
    """Signs the person out."""
    call.services.users.close_session(_token(call.request))
    return Reply(None, status=204, cookies=[_cookie(call, SESSION_COOKIE, "", timedelta(0))])


def _token(request: Request) -> str:
    return request.cookies.get(SESSION_COOKIE, "")


def _answer(session: LoginSession) -> SessionAnswer:
    return SessionAnswer(
        email=session.user.email, name=session.user.name, csrf_token=session.csrf_token
    )


def _cookie(call: Call, name: str, value: str, lasts: timedelta) -> str:
    secure = "; Secure" if call.services.settings.https else ""
    age = int(lasts.total_seconds())
    return f"{name}={value}; Path=/; HttpOnly; SameSite=Strict; Max-Age={age}{secure}"
