"""Who calls the API, and what they may do.

There are four kinds of callers: a server key (a trusted program), a browser key (public; tied to
web origins and forms), a page token (our own public page of one form), and a signed-in person. Each
endpoint declares the least access that it needs; only those declared PUBLIC are open.
"""

from __future__ import annotations

import hmac
from collections.abc import Callable
from enum import Enum
from time import monotonic

from flask import Request
from itsdangerous import BadSignature, SignatureExpired, TimestampSigner

from anchorline.application.caller import Caller
from anchorline.store.database import DatabaseUnavailableError
from anchorline.store.keys import KeyStore
from anchorline.store.users import LoginSession, UserStore

from .activity import SUBJECT
from .allowed import Allowed
from .keys_in_view import STALE_SECONDS, KeysInView, bound
from .problems import ProblemError

SESSION_COOKIE = "anchorline_session"
CSRF_HEADER = "X-CSRF-Token"
PAGE_TOKEN_SECONDS = 24 * 3600
_SAFE_METHODS = frozenset({"GET", "HEAD", "OPTIONS"})


class Access(Enum):
    """What an endpoint asks for; each includes the stronger ones below it."""

    PUBLIC = "anyone"
    CAPTURE = "a browser key or page for the form, a server key, or a signed-in person"
    SERVER = "a server key or a signed-in person"
    PERSON = "a signed-in person"


_ENOUGH = {
    Access.CAPTURE: frozenset({"browser", "page", "server", "person"}),
    Access.SERVER: frozenset({"server", "person"}),
    Access.PERSON: frozenset({"person"}),
}


class Gate:
    """Recognises callers.

    Args:
        digest: by which a presented key is known again on disk.
    """

    def __init__(
        self,
        keys: KeyStore,
        users: UserStore,
        secret: str,
        allowed: Allowed,
        digest: Callable[[str], str] = str,
    ) -> None:
        self.keys = KeysInView(keys, digest)
        self._users, self._allowed = users, allowed
        self._signer = TimestampSigner(secret, salt="page")
        self._sessions: dict[str, tuple[float, LoginSession | None]] = {}

    def page_token(self, form: str) -> str:
        """A token for our own public page of a form."""
        return "anl_page_" + self._signer.sign(form).decode()

    def authorize(
        self,
        request: Request,
        access: Access,
        scopes: tuple[str, ...] = (),
        *,
        often: bool = False,
        counted: bool = True,
    ) -> Caller:
        """The caller, if they may pass.

        Args:
            scopes: of which a server key has to have one.
            often: the call comes with every keystroke.
            counted: it counts for the rates.

        Raises:
            ProblemError: 401 where nobody is recognised, 403 where it is not enough, 429 where
                somebody whom anybody can be calls too often.
        """
        if access is Access.PUBLIC:
            return Caller("public", "")
        address = request.remote_addr or ""
        try:
            caller = self._recognise(request)
        except ProblemError:
            self._allowed.take_unrecognised(address)
            raise
        request.environ[SUBJECT] = caller.subject
        if caller.kind not in _ENOUGH[access]:
            raise ProblemError(403, f"This needs {access.value}.")
        if caller.scopes is not None and not set(scopes) & set(caller.scopes):
            raise _out_of_scope(caller.scopes, scopes)
        if counted and caller.is_anybody:
            self._allowed.take(caller.key_id, address, often=often)
        return caller

    def _recognise(self, request: Request) -> Caller:
        scheme, _, presented = request.headers.get("Authorization", "").partition(" ")
        if presented and scheme.lower() == "bearer":
            return self._bearer(request, presented.strip())
        token = request.cookies.get(SESSION_COOKIE)
        if token:
            session = self._session(token)
            if session is not None:
                _require_csrf(request, session)
                return Caller("person", session.user.email, session=session)
        raise ProblemError(
            401,
            "Present a key (Authorization: Bearer anl_…) or sign in to the console.",
            headers={"WWW-Authenticate": 'Bearer realm="anchorline"'},
        )

    def _bearer(self, request: Request, presented: str) -> Caller:
        if presented.startswith("anl_page_"):
            return self._page(presented.removeprefix("anl_page_"))
        key = self.keys.find(presented)
        if key is None:
            raise ProblemError(
                401,
                "This key is not valid: mistyped, ended, expired, or rotated long ago.",
                headers={"WWW-Authenticate": 'Bearer realm="anchorline", error="invalid_token"'},
            )
        request.environ[SUBJECT] = key.id
        origin = _origin(request)
        if key.kind == "server":
            if origin is not None:
                raise ProblemError(
                    403,
                    f"A server key came from a page of {origin[:100]}: whoever opens the page can "
                    f"read it. Put a browser key there, and end the key {key.id}.",
                )
            return Caller(
                "server",
                key.name,
                scopes=key.scopes,
                key_id=key.id,
                allowance=key.allowance,
            )
        if origin is None:
            raise ProblemError(
                403,
                "A browser key is for pages: it needs the header Origin, which a browser sends by "
                "itself. Programs use a server key.",
            )
        if origin not in key.origins:
            raise ProblemError(
                403,
                f"This browser key may not be used from {origin[:100]}: make one for that origin.",
            )
        return Caller(
            "browser",
            key.name,
            key.forms,
            targets=key.targets,
            key_id=key.id,
            origin=origin,
            allowance=key.allowance,
        )

    def _page(self, token: str) -> Caller:
        try:
            signed, since = self._signer.unsign(
                token, max_age=PAGE_TOKEN_SECONDS, return_timestamp=True
            )
        except SignatureExpired:
            raise ProblemError(401, "This page has been open for too long; load it anew.") from None
        except BadSignature:
            raise ProblemError(401, "This page's token is not valid; load the page anew.") from None
        form = signed.decode()
        name = f"page {form}"
        return Caller("page", name, (form,), targets=(), key_id=name, since=since)

    def _session(self, token: str) -> LoginSession | None:
        """The session of a token; as it was last known while the database is away."""
        try:
            session = self._users.find_session(token)
        except DatabaseUnavailableError:
            since, session = self._sessions.get(token, (float("-inf"), None))
            if session is None or monotonic() - since > STALE_SECONDS:
                raise
            return session
        if session is None:
            self._sessions.pop(token, None)
        else:
            bound(self._sessions)
            self._sessions[token] = (monotonic(), session)
        return session


def _out_of_scope(has: tuple[str, ...], wanted: tuple[str, ...]) -> ProblemError:
    if not wanted:
        return ProblemError(403, "This is for people who are signed in; no key opens it.")
    return ProblemError(
        403,
        f"This needs a key with the scope {' or '.join(wanted)}; this one has {', '.join(has)}.",
    )


def _origin(request: Request) -> str | None:
    """The origin of the page that calls; None where none is told.

    A browser names it on every cross-origin call and cannot be made to lie about it. To its own
    origin it sends only Sec-Fetch-Site (W3C Fetch Metadata) with a plain GET.
    """
    origin = request.headers.get("Origin")
    if origin is None and request.headers.get("Sec-Fetch-Site") == "same-origin":
        return request.host_url.rstrip("/")
    return origin


def _require_csrf(request: Request, session: LoginSession) -> None:
    if request.method in _SAFE_METHODS:
        return
    given = request.headers.get(CSRF_HEADER, "")
    if not hmac.compare_digest(given.encode(), session.csrf_token.encode()):
        raise ProblemError(
            403, f"Send the session's csrf_token in the header {CSRF_HEADER} with every change."
        )
