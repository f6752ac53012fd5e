"""Watching whether the database answers, so that nobody waits for one that does not.

A database that hangs (stopped, a disk that does not answer) would hold every thread that asks it
something, until the last one is held. Here one thread asks for a sign of life on a connection of
its own. Where none comes, whoever waits is let go at once and whoever asks next is told so without
waiting; long queries of a database that lives go on.
"""

from __future__ import annotations

import socket
import threading
from collections.abc import Callable
from contextlib import suppress
from typing import Any

_EVERY_SECONDS = 0.3
# The usual patience. Both together stay below the three seconds within which people are told.
ANSWER_SECONDS = 2


class Lifelines:
    """The sockets of open connections: shut down, they free whoever waits at them."""

    def __init__(self) -> None:
        self._held: set[socket.socket] = set()
        self._lock = threading.Lock()

    def hold(self, connected: socket.socket) -> socket.socket:
        """Holds a second handle of a socket, which outlasts what becomes of the first one."""
        line = connected.dup()
        with self._lock:
            self._held.add(line)
        return line

    def let_go(self, line: socket.socket) -> None:
        """Lets a handle go whose connection is closed."""
        with self._lock:
            self._held.discard(line)
        line.close()

    def cut(self) -> None:
        """Ends all connections."""
        with self._lock:
            held = list(self._held)
        for line in held:
            with suppress(OSError):
                line.shutdown(socket.SHUT_RDWR)


class Pulse:
    """Asks for signs of life in a thread of its own until it is stopped.

    Args:
        connect: opens a connection that waits for an answer as long as patience lasts.
        lifelines: cut where no sign comes.
        say: told when the database stops and begins to answer.
    """

    def __init__(
        self,
        connect: Callable[[], Any],
        lifelines: Lifelines,
        say: Callable[[bool], None] = lambda _answers: None,
    ) -> None:
        self.away = False
        self._connect, self._lifelines, self._say = connect, lifelines, say
        self._connection: Any = None
        self._stopped = threading.Event()
        self._thread = threading.Thread(target=self._run, name="pulse", daemon=True)
        self._thread.start()

    def stop(self) -> None:
        """Ends the thread."""
        self._stopped.set()
        self._thread.join()
        self._drop()

    def _run(self) -> None:
        while not self._stopped.wait(_EVERY_SECONDS):
            away, before = not self._answers(), self.away
            self.away = away  # first, so that whoever is let go does not wait at another one
            if away:
                self._lifelines.cut()
            if away != before:
                self._say(not away)

    def _answers(self) -> bool:
        try:
            if self._connection is None:
                self._connection = self._connect()
            self._connection.ping(reconnect=False)
        except Exception:  # whatever a driver raises, it is no sign of life
            self._drop()
            return False
        return True

    def _drop(self) -> None:
        connection, self._connection = self._connection, None
        if connection is not None:
            with suppress(Exception):
                connection.close()
