"""A field of a program's screen: how it is reached, and how it is emptied."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from ...faults import Faults
from ..fields import TargetField, read_field
from .keys import Chord, read_chords
from .visits import Cells

# How a field is emptied, and the keys that do it; the last of them deletes.
EMPTIES: dict[str, str] = {
    "line": "Home Shift+End Delete",
    "box": "Ctrl+Home Ctrl+Shift+End Delete",
    "own": "",
    "erase": "",
    "no": "",
}
PLACES: dict[str, str] = {
    "screen": "on the screen",
    "offered": "not on the screen: offered after a run, to be copied",
    "nowhere": "not on the screen, and not offered",
}
# So many are deleted where nothing says how many a field takes.
MOST_ERASED = 80


@dataclass(frozen=True, slots=True)
class ProgramField:
    """A field of a screen.

    Attributes:
        name: what the program calls it; empty where it says nothing.
        further: how many fields it is further than the one before it in the target's list.
        empty: a key of EMPTIES: what is done before anything is written.
        where: a key of PLACES.
        cells: where it stands on a terminal's screen; None where that is not known.
    """

    field: TargetField
    name: str = ""
    further: int = 1
    empty: str = "line"
    where: str = "screen"
    cells: Cells | None = None

    @property
    def key(self) -> str:
        """Its key."""
        return self.field.key


def read_program_field(entry: Mapping[str, Any], pointer: str, faults: Faults) -> ProgramField:
    """A field of a document, and what is wrong with it."""
    field = read_field(entry, pointer, faults)
    empty = entry.get("empty") or ("box" if field.several_lines else "line")
    where = entry.get("where") or "screen"
    faults.one_of("way to empty a field", empty, EMPTIES, f"{pointer}/empty")
    faults.one_of("place of a field", where, PLACES, f"{pointer}/where")
    place = entry.get("place") or {}
    # A row high: the cells of a terminal. What is higher was measured in pixels.
    cells = Cells(place["left"], place["top"], place["width"]) if place.get("height") == 1 else None
    return ProgramField(
        field, entry.get("name") or "", entry.get("further") or 1, empty, where, cells
    )


def emptying_chords(how: str, own: Sequence[Chord], length: int | None) -> Sequence[Chord]:
    """The keys that empty a field.

    Args:
        how: a key of EMPTIES.
        own: the program's own keys for it.
        length: characters that the field takes.
    """
    if how == "own":
        return own
    if how == "erase":
        count = length or MOST_ERASED
        return [Chord((), "End"), *[Chord((), "Backspace")] * count]
    return read_chords(EMPTIES[how])
