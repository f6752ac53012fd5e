"""Waiting in tests: for what becomes true, never for a time."""

from __future__ import annotations

import os
import signal
import time
from collections.abc import Callable
from pathlib import Path

# Tests share a machine with each other and with strangers: all that is quick may take so many
# times as long without meaning anything.
SLOWNESS = 8


def wait_until(
    true: Callable[[], object], seconds: float = 60, why: str = "", *, every: float = 0.05
) -> None:
    """Asks until it is true, with so many seconds between.

    Raises:
        AssertionError: it was not within so many seconds.
    """
    deadline = time.monotonic() + seconds
    while not true():
        assert time.monotonic() < deadline, why or f"not within {seconds:.0f} s"
        time.sleep(every)


def hold(pid: int) -> None:
    """Stops a process in its tracks; returns when none of its threads goes on."""
    os.kill(pid, signal.SIGSTOP)
    tasks = Path(f"/proc/{pid}/task")
    wait_until(lambda: all("State:\tT" in (t / "status").read_text() for t in tasks.iterdir()))
