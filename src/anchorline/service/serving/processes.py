"""Several processes that answer on one listening socket; each that dies is followed by another.

The parent loads the application once and forks: its children share what it loaded. It opens no
connection and starts no thread itself.
"""

from __future__ import annotations

import os
import resource
import signal
import socket
import sys
import time
from collections.abc import Callable
from contextlib import suppress
from dataclasses import replace
from typing import Any

from anchorline.child_processes import end_with_parent

from .board import Board
from .limits import Limits
from .server import Server

_LOOK_SECONDS = 0.1
# A process that says nothing for so long hangs.
_HANGS_SECONDS = 30.0
_STOP_SECONDS = 10.0
# One that dies so soon after it was started is followed after a pause.
_SOON_SECONDS = 1.0
_SPARE_FILES = 200


class Processes:
    """Keeps so many processes going.

    Args:
        begin: called in each process with its number before it answers.
        say: told what happens, as an event's name with values.
    """

    def __init__(
        self,
        application: Callable[..., Any],
        listener: socket.socket,
        limits: Limits,
        count: int,
        *,
        begin: Callable[[int], None] = lambda _number: None,
        say: Callable[..., None] = lambda _event, **_values: None,
    ) -> None:
        self._application, self._listener, self._limits = application, listener, limits
        self._begin, self._say = begin, say
        self._board = Board(count)
        self._running: dict[int, tuple[int, float]] = {}  # process ids: number, since when
        self._due = dict.fromkeys(range(count), 0.0)  # numbers of those to be started: when
        self._stopping = False

    def run(self) -> int:
        """Runs until a signal asks to stop; returns the exit status."""
        for number in (signal.SIGINT, signal.SIGTERM):
            signal.signal(number, self._stop)
        self._limits = within_open_files(self._limits)
        while not self._stopping:
            self._start_those_due()
            time.sleep(_LOOK_SECONDS)
            self._look_after()
        self._end_all()
        return 0

    def _stop(self, _number: int, _frame: object) -> None:
        self._stopping = True

    def _start_those_due(self) -> None:
        now = time.monotonic()
        for number in [number for number, when in self._due.items() if when <= now]:
            del self._due[number]
            self._board.clear(number)
            parent = os.getpid()
            pid = os.fork()
            if pid == 0:
                self._be(number, parent)
            self._running[pid] = (number, now)

    def _be(self, number: int, parent: int) -> None:
        """The life of a child; never returns."""
        status = 1
        try:
            end_with_parent(parent)
            signal.signal(signal.SIGINT, signal.SIG_IGN)
            signal.signal(signal.SIGTERM, signal.SIG_DFL)
            self._begin(number)
            server = Server(self._application, self._listener, self._limits, self._board, number)
            signal.signal(signal.SIGTERM, lambda *_: server.stop())
            server.run()
            status = 0
        except BaseException as error:
            self._say("a process of the service failed", error=type(error).__name__)
        finally:
            with suppress(OSError, ValueError):  # a full disk must not send a child on as a parent
                sys.stdout.flush()
                sys.stderr.flush()
            os._exit(status)

    def _look_after(self) -> None:
        while self._running:
            pid, status = os.waitpid(-1, os.WNOHANG)
            if pid == 0:
                break
            number, since = self._running.pop(pid, (None, 0.0))
            if number is not None and not self._stopping:
                soon = time.monotonic() - since < _SOON_SECONDS
                self._due[number] = time.monotonic() + (_SOON_SECONDS if soon else 0)
                self._board.clear(number)
                self._say("a process of the service died; starting it again", status=status)
        for pid, (number, _) in self._running.items():
            if self._board.silent_for(number) > _HANGS_SECONDS:
                self._say("a process of the service hangs; it is ended", process=pid)
                self._board.clear(number)
                kill(pid, signal.SIGKILL)

    def _end_all(self) -> None:
        for pid in self._running:
            kill(pid, signal.SIGTERM)
        deadline = time.monotonic() + _STOP_SECONDS
        while self._running and time.monotonic() < deadline:
            time.sleep(0.02)
            self._look_after()
        for pid in self._running:
            kill(pid, signal.SIGKILL)
        self._look_after()


def kill(pid: int, number: signal.Signals) -> None:
    """Sends a signal to a process, unless it is gone."""
    with suppress(ProcessLookupError):
        os.kill(pid, number)


def within_open_files(limits: Limits) -> Limits:
    """The limits, with no more connections than the system lets a process have open files."""
    wanted = limits.connections + _SPARE_FILES
    _soft, hard = resource.getrlimit(resource.RLIMIT_NOFILE)
    most = wanted if hard == resource.RLIM_INFINITY else min(wanted, hard)
    resource.setrlimit(resource.RLIMIT_NOFILE, (most, hard))
    return replace(limits, connections=min(limits.connections, most - _SPARE_FILES))
