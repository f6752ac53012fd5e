"""How much a new edition may change and still become active without a person's decision."""

from __future__ import annotations

from dataclasses import dataclass

from ..counting import counted
from .comparison import Comparison


@dataclass(frozen=True, slots=True)
class ActivationLimits:
    """Shares of the active edition's addresses, 0 to 1."""

    gone: float = 0.02
    changed: float = 0.1
    moved: float = 0.05

    def exceeded(self, comparison: Comparison) -> list[str]:
        """A sentence for each limit that a new edition exceeds."""
        found = []
        for one, many, count, limit in (
            ("is gone", "are gone", comparison.gone, self.gone),
            ("is changed", "are changed", comparison.changed, self.changed),
            ("has moved", "have moved", comparison.moved, self.moved),
        ):
            if count > limit * comparison.before:
                share = count / comparison.before
                what = counted(count, f"address {one}", f"addresses {many}")
                found.append(f"{what}: {share:.1%}, at most {limit:.1%} may.")
        return found
