"""Keeping one part of the service going: whatever it dies of, it is started again.

One that dies again and again is started after longer and longer pauses, so that a fault that stays
(a full disk, a port that somebody took) neither fills the log nor wears the machine out.
"""

from __future__ import annotations

import threading
import time
from collections.abc import Callable
from typing import Protocol

from ..logs import logger

_LOOK_SECONDS = 0.1
_PAUSES = (0.1, 0.5, 1.0, 2.0, 5.0, 10.0, 20.0, 30.0)
# Alive for so long, it is well again.
_WELL_SECONDS = 60.0
_log = logger("running")


class Part(Protocol):
    """What is kept going."""

    def start(self) -> object:
        """Starts it; raises where that does not succeed."""

    def alive(self) -> bool:
        """Whether it runs."""

    def stop(self) -> None:
        """Ends it, in order where it takes that."""


class Keeper:
    """Keeps a part going in a thread of its own, from a first start that succeeded.

    Args:
        may_start: says why the part should not be started now; None where it may be.
    """

    def __init__(
        self, name: str, part: Part, may_start: Callable[[], str | None] = lambda: None
    ) -> None:
        self._name, self._part, self._may_start = name, part, may_start
        self._ending = threading.Event()
        self._thread = threading.Thread(target=self._run, name=f"keep {name}", daemon=True)
        self._said = ""
        self._first: list[BaseException] = []
        self._begun = threading.Event()

    def begin(self) -> None:
        """Starts the part, and the thread that keeps it going.

        Raises:
            Exception: what its first start raised; nothing is kept going then.
        """
        self._thread.start()
        self._begun.wait()
        if self._first:
            raise self._first[0]

    def end(self) -> None:
        """Ends the part."""
        self._ending.set()
        self._thread.join()

    def _run(self) -> None:
        # All in one thread: the kernel ends a child when the thread that started it ends.
        try:
            self._part.start()
        except BaseException as error:
            self._first.append(error)
            return
        finally:
            self._begun.set()
        pauses, since = iter(_PAUSES), time.monotonic()
        while not self._ending.wait(_LOOK_SECONDS):
            if self._part.alive():
                continue
            if time.monotonic() - since > _WELL_SECONDS:
                pauses = iter(_PAUSES)
            if self._ending.wait(next(pauses, _PAUSES[-1])):
                break
            since = time.monotonic()
            self._start_again()
        self._part.stop()

    def _start_again(self) -> None:
        against = self._may_start()
        if against is not None:
            self._say(f"{self._name} is not started: {against}")
            return
        self._said = ""
        _log.error(f"{self._name} died; starting it again")
        try:
            self._part.start()
        except Exception as error:
            self._say(f"{self._name} did not start: {error}")

    def _say(self, what: str) -> None:
        if what != self._said:
            self._said = what
            _log.error(what)
