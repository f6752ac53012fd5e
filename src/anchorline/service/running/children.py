"""Processes of the service's own program, under its account and each in a session of its own.

Loading the application takes seconds, many on a busy machine. So beside the process that answers a
second one stands ready, loaded and waiting: where the first dies, it begins in its place at once.
"""

from __future__ import annotations

import os
import socket
import subprocess
import sys
import time
from collections.abc import Sequence
from contextlib import suppress

from anchorline.child_processes import end_processes

from .account import ServiceAccount
from .listening import LISTENER

# Said to one that stands ready, on its standard input.
GO = b"g"
WAIT = "--wait"
_STOP_SECONDS = 25
# A start is not slowed by loading everything twice at once; nor a machine by a spare that dies.
_SPARE_AFTER_SECONDS = 5.0
_SPARE_AGAIN_SECONDS = 30.0
_LAST = 19


class Child:
    """One process.

    Args:
        listener: a socket that it answers on.
    """

    def __init__(
        self,
        account: ServiceAccount,
        arguments: Sequence[str],
        environment: dict[str, str],
        listener: socket.socket | None = None,
    ) -> None:
        self._command = account.command(sys.executable, "-m", "anchorline.service", *arguments)
        self._files = () if listener is None else (listener.fileno(),)
        self._environment = environment
        if listener is not None:
            self._environment = {**environment, LISTENER: str(listener.fileno())}
        self._process: subprocess.Popen[bytes] | None = None

    def start(self) -> None:
        """Starts it."""
        self._process = self._begun()

    def alive(self) -> bool:
        """Whether it runs."""
        return _runs(self._process)

    def stop(self) -> None:
        """Asks it to end, and makes it end where it does not."""
        _end(self._process)

    def _begun(self, *more: str, stdin: int = subprocess.DEVNULL) -> subprocess.Popen[bytes]:
        return subprocess.Popen(
            [*self._command, *more],
            env=self._environment,
            pass_fds=self._files,
            stdin=stdin,
            start_new_session=True,
        )


class SparedChild(Child):
    """One process with a second one that stands ready; all in the thread that keeps it going."""

    _spare: subprocess.Popen[bytes] | None = None
    _spare_due = 0.0

    def start(self) -> None:
        """Has the spare one begin, where it stands ready; starts one where not."""
        spare, self._spare = self._spare, None
        self._spare_due = time.monotonic() + _SPARE_AFTER_SECONDS
        if spare is not None and _runs(spare) and _given_way(spare, 0) and _told_to_go(spare):
            self._process = spare
            return
        _end(spare)
        super().start()

    def alive(self) -> bool:
        """Whether it runs; sees to it that there is a spare one."""
        runs = super().alive()
        if runs and not _runs(self._spare) and time.monotonic() >= self._spare_due:
            self._spare_due = time.monotonic() + _SPARE_AGAIN_SECONDS
            self._spare = self._begun(WAIT, stdin=subprocess.PIPE)
            _given_way(self._spare, _LAST)
        return runs

    def stop(self) -> None:
        """Ends both."""
        _end(self._spare)
        super().stop()


def waited_for_its_turn() -> bool:
    """Waits, in a process that stands ready, until it is told to begin; False where it never is."""
    return os.read(sys.stdin.fileno(), 1) == GO


def _given_way(process: subprocess.Popen[bytes], niceness: int) -> bool:
    """Has a process come after others, or not any more: getting ready is in nobody's way.

    Only root can take that back, so only root does it. False where the process is gone.
    """
    if os.geteuid() != 0:
        return True
    with suppress(OSError):
        os.setpriority(os.PRIO_PROCESS, process.pid, niceness)
        return True
    return False


def _told_to_go(process: subprocess.Popen[bytes]) -> bool:
    assert process.stdin is not None
    with suppress(OSError):
        process.stdin.write(GO)
        process.stdin.close()
        return True
    return False


def _runs(process: subprocess.Popen[bytes] | None) -> bool:
    return process is not None and process.poll() is None


def _end(process: subprocess.Popen[bytes] | None) -> None:
    if process is None:
        return
    if process.stdin is not None:
        with suppress(OSError):
            process.stdin.close()
    if _runs(process):
        end_processes([process], _STOP_SECONDS)
