"""Emptying the field with the focus."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from ....faults import Faults
from ..fields import EMPTIES
from .step import Running, Step


@dataclass(frozen=True, slots=True)
class Clear(Step):
    """Empties the field with the focus.

    Attributes:
        how: a key of EMPTIES.
        field: the target's field that it is, for how much it holds.
    """

    how: str = "line"
    field: str = ""

    def says(self, labels: Mapping[str, str]) -> str:
        """The step in words."""
        return "Empty the box" if self.how == "box" else "Empty the field"

    def perform(self, run: Running) -> None:
        """Carries the step out."""
        run.clear(self.how, self.field)

    def check(self, fields: Sequence[str], pointer: str, faults: Faults) -> None:
        """Says what is wrong with the step."""
        Step.check(self, fields, pointer, faults)
        faults.one_of("way to empty a field", self.how, EMPTIES, f"{pointer}/how")
        if self.field:
            faults.one_of("field", self.field, fields, f"{pointer}/field")
