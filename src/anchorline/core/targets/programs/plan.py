"""An entry plan: how a target's parts are written into the fields of a screen.

The simple case is a table: which part goes in, cleared first or not, what comes after it. It is
carried out as steps; a plan that needs more has steps of its own instead.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from ...faults import Faults
from .keys import Chord, KeyNameError, read_chord, read_chords
from .steps import STEPS, Step
from .ways import WAYS

# What comes after a part; of several that are left without a part between, the strongest is kept.
THEN: dict[str, str] = {
    "nothing": "nothing",
    "blank": "a blank",
    "comma": "a comma and a blank",
    "line": "a new line in the same box",
    "next": "the next field",
}
CLEARS: dict[str, str] = {
    "no": "",
    "line": "Home Shift+End Delete",
    "box": "Ctrl+Home Ctrl+Shift+End Delete",
    "own": "",
}
CHECKS: dict[str, str] = {
    "field": "each field is read before it is left",
    "screen": "the screen is read at the end",
    "no": "nothing is read",
}


_PASTE, _NEXT = Chord(("Ctrl",), "v"), Chord((), "Tab")
_PREVIOUS, _LINE = Chord(("Shift",), "Tab"), Chord((), "Return")


@dataclass(frozen=True, slots=True)
class EntryRow:
    """A row of the table.

    Attributes:
        clear: a key of CLEARS: what is done to the field before its first part.
        then: a key of THEN.
        times: with `next`, how many fields further.
        keep: an empty part keeps what comes after it.
        field: the name that the screen gives the field, checked where it can be read.
    """

    part: str
    clear: str = "line"
    then: str = "next"
    times: int = 1
    keep: bool = False
    field: str = ""


@dataclass(frozen=True, slots=True)
class EntryPlan:
    """How the parts of one address are written.

    Attributes:
        rows: the table.
        own_steps: steps instead of those that the table makes; empty for the table's.
        by: a key of WAYS.
        pace_ms: between two keys.
        clear_keys: of rows that are cleared by `own` keys.
        jumps: a field that is full passes the focus on by itself.
        back_first: the program's window is brought to the front before writing.
        check: a key of CHECKS.
        not_offered: parts that are not offered where no step writes them.
    """

    rows: tuple[EntryRow, ...] = ()
    own_steps: tuple[Step, ...] = ()
    by: str = "keys"
    pace_ms: int = 2
    clear_keys: tuple[Chord, ...] = ()
    paste_key: Chord = _PASTE
    next_key: Chord = _NEXT
    previous_key: Chord = _PREVIOUS
    line_key: Chord = _LINE
    jumps: bool = False
    back_first: bool = True
    check: str = "field"
    not_offered: tuple[str, ...] = ()

    def clear_chords(self, how: str) -> Sequence[Chord]:
        """The keys that clear a field."""
        return self.clear_keys if how == "own" else read_chords(CLEARS[how])


def read_plan(
    entry: Mapping[str, Any], parts: Sequence[str], pointer: str, faults: Faults
) -> EntryPlan:
    """A plan of a document, and what is wrong with it."""
    rows = tuple(
        _row(one, parts, f"{pointer}/table/{at}", faults)
        for at, one in enumerate(entry.get("table") or ())
    )
    steps = tuple(
        _step(one, parts, f"{pointer}/steps/{at}", faults)
        for at, one in enumerate(entry.get("steps") or ())
    )
    if not rows and not steps:
        faults.say(f"{pointer}/table", "Say which part goes into the first field.")
    for name, known in (("by", WAYS), ("check", CHECKS)):
        if entry.get(name):
            faults.one_of(_CALLED[name], entry[name], known, f"{pointer}/{name}")
    for at, key in enumerate(entry.get("not_offered") or ()):
        faults.one_of("part", key, parts, f"{pointer}/not_offered/{at}")
    given: dict[str, Any] = {
        name: chord
        for name in ("paste_key", "next_key", "previous_key", "line_key")
        if entry.get(name) and (chord := _chord(entry[name], f"{pointer}/{name}", faults))
    }
    given |= {
        name: entry[name]
        for name in ("by", "pace_ms", "jumps", "back_first", "check")
        if entry.get(name) is not None
    }
    clear_keys = _clear_keys(entry, rows, pointer, faults)
    return EntryPlan(
        rows=rows, own_steps=steps, clear_keys=clear_keys,
        not_offered=tuple(entry.get("not_offered") or ()),
        **given,
    )  # fmt: skip


_CALLED = {"by": "way to write", "check": "way to check"}


def _row(entry: Mapping[str, Any], parts: Sequence[str], at: str, faults: Faults) -> EntryRow:
    row = EntryRow(**{name: value for name, value in entry.items() if value is not None})
    faults.one_of("part", row.part, parts, f"{at}/part")
    faults.one_of("way to clear", row.clear, CLEARS, f"{at}/clear")
    faults.one_of("what comes after a part", row.then, THEN, f"{at}/then")
    return row


def _step(entry: Mapping[str, Any], parts: Sequence[str], at: str, faults: Faults) -> Step:
    given = {name: value for name, value in entry.items() if name != "do" and value is not None}
    step: Step = STEPS[entry["do"]](**given)
    step.check(parts, at, faults)
    return step


def _chord(text: str, pointer: str, faults: Faults) -> Chord | None:
    try:
        return read_chord(text)
    except KeyNameError as error:
        faults.say(pointer, str(error))
        return None


def _clear_keys(
    entry: Mapping[str, Any], rows: Sequence[EntryRow], pointer: str, faults: Faults
) -> tuple[Chord, ...]:
    text = entry.get("clear_keys") or ""
    if not text and any(row.clear == "own" for row in rows):
        faults.say(f"{pointer}/clear_keys", "Name the keys that clear a field, such as Ctrl+U.")
    try:
        return tuple(read_chords(text))
    except KeyNameError as error:
        faults.say(f"{pointer}/clear_keys", str(error))
        return ()
