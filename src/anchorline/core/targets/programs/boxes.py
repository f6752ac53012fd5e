"""What a run holds: the parts that it writes, and the fields that it has written into."""

from __future__ import annotations

from dataclasses import dataclass, field


@dataclass(slots=True)
class Box:
    """A field of the screen that the run has written into.

    Attributes:
        begun: the step that began it.
        before: what stood there; None where that is unknown.
        how: how it is cleared; empty where it was not.
        touched: whether anything in it was changed.
        away: fields on to the one after it.
        due: what is due before the next part, a key of THEN.
        left: of what is due, the signs that are still to be written; None before it is begun.
    """

    begun: int
    before: str | None = None
    how: str = ""
    touched: bool = False
    text: str = ""
    parts: list[str] = field(default_factory=list)
    away: int = 0
    due: str = ""
    left: str | None = None
    found: str | None = None


@dataclass(frozen=True, slots=True)
class Part:
    """A part that the target's mapping has made."""

    key: str
    label: str
    text: str
    max_length: int | None = None
