"""Rate limits for callers who are not identified as one person or program: by key and by address.

The generic cell rate algorithm (ITU-T I.371, the virtual scheduling form) needs one time for each
subject. These stand in memory that all processes share, each subject in two cells of a fixed
table: two subjects that meet in one cell differ in the other, and the more lenient one counts.
Processes that write at the same moment may lose a call of the count, never add one.
"""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass
from time import monotonic

from .serving.board import shared_numbers

_BITS = 16
_CELLS = 1 << _BITS
# A pause in typing is saved up for so long.
_SAVED_SECONDS = 20.0
_ROUNDING = 1e-6


@dataclass(frozen=True, slots=True)
class Rate:
    """Calls a second on the whole; `burst` many may come at once."""

    each_second: float
    burst: float

    @classmethod
    def of(cls, each_second: float) -> Rate:
        """A rate whose unused calls are saved up for a while."""
        return cls(each_second, each_second * _SAVED_SECONDS)


class Rates:
    """Counts calls by subject; made before the processes of a service part."""

    def __init__(self, now: Callable[[], float] = monotonic) -> None:
        self._cells = shared_numbers(_CELLS)
        self._now = now

    def take(self, subject: tuple[str, str], rate: Rate) -> int:
        """Counts one call; returns after how many seconds the next may come, 0 for now.

        A call that may not come is not counted.
        """
        cells, now, digest = self._cells, self._now(), hash(subject)
        first, second = digest & (_CELLS - 1), (digest >> _BITS) & (_CELLS - 1)
        step = 1.0 / rate.each_second
        due = min(cells[first], cells[second])
        early = due - now - (rate.burst - 1) * step
        if early > _ROUNDING:
            return math.ceil(early)
        for cell in (first, second):
            cells[cell] = max(cells[cell], now) + step
        return 0
