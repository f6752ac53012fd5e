"""Stopping where the screen is another one than the plan expects."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from .expectation import Expectation
from .step import Running


@dataclass(frozen=True, slots=True)
class ExpectFront(Expectation):
    """Stops the run where the screen is not so."""

    def says(self, labels: Mapping[str, str]) -> str:
        """The step in words."""
        return f"Expect that {self.in_words()}"

    def perform(self, run: Running) -> None:
        """Carries the step out."""
        run.wait_for(self.kind, self.test, self.text, 0)
