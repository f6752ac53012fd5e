"""What a run holds: the texts that it writes, and the fields that it has been in."""

from __future__ import annotations

from dataclasses import dataclass, field


@dataclass(slots=True)
class Visit:
    """A field of the screen that the run has been in.

    Attributes:
        begun: the step that began it.
        before: what stood there; None where that is unknown.
        how: how it was emptied; empty where it was not.
        touched: whether anything in it was changed.
        text: what the run has written there.
        fields: keys of the target's fields whose texts that is.
        away: fields on to the one after it.
        found: what stands there as it was read back; None where it was not.
    """

    begun: int
    before: str | None = None
    how: str = ""
    touched: bool = False
    text: str = ""
    fields: list[str] = field(default_factory=list)
    away: int = 0
    found: str | None = None


@dataclass(frozen=True, slots=True)
class Cells:
    """A row of cells of a terminal's screen, counted from 0."""

    left: int
    top: int
    width: int

    def text_in(self, screen: str) -> str:
        """What stands in them."""
        lines = screen.split("\n")
        line = lines[self.top] if self.top < len(lines) else ""
        return line[self.left : self.left + self.width]


@dataclass(frozen=True, slots=True)
class FieldText:
    """What the target's mapping puts into a field.

    Attributes:
        where: a key of PLACES.
        cells: where it stands on a terminal's screen; None where that is not known.
    """

    key: str
    label: str
    text: str
    max_length: int | None = None
    where: str = "screen"
    cells: Cells | None = None
