"""What the three steps that write a text share."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import ClassVar

from ....faults import Faults
from .step import Running, Step


@dataclass(frozen=True, slots=True)
class Put(Step):
    """Writes what a field is filled with, or a text of the plan's own."""

    field: str = ""
    text: str = ""

    verb: ClassVar[str] = ""
    # A key of WAYS; empty for the plan's.
    way: ClassVar[str] = ""

    def says(self, labels: Mapping[str, str]) -> str:
        """The step in words."""
        what = labels.get(self.field, self.field) if self.field else f"“{self.text}”"
        return f"{self.verb} {what}"

    def perform(self, run: Running) -> None:
        """Carries the step out."""
        run.put(self.field, self.text, self.way)

    def check(self, fields: Sequence[str], pointer: str, faults: Faults) -> None:
        """Says what is wrong with the step."""
        Step.check(self, fields, pointer, faults)
        if bool(self.field) == bool(self.text):
            faults.say(pointer, "Name a field, or give a text: one of the two.")
        elif self.field:
            faults.one_of("field", self.field, fields, f"{pointer}/field")
