"""The ways of writing, and which is best for a program: tried on a practice address.

Keys are what a program is made for, and each of them is guarded; the other ways are for programs
that are slow to take them, or get them wrong.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from .report import OUTCOMES, RunReport

FOUND = "found"
WAYS: dict[str, str] = {
    "keys": "typed key by key",
    "paste": "pasted from the clipboard",
    "accessible": "set through the accessible interface",
    FOUND: "as found best, tried on a practice address",
}
# In this order they are tried.
TRIED = ("keys", "paste", "accessible")
# Who waits no longer than this for an address does not wait for a better way.
ENOUGH_MS = 1000
# Stops that say something of the way, and not of what happened meanwhile.
OF_THE_WAY = frozenset({"refused", "layout"})


@dataclass(frozen=True, slots=True)
class WayTried:
    """What came of one way: a key of OUTCOMES, and how long it took."""

    way: str
    outcome: str
    ms: int

    @property
    def is_enough(self) -> bool:
        """Whether no other way need be tried."""
        return self.outcome == "verified" and self.ms <= ENOUGH_MS

    def says(self) -> str:
        """What came of it, in words."""
        return f"{WAYS[self.way]}: {OUTCOMES[self.outcome]}, {self.ms} ms"


def tells_of_way(report: RunReport) -> bool:
    """Whether a run's end says something of the way; False where something came between."""
    return not report.stop or report.stop in OF_THE_WAY


def best_way(tried: Sequence[WayTried]) -> str:
    """The fastest way that was verified; keys where none could be, or none was tried."""
    verified = [one for one in tried if one.outcome == "verified"]
    enough = [one for one in verified if one.is_enough]
    # Of those that are fast enough, the first one; its order is that of trust.
    best = enough[0] if enough else min(verified, key=lambda one: one.ms, default=None)
    return best.way if best else TRIED[0]
