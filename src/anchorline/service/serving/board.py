"""Memory shared by the processes of one service: made before the fork, in no file.

It holds numbers of eight bytes, each written by one process alone or harmless where two write at
once. A file would end a process that writes to it when the disk is full (SIGBUS).
"""

from __future__ import annotations

import mmap
from time import monotonic

_BYTES = 8


def shared_numbers(count: int) -> memoryview[float]:
    """So many shared floating-point numbers, all 0."""
    return memoryview(mmap.mmap(-1, max(1, count) * _BYTES)).cast("d")


class Board:
    """What the processes say of themselves: that they live, and how many connections they hold."""

    def __init__(self, processes: int) -> None:
        self._beats = shared_numbers(processes)
        self._held = shared_numbers(processes)

    def beat(self, process: int, connections: int) -> None:
        """Says that a process lives."""
        self._beats[process] = monotonic()
        self._held[process] = connections

    def clear(self, process: int) -> None:
        """Of a process that is gone: whoever follows it has not been heard of yet."""
        self._beats[process] = monotonic()
        self._held[process] = float("inf")

    def silent_for(self, process: int) -> float:
        """Seconds since a process was heard of."""
        return monotonic() - self._beats[process]

    def fewest(self) -> float:
        """How many connections the process with the fewest of them holds."""
        return min(self._held)
