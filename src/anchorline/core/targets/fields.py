"""The fields of a target: what an address is written into, on a page or in a program.

What a field is filled with is said by the mapping; how it is found and reached is of its kind of
target alone.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from ..faults import Faults
from .options import Option, fitting

# What a field is, each with what people read.
FIELD_TYPES: dict[str, str] = {
    "text": "a text",
    "list": "a list of options",
    "radio": "radio buttons",
    "switch": "a switch",
    "hidden": "a hidden input",
    "region": "an editable region",
}
# Types in which an option is chosen and nothing is typed.
CHOSEN = frozenset({"list", "radio"})
# Types that may hold several lines.
_TYPED = frozenset({"text", "hidden", "region"})
FEWEST_PIECES, MOST_PIECES = 2, 4


@dataclass(frozen=True, slots=True)
class TargetField:
    """A field.

    Attributes:
        type: a key of FIELD_TYPES.
        several_lines: whether a text in it may have several lines.
        max_length: characters that it takes; None where that is not known.
        options: of a list or radio buttons, as far as they are known.
        pieces: of one that is split over several inputs: characters of each, None where that is
            not known; empty for one that is not.
    """

    key: str
    label: str
    type: str = "text"
    several_lines: bool = False
    max_length: int | None = None
    options: tuple[Option, ...] = ()
    pieces: tuple[int | None, ...] = ()

    def refuses(self, text: str) -> str:
        """Why it cannot hold a text, a sentence; empty where it can, or that is not known."""
        if not text or not self.options or self.type not in CHOSEN:
            return ""
        if fitting(self.options, text) is not None:
            return ""
        return f"It has no option for “{text}”."


def read_field(entry: Mapping[str, Any], pointer: str, faults: Faults) -> TargetField:
    """A field of a document, and what is wrong with it."""
    kind = entry.get("type") or "text"
    faults.one_of("type of field", kind, FIELD_TYPES, f"{pointer}/type")
    lines = bool(entry.get("several_lines"))
    if lines and kind not in _TYPED:
        faults.say(f"{pointer}/several_lines", "In it something is chosen: it holds no lines.")
    pieces = entry.get("pieces") or ()
    if pieces and not FEWEST_PIECES <= len(pieces) <= MOST_PIECES:
        detail = f"A field is split into {FEWEST_PIECES} to {MOST_PIECES} inputs."
        faults.say(f"{pointer}/pieces", detail)
    return TargetField(
        key=entry["key"],
        label=entry.get("label") or entry["key"],
        type=kind,
        several_lines=lines,
        max_length=length_of(entry),
        options=tuple(
            Option(one.get("value") or "", one.get("text") or "")
            for one in entry.get("options") or ()
        ),
        pieces=tuple(piece.get("max_length") for piece in pieces),
    )


def length_of(entry: Mapping[str, Any]) -> int | None:
    """Characters that a field of a document takes; of a split one, together where all say it."""
    lengths: Sequence[int | None] = [one.get("max_length") for one in entry.get("pieces") or ()]
    if lengths and all(lengths):
        # What stands between the pieces is in none of them.
        return sum(one or 0 for one in lengths) + len(lengths) - 1
    length: int | None = entry.get("max_length")
    return length
