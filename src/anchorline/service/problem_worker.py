"""The worker process: gunicorn's threaded one, but what it refuses by itself is a problem answer.

Requests that never reach the application (an address too long, headers too large, lines that are
not HTTP) are answered by gunicorn in HTML; a program that calls the API expects RFC 9457.
"""

from __future__ import annotations

import socket
import time
from contextlib import suppress
from http import HTTPStatus
from typing import Any

import orjson
from gunicorn.http.errors import LimitRequestHeaders, LimitRequestLine, ParseException
from gunicorn.util import write_nonblock
from gunicorn.workers.gthread import ThreadWorker

from anchorline.wire.problems import ProblemAnswer

from .problems import PROBLEM_TYPE

_REFUSALS: tuple[tuple[type[Exception], int, str], ...] = (
    (LimitRequestLine, 414, "The address with its query is longer than 8,190 bytes."),
    (LimitRequestHeaders, 431, "The request's headers are too large."),
    (ParseException, 400, "The request is not HTTP as it should be."),
)
# For each connection that it holds a worker waits so long before it takes another one.
_STEP_BACK_SECONDS = 0.0002
_MOST_STEPS_BACK = 10


class ProblemWorker(ThreadWorker):
    """Answers what it refuses by itself with a problem."""

    def accept(self, listener: Any) -> None:
        """Takes a new connection, unless a worker with fewer of them is quicker.

        All workers wait at the same door, and browsers keep their connections: without this one
        worker may hold most of them while another is idle.
        """
        if self.nr_conns:
            time.sleep(min(self.nr_conns, _MOST_STEPS_BACK) * _STEP_BACK_SECONDS)
        super().accept(listener)  # type: ignore[no-untyped-call]

    def handle_request(self, req: Any, conn: Any) -> Any:
        """Answers one request; its head and its body leave together.

        Gunicorn sends them one after the other: two packets, for each of which the reader wakes.
        """
        conn.sock.setsockopt(socket.IPPROTO_TCP, socket.TCP_CORK, 1)
        try:
            return super().handle_request(req, conn)  # type: ignore[no-untyped-call]
        finally:
            with suppress(OSError):  # the reader may be gone, and the socket closed
                conn.sock.setsockopt(socket.IPPROTO_TCP, socket.TCP_CORK, 0)

    def handle_error(self, req: Any, client: Any, addr: Any, exc: Exception) -> None:
        """Answers one refused request; whatever is not a client's mistake goes its usual way."""
        for kind, status, detail in _REFUSALS:
            if isinstance(exc, kind):
                write_nonblock(client, refusal(status, detail))  # type: ignore[no-untyped-call]
                return
        super().handle_error(req, client, addr, exc)  # type: ignore[no-untyped-call]


def refusal(status: int, detail: str) -> bytes:
    """A whole HTTP/1.1 answer that closes the connection."""
    phrase = HTTPStatus(status).phrase
    body = orjson.dumps(ProblemAnswer(title=phrase, status=status, detail=detail).model_dump())
    head = (
        f"HTTP/1.1 {status} {phrase}\r\nConnection: close\r\nContent-Type: {PROBLEM_TYPE}\r\n"
        f"Content-Length: {len(body)}\r\nCache-Control: no-store\r\n\r\n"
    )
    return head.encode("ascii") + body
