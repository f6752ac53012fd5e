"""How fast the machine is while something is measured: on shared ones it varies by two."""

from __future__ import annotations

import time

import numpy as np


class Machine:
    """Milliseconds for a small loop, taken now and then."""

    def __init__(self) -> None:
        self.times: list[float] = []

    def look(self) -> None:
        """Times the loop once."""
        started = time.thread_time_ns()
        sum(range(3000))
        self.times.append((time.thread_time_ns() - started) / 1e6)

    def __str__(self) -> str:
        return f"{np.median(self.times):.3f} ms (fastest {min(self.times):.3f})"
