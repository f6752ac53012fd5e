"""Pressing keys."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from ....faults import Faults
from .step import Running, Step, check_keys


@dataclass(frozen=True, slots=True)
class Press(Step):
    """Presses keys, one after the other, several times."""

    keys: str = ""
    times: int = 1

    def says(self, labels: Mapping[str, str]) -> str:
        """The step in words."""
        return f"Press {self.keys}{f' {self.times} times' if self.times > 1 else ''}"

    def perform(self, run: Running) -> None:
        """Carries the step out."""
        run.press(self.keys, self.times)

    def check(self, fields: Sequence[str], pointer: str, faults: Faults) -> None:
        """Says what is wrong with the step."""
        Step.check(self, fields, pointer, faults)
        check_keys(self.keys, f"{pointer}/keys", faults)
