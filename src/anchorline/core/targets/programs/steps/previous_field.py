"""Going back by a field, or by several."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from .step import Running, Step


@dataclass(frozen=True, slots=True)
class Previous(Step):
    """Goes so many fields back."""

    times: int = 1

    def says(self, labels: Mapping[str, str]) -> str:
        """The step in words."""
        return f"Go {self.times} fields back" if self.times > 1 else "Go one field back"

    def perform(self, run: Running) -> None:
        """Carries the step out."""
        run.move(-self.times)
