"""Waiting in tests: for what becomes true, never for a time."""

from __future__ import annotations

import time
from collections.abc import Callable

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
