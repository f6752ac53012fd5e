"""One client's connection: its requests one after the other, and how long each may take."""

from __future__ import annotations

import socket
from contextlib import suppress
from time import monotonic
from typing import Any

from waitress.channel import HTTPChannel
from waitress.task import ErrorTask, Task, WSGITask

from .limits import Limits
from .received import ReceivedRequest

# How long what is still on its way to a refused request is read and thrown away, so that the
# client gets to read the refusal: closing at once would cut it off (RFC 9112, 9.6).
_LINGER_SECONDS = 2.0
_NO_LENGTH = b"Content-Length: 0\r\n"


class _OnePiece(Task):  # type: ignore[misc]
    """Sends the head of an answer together with the beginning of its body.

    Two packets would wake whoever reads twice.
    """

    wrote_header = False
    _bodiless = False

    @property
    def has_body(self) -> bool:
        """Whether the answer has a body; see `build_response_header`."""
        return bool(self._bodiless or super().has_body)

    def build_response_header(self) -> bytes:
        """The head. Waitress would end the connection after each answer that has no body."""
        if self.has_body:
            return bytes(super().build_response_header())
        self.content_length, self._bodiless = 0, True
        head = bytes(super().build_response_header())
        self._bodiless = False
        return head.replace(_NO_LENGTH, b"", 1)

    def write(self, data: bytes) -> None:
        """Sends some bytes of the body, the head before the first."""
        length = self.content_length
        if self.wrote_header or not self.complete or not data or not self.has_body:
            super().write(data)
            return
        head = self.build_response_header()
        self.wrote_header = True
        if self.chunked_response or length is None or len(data) > length:
            self.channel.write_soon(head)
            super().write(data)
            return
        self.content_bytes_written += len(data)
        self.channel.write_soon(head + data)


class _Answer(_OnePiece, WSGITask):  # type: ignore[misc]
    """What the application answers."""


class _Refused(_OnePiece, ErrorTask):  # type: ignore[misc]
    """What is answered to a request that never reached the application."""


class _HeadCheck:
    """Asks, in a thread of the pool, whether a large body may come in."""

    def __init__(self, connection: Connection, request: ReceivedRequest) -> None:
        self._connection, self._request = connection, request

    def service(self) -> None:
        """Does it."""
        environ = WSGITask(self._connection, self._request).get_environment()
        try:
            refusal = self._connection.limits.admit(environ)
        except Exception:
            refusal = (500, "Something went wrong on our side. Try again.", {})
        self._connection.settle(self._request, refusal)

    def cancel(self) -> None:
        """The pool ends."""
        self._connection.cancel()


class Connection(HTTPChannel):  # type: ignore[misc]
    """One connection of a `Server`."""

    task_class = _Answer
    error_task_class = _Refused
    request: ReceivedRequest | None

    def __init__(self, server: Any, sock: Any, address: Any, adjustments: Any, map: Any) -> None:
        self.limits: Limits = server.limits
        self._since = monotonic()  # when it last had nothing under way
        self._moved, self._moved_at = 0, self._since
        self._held = self._has_unread = False
        self._lingers_until = 0.0
        super().__init__(server, sock, address, adjustments, map=map)

    def parser_class(self, adjustments: Any) -> ReceivedRequest:
        """A new request."""
        return ReceivedRequest(adjustments, self.limits)

    @property
    def waits_since(self) -> float:
        """Since when it waits for its client, monotonic; infinite while it does not."""
        if self.requests or self._held:
            return float("inf")
        # Once: a thread that answers may take it away meanwhile.
        request = self.request
        return request.began if request is not None else self._since

    def overdue(self, now: float) -> None:
        """Ends the connection, or the request that it receives, where the client is too slow.

        It ends at once, and not when something can be sent: to whoever takes nothing, nothing can.
        """
        if self._lingers_until:
            if now > self._lingers_until:
                self.handle_close()
            return
        stalled = self._stalled(now)
        request = self.request
        if self.total_outbufs_len:
            if stalled:  # nobody takes the answer
                self.handle_close()
        elif self.requests or self._held:
            self._since = now
        elif request is None:
            silent = self.limits.idle_seconds if self._moved else self.limits.head_seconds
            if now - max(self._since, self._moved_at) > silent:
                self.handle_close()
        elif self._is_late(request, now, stalled=stalled):
            self._answer_late(request)

    def _stalled(self, now: float) -> bool:
        return now - self._moved_at > self.limits.stall_seconds

    def _is_late(self, request: ReceivedRequest, now: float, *, stalled: bool) -> bool:
        took = now - request.began
        if not request.headers_finished:
            return took > self.limits.head_seconds
        least = self.limits.least_pace * (took - self.limits.stall_seconds)
        return stalled or request.body_bytes_received < least

    def _answer_late(self, request: ReceivedRequest) -> None:
        with self.requests_lock:
            if self.request is not request:  # it came whole at the last moment
                return
            request.refuse(408, "The request did not come whole in time. Send it again.")
            self.request = None
            self.requests.append(request)
            if len(self.requests) == 1:
                self.server.add_task(self)

    # Receiving

    def readable(self) -> bool:
        """Whether more is taken in now."""
        return bool(self._lingers_until or (not self._held and super().readable()))

    def handle_read(self) -> None:
        """Takes in what came; throws it away once the connection only lingers."""
        if not self._lingers_until:
            super().handle_read()
            return
        try:
            gone = not self.socket.recv(65_536)
        except BlockingIOError:
            return
        except OSError:
            gone = True
        if gone:
            self.handle_close()

    def received(self, data: bytes) -> bool:
        """Takes in some bytes of one or more requests."""
        self._moved += len(data)
        self._moved_at = monotonic()
        taken = bool(super().received(data))
        request = self.request
        if request is not None and request.needs_admission and not self._held:
            self._held = True
            self.server.add_task(_HeadCheck(self, request))
        return taken

    def send_continue(self) -> None:
        """Asks for a body, once it may come."""
        request = self.request
        if request is not None and not request.needs_admission:
            super().send_continue()

    def settle(self, request: ReceivedRequest, refusal: Any) -> None:
        """Goes on after a `_HeadCheck`."""
        with self.requests_lock:
            request.settle(refusal)
            self._held = False
            self._moved_at = monotonic()
            if request.completed:
                self.request = None
                self.requests.append(request)
                if len(self.requests) == 1:
                    self.server.add_task(self)
            elif request.expect_continue and not self.requests and not self.sent_continue:
                self.send_continue()
        self.server.pull_trigger()

    # Sending

    def send(self, data: bytes, do_close: bool = True) -> int:
        """Sends some bytes; returns how many went."""
        count = int(super().send(data, do_close=do_close))
        if count:
            self._moved += count
            self._moved_at = self._since = monotonic()
        return count

    def handle_write(self) -> None:
        """Sends what waits; after a refusal the connection lingers before it ends."""
        refused = self.close_when_flushed and not self.will_close and self._has_unread
        if refused and not self._lingers_until:
            self._flush_exception(self._flush_some)
            if self.connected and not self.total_outbufs_len and not self.will_close:
                self._linger()
                return
        super().handle_write()

    def writable(self) -> bool:
        """Whether there is something to send, or the end to be made."""
        return bool(self.will_close or (not self._lingers_until and super().writable()))

    def service(self) -> None:
        """Answers the first request that waits."""
        self._has_unread = self.requests[0].error is not None
        super().service()

    def _linger(self) -> None:
        self._lingers_until = monotonic() + _LINGER_SECONDS
        with suppress(OSError):
            self.socket.shutdown(socket.SHUT_WR)
