"""What a new edition may change and still become active by itself."""

from __future__ import annotations

from dataclasses import dataclass

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
        for what, count, limit in (
            ("are gone", comparison.gone, self.gone),
            ("are changed", comparison.changed, self.changed),
            ("have moved", comparison.moved, self.moved),
        ):
            if count > limit * comparison.before:
                share = count / comparison.before
                found.append(f"{count:,} addresses {what}: {share:.1%}, at most {limit:.1%} may.")
        return found
