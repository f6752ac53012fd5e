"""All connections of one process, and the threads that answer them."""

from __future__ import annotations

import logging
import socket
import time
from collections import Counter
from collections.abc import Callable
from time import monotonic
from typing import Any

from waitress import wasyncore
from waitress.adjustments import Adjustments
from waitress.server import TcpWSGIServer
from waitress.task import ThreadedTaskDispatcher

from .board import Board
from .connection import Connection
from .limits import IN_MEMORY, LONGEST_HEAD, Limits

_LOOK_SECONDS = 1.0
# Held more than others by so many, a process lets them take a new connection first.
_EVEN_ENOUGH = 2
_STEP_BACK_SECONDS = 0.0005
_GRACE_SECONDS = 5.0

# Its warnings of every queued request would fill the log when it is needed.
logging.getLogger("waitress.queue").setLevel(logging.ERROR)


class Server(TcpWSGIServer):  # type: ignore[misc]
    """Serves an application on a listening socket until it is told to stop.

    Args:
        listener: bound and listening already; other processes may wait at it as well.
        process: this one's place on the board.
    """

    channel_class = Connection

    def __init__(
        self,
        application: Callable[..., Any],
        listener: socket.socket,
        limits: Limits,
        board: Board,
        process: int = 0,
    ) -> None:
        self.limits, self._board, self._process = limits, board, process
        self._stopping_since = 0.0
        self._looked = monotonic()
        adjustments = Adjustments(
            sockets=[listener],
            threads=limits.threads,
            ident=None,
            inbuf_overflow=IN_MEMORY,
            max_request_header_size=LONGEST_HEAD,
            max_request_body_size=1 << 62,  # each address has its own
            connection_limit=limits.connections + 100,
            clear_untrusted_proxy_headers=False,
        )
        threads = ThreadedTaskDispatcher()
        threads.set_thread_count(limits.threads)
        place = (listener.family, listener.type, listener.proto, listener.getsockname())
        super().__init__(
            application, {}, _sock=listener, dispatcher=threads, adj=adjustments,
            sockinfo=place, bind_socket=False,
        )  # fmt: skip

    def run(self) -> None:
        """Serves; returns once it was told to stop and has answered what was under way."""
        while not self._is_done():
            wasyncore.poll2(_LOOK_SECONDS, self._map)
        self.task_dispatcher.shutdown(timeout=1)
        wasyncore.close_all(self._map, ignore_all=True)

    def stop(self) -> None:
        """Takes no further connection, and ends; may be called by a signal's handler."""
        self._stopping_since = self._stopping_since or monotonic()
        self.pull_trigger()

    def _is_done(self) -> bool:
        now = monotonic()
        if now - self._looked >= _LOOK_SECONDS:
            self._looked = now
            for connection in list(self.active_channels.values()):
                connection.overdue(now)
        self._board.beat(self._process, len(self.active_channels))
        if not self._stopping_since:
            return False
        self.accepting = False
        busy = any(
            connection.requests or connection.total_outbufs_len
            for connection in self.active_channels.values()
        )
        return not busy or now - self._stopping_since > _GRACE_SECONDS

    def readable(self) -> bool:
        """Whether new connections are taken."""
        return not self._stopping_since

    def accept_connections(self) -> None:
        """The socket listens already, with a backlog of its own."""
        self.accepting = True

    def handle_accept(self) -> None:
        """Takes a new connection; one that waits for its client ends where there are too many.

        All processes wait at the same door, and browsers keep their connections: one that holds
        more than others steps back for a moment.
        """
        held = len(self.active_channels)
        if held > self._board.fewest() + _EVEN_ENOUGH:
            time.sleep(_STEP_BACK_SECONDS)
        super().handle_accept()
        if len(self.active_channels) > self.limits.connections:
            self._end_longest_waiting()

    def _end_longest_waiting(self) -> None:
        """Ends a connection of whoever holds the most of them."""
        waiting = [c for c in self.active_channels.values() if c.waits_since != float("inf")]
        if waiting:
            held = Counter(connection.addr[0] for connection in waiting)
            most = max(held.values())
            greedy = [c for c in waiting if held[c.addr[0]] == most]
            min(greedy, key=lambda connection: connection.waits_since).handle_close()
