"""Stopping where another field has the focus."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from .step import Running, Step


@dataclass(frozen=True, slots=True)
class ExpectField(Step):
    """Stops the run where the screen names another field; where it names none, it goes on."""

    name: str = ""

    def says(self, labels: Mapping[str, str]) -> str:
        """The step in words."""
        return f"Expect the field “{self.name}”"

    def perform(self, run: Running) -> None:
        """Carries the step out."""
        run.expect_field(self.name)
