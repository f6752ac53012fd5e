"""Comparing what stands in a field with what was written."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from .step import Running, Step


@dataclass(frozen=True, slots=True)
class ReadBack(Step):
    """Reads the field with the focus, and notes whether it holds what was written."""

    def says(self, labels: Mapping[str, str]) -> str:
        """The step in words."""
        return "Read the field back"

    def perform(self, run: Running) -> None:
        """Carries the step out."""
        run.read_back()
