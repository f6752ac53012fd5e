"""What the three steps that write a text share."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import ClassVar

from ....faults import Faults
from .step import Running, Step


@dataclass(frozen=True, slots=True)
class Put(Step):
    """Writes a part, or a text of the plan's own.

    Attributes:
        then: what comes after it in the same field, where something does: a key of THEN.
        keep: an empty part keeps what comes after it.
    """

    part: str = ""
    text: str = ""
    then: str = "nothing"
    keep: bool = False

    verb: ClassVar[str] = ""
    # A key of WAYS; empty for the plan's.
    way: ClassVar[str] = ""

    def says(self, labels: Mapping[str, str]) -> str:
        """The step in words."""
        what = labels.get(self.part, self.part) if self.part else f"“{self.text}”"
        after = {"line": ", then a new line", "comma": ", then a comma", "blank": ", then a blank"}
        return f"{self.verb} {what}{after.get(self.then, '')}"

    def perform(self, run: Running) -> None:
        """Carries the step out."""
        run.put(self.part, self.text, self.then, self.keep, self.way)

    def check(self, parts: Sequence[str], pointer: str, faults: Faults) -> None:
        """Says what is wrong with the step."""
        Step.check(self, parts, pointer, faults)
        if bool(self.part) == bool(self.text):
            faults.say(pointer, "Name a part, or give a text: one of the two.")
        elif self.part:
            faults.one_of("part", self.part, parts, f"{pointer}/part")
        faults.one_of("what comes after a part", self.then, _BEHIND, f"{pointer}/then")


_BEHIND = ("nothing", "blank", "comma", "line")
