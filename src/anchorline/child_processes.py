"""Ending processes, and having them end with their parents."""

from __future__ import annotations

import ctypes
import os
import signal
from collections.abc import Iterable
from contextlib import suppress
from typing import Protocol

import psutil

_PR_SET_PDEATHSIG = 1


class Child(Protocol):
    """A child of this process, such as `subprocess.Popen`."""

    @property
    def pid(self) -> int:
        """Its id."""

    def poll(self) -> int | None:
        """Its exit status; None while it runs."""


def end_with_parent(parent: int) -> None:
    """Has the kernel ask this process to end when its parent ends, however that comes."""
    ctypes.CDLL(None).prctl(_PR_SET_PDEATHSIG, signal.SIGTERM)
    if os.getppid() != parent:  # it ended before the call
        os._exit(1)


def end_processes(processes: Iterable[int | Child], seconds: float, *, kill: bool = True) -> bool:
    """Asks processes to end (SIGTERM) and waits until they have.

    Args:
        processes: by their ids, or as they were started.
        seconds: how long they have for it, all together.
        kill: those that are left after that are killed.

    Returns:
        Whether all of them ended when they were asked to.
    """
    given = list(processes)
    running = []
    for one in given:
        with suppress(psutil.NoSuchProcess):
            process = psutil.Process(one if isinstance(one, int) else one.pid)
            process.terminate()
            running.append(process)
    _, left = psutil.wait_procs(running, timeout=seconds)
    if left and kill:
        for process in left:
            with suppress(psutil.NoSuchProcess):
                process.kill()
        psutil.wait_procs(left, timeout=seconds)
    for one in given:
        if not isinstance(one, int):
            one.poll()  # it was waited for above: that this is so must be known to it
    return not left
