"""Waiting until the screen is as the plan expects."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from .expectation import Expectation
from .step import Running


@dataclass(frozen=True, slots=True)
class WaitUntil(Expectation):
    """Waits for a screen; stops the run where it does not come in time.

    Attributes:
        seconds: at most.
    """

    seconds: int = 5

    def says(self, labels: Mapping[str, str]) -> str:
        """The step in words."""
        return f"Wait until {self.in_words()}, at most {self.seconds} s"

    def perform(self, run: Running) -> None:
        """Carries the step out."""
        run.wait_for(self.kind, self.test, self.text, self.seconds)
