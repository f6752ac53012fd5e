"""The plan's way of writing a text."""

from __future__ import annotations

from dataclasses import dataclass
from typing import ClassVar

from .put import Put


@dataclass(frozen=True, slots=True)
class Write(Put):
    """The plan's way of writing a text."""

    verb: ClassVar[str] = "Write"
    way: ClassVar[str] = ""
