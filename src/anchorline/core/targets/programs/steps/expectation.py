"""What waiting for a screen and expecting it share: a condition on what is seen."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from ....faults import Faults
from ..facts import FACT_KINDS
from ..signature import TESTS, Condition
from .step import Step


@dataclass(frozen=True, slots=True)
class Expectation(Step):
    """A condition: a key of FACT_KINDS, a key of TESTS, and a text."""

    kind: str = "title"
    test: str = "is"
    text: str = ""

    def in_words(self) -> str:
        """The condition."""
        if self.kind not in FACT_KINDS or self.test not in TESTS:
            return self.text
        return Condition(self.kind, self.test, self.text).says()

    def check(self, fields: Sequence[str], pointer: str, faults: Faults) -> None:
        """Says what is wrong with the step."""
        Step.check(self, fields, pointer, faults)
        faults.one_of("kind of fact", self.kind, FACT_KINDS, f"{pointer}/kind")
        faults.one_of("comparison", self.test, TESTS, f"{pointer}/test")
        if not self.text.strip():
            faults.say(f"{pointer}/text", "Give the text to compare with.")
