"""Pasting a text, whatever the plan's way is."""

from __future__ import annotations

from dataclasses import dataclass
from typing import ClassVar

from .put import Put


@dataclass(frozen=True, slots=True)
class Paste(Put):
    """Pasting a text, whatever the plan's way is."""

    verb: ClassVar[str] = "Paste"
    way: ClassVar[str] = "paste"
