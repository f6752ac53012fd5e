"""A new line in the same field."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from .step import Running, Step


@dataclass(frozen=True, slots=True)
class LineBreak(Step):
    """Begins a new line in the same field."""

    def says(self, labels: Mapping[str, str]) -> str:
        """The step in words."""
        return "Begin a new line"

    def perform(self, run: Running) -> None:
        """Carries the step out."""
        run.line_break()
