"""API: signing in to the console and out of it."""

from __future__ import annotations

import math

from flask import Request

from anchorline.store.users import SESSION_LENGTH, LoginSession
from anchorline.wire.base import Shape
from anchorline.wire.session import SessionAnswer, SignIn

from ..access import SESSION_COOKIE, Access
from ..endpoints import Area, Call, Reply
from ..logs import logger
from ..problems import ProblemError

area = Area("session")
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
    given, users = call.body(SignIn), call.services.users
    subjects = (f"email {given.email.lower()}", f"host {call.request.remote_addr}")
    wait = max(users.wait_before_sign_in(subject) for subject in subjects).total_seconds()
    if wait > 0:
        seconds = math.ceil(wait)
        raise ProblemError(
            429,
            f"Too many failed tries. Wait {seconds} s and try again.",
            headers={"Retry-After": str(seconds)},
        )
    user = users.check_password(given.email, given.password)
    if user is None:
        for subject in subjects:
            users.note_failure(subject)
        _log.warning("sign-in failed", host=call.request.remote_addr)
        raise ProblemError(401, "The e-mail address or the password is not right.")
    for subject in subjects:
        users.forget_failures(subject)
    token, session = users.open_session(user)
    _log.info("signed in", user=user.id)
    return Reply(_answer(session), headers={"Set-Cookie": _cookie(call, token)})


@area.endpoint("GET", "/session", access=Access.PERSON, answer=SessionAnswer)
def get_session(call: Call) -> Shape:
    """Who is signed in."""
    assert call.caller.session is not None
    return _answer(call.caller.session)


@area.endpoint("DELETE", "/session", access=Access.PERSON, answer=None, status=204)
def sign_out(call: Call) -> Reply:
    """Signs the person out."""
    call.services.users.close_session(_token(call.request))
    return Reply(None, status=204, headers={"Set-Cookie": _cookie(call, "", seconds=0)})


def _token(request: Request) -> str:
    return request.cookies.get(SESSION_COOKIE, "")


def _answer(session: LoginSession) -> SessionAnswer:
    return SessionAnswer(
        email=session.user.email, name=session.user.name, csrf_token=session.csrf_token
    )


def _cookie(call: Call, token: str, seconds: int | None = None) -> str:
    age = int(SESSION_LENGTH.total_seconds()) if seconds is None else seconds
    secure = "; Secure" if call.services.settings.https else ""
    return f"{SESSION_COOKIE}={token}; Path=/; HttpOnly; SameSite=Strict; Max-Age={age}{secure}"
