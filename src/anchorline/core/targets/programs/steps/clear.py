"""Emptying the field with the focus."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from ....faults import Faults
from .step import Running, Step


@dataclass(frozen=True, slots=True)
class Clear(Step):
    """Empties the field: one line, a whole box, or by the plan's own keys."""

    how: str = "line"

    def says(self, labels: Mapping[str, str]) -> str:
        """The step in words."""
        return "Empty the box" if self.how == "box" else "Empty the field"

    def perform(self, run: Running) -> None:
        """Carries the step out."""
        run.clear(self.how)

    def check(self, parts: Sequence[str], pointer: str, faults: Faults) -> None:
        """Says what is wrong with the step."""
        Step.check(self, parts, pointer, faults)
        faults.one_of("way to clear", self.how, ("line", "box", "own"), f"{pointer}/how")
