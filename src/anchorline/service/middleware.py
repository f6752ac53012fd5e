"""WSGI middleware around the application: arrival times, preflight requests, general headers.

It needs only the environment of a request, which makes it cheaper than Flask's hooks; every
keystroke passes through it.
"""

from __future__ import annotations

import time
from collections.abc import Iterable
from typing import TYPE_CHECKING, Any

from .endpoints import API

if TYPE_CHECKING:
    from _typeshed.wsgi import StartResponse, WSGIApplication, WSGIEnvironment

# When the request came, as `time.perf_counter` has it.
ARRIVED = "anchorline.arrived"
_GENERAL = [("X-Content-Type-Options", "nosniff"), ("Referrer-Policy", "same-origin")]
_PREFLIGHT = [
    ("Access-Control-Allow-Methods", "GET, POST"),
    ("Access-Control-Allow-Headers", "Authorization, Content-Type, Idempotency-Key, If-Match"),
    ("Access-Control-Max-Age", "600"),
]
_EXPOSED = "ETag, Location, Retry-After"


class Middleware:
    """Notes when a request came, answers preflights, and sets the general headers."""

    def __init__(self, application: WSGIApplication) -> None:
        self._application = application

    def __call__(self, environ: WSGIEnvironment, start_response: StartResponse) -> Iterable[bytes]:
        environ[ARRIVED] = time.perf_counter()
        added = _GENERAL
        origin = environ.get("HTTP_ORIGIN")
        if origin and environ["PATH_INFO"].startswith(API):
            # Cookies never travel cross-origin: Allow-Credentials is not sent.
            added = [
                *_GENERAL,
                ("Access-Control-Allow-Origin", origin),
                ("Access-Control-Expose-Headers", _EXPOSED),
                ("Vary", "Origin"),
            ]
        if environ["REQUEST_METHOD"] == "OPTIONS" and _is_preflight(environ):
            start_response("204 No Content", [*_PREFLIGHT, *added])
            return []

        def start(status: str, headers: list[tuple[str, str]], *failure: Any) -> Any:
            return start_response(status, headers + added, *failure)

        return self._application(environ, start)


def _is_preflight(environ: WSGIEnvironment) -> bool:
    """Whether a browser asks if it may call; the call itself checks the key."""
    return environ["PATH_INFO"].startswith(API) and bool(
        environ.get("HTTP_ACCESS_CONTROL_REQUEST_METHOD")
    )
