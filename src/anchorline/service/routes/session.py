"""API: signing in to the console and out of it."""

from __future__ import annotations

import math
import secrets
from dataclasses import replace
from datetime import timedelta

from flask import Request

from anchorline.store.purge import PLACES_REMEMBERED as BROWSER_REMEMBERED
from anchorline.store.sign_in_brake import SignInTry
from anchorline.store.users import SESSION_LENGTH, LoginSession
from anchorline.wire.base import Schema
from anchorline.wire.session import SessionAnswer, SignIn

from ..access import SESSION_COOKIE, Access
from ..endpoints import ApiRequest, ApiResponse, Router
from ..logs import logger
from ..problems import ProblemError

router = Router("session")
# Tells a browser that signed in before from one that guesses; it opens nothing.
BROWSER_COOKIE = "anchorline_browser"
_log = logger("session")


@router.endpoint(
    "POST",
    "/session",
    access=Access.PUBLIC,
    body=SignIn,
    answer=SessionAnswer,
    problems=(401, 429),
    largest_body=4_096,
    answer_headers={"Set-Cookie": "The session's cookie"},
)
def sign_in(request: ApiRequest) -> ApiResponse:
    """Signs a person in with e-mail address and password."""
    given, services = request.body(SignIn), request.services
    tried = SignInTry(
        given.email, request.http.remote_addr or "", request.http.cookies.get(BROWSER_COOKIE, "")
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
        _log.warning("sign-in failed", host=request.http.remote_addr)
        raise ProblemError(401, "The e-mail address or the password is not right.")
    browser = tried.browser or secrets.token_urlsafe(24)
    services.sign_in_brake.succeeded(replace(tried, browser=browser))
    token, session = services.users.open_session(user)
    _log.info("signed in", user=user.id)
    cookies = [
        _cookie(request, SESSION_COOKIE, token, SESSION_LENGTH),
        _cookie(request, BROWSER_COOKIE, browser, BROWSER_REMEMBERED),
    ]
    return ApiResponse(_answer(session), cookies=cookies)


@router.endpoint("GET", "/session", access=Access.PERSON, answer=SessionAnswer)
def get_session(request: ApiRequest) -> Schema:
    """Who is signed in."""
    assert request.caller.session is not None
    return _answer(request.caller.session)


@router.endpoint("DELETE", "/session", access=Access.PERSON, answer=None, status=204)
def sign_out(request: ApiRequest) -> ApiResponse:
    """Signs the person out."""
    request.services.users.close_session(_token(request.http))
    return ApiResponse(
        None, status=204, cookies=[_cookie(request, SESSION_COOKIE, "", timedelta(0))]
    )


def _token(http: Request) -> str:
    return http.cookies.get(SESSION_COOKIE, "")


def _answer(session: LoginSession) -> SessionAnswer:
    return SessionAnswer(
        email=session.user.email, name=session.user.name, csrf_token=session.csrf_token
    )


def _cookie(request: ApiRequest, name: str, value: str, lasts: timedelta) -> str:
    secure = "; Secure" if request.services.settings.https else ""
    age = int(lasts.total_seconds())
    return f"{name}={value}; Path=/; HttpOnly; SameSite=Strict; Max-Age={age}{secure}"
