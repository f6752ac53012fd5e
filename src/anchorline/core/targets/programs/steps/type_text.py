"""Typing a text, whatever the plan's way is."""

from __future__ import annotations

from dataclasses import dataclass
from typing import ClassVar

from .put import Put


@dataclass(frozen=True, slots=True)
class Type(Put):
    """Typing a text, whatever the plan's way is."""

    verb: ClassVar[str] = "Type"
    way: ClassVar[str] = "keys"
