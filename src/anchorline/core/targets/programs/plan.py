"""A writing plan: how a target's fields are filled on a screen, one after the other.

The fields are visited in the order of the target's list; each is emptied, written and read back. A
plan that needs more has steps of its own instead.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from ...faults import Faults
from .fields import ProgramField, emptying_chords
from .keys import Chord, KeyNameError, read_chord, read_chords
from .steps import STEPS, Step
from .ways import WAYS

CHECKS: dict[str, str] = {
    "field": "each field is read before it is left",
    "screen": "the screen is read at the end",
    "no": "nothing is read",
}


_PASTE, _NEXT = Chord(("Ctrl",), "v"), Chord((), "Tab")
_PREVIOUS, _LINE = Chord(("Shift",), "Tab"), Chord((), "Return")


@dataclass(frozen=True, slots=True)
class WritingPlan:
    """How the fields of one address are written.

    Attributes:
        fields: those of the target, in their order.
        visited: keys of those that the address fills.
        own_steps: steps instead of those that the fields make; empty for these.
        by: a key of WAYS.
        pace_ms: between two keys.
        clear_keys: of fields that are emptied by keys of the program's `own`.
        jumps: a field that is full passes the focus on by itself.
        back_first: the program's window is brought to the front before writing.
        check: a key of CHECKS.
    """

    fields: tuple[ProgramField, ...] = ()
    visited: tuple[str, ...] = ()
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

    def chords(self, how: str, length: int | None = None) -> Sequence[Chord]:
        """The keys that empty a field; see `emptying_chords`."""
        return emptying_chords(how, self.clear_keys, length)


def read_plan(
    entry: Mapping[str, Any],
    fields: Sequence[ProgramField],
    visited: Sequence[str],
    pointer: str,
    faults: Faults,
) -> WritingPlan:
    """A plan of a document, and what is wrong with it.

    Args:
        visited: keys of the fields that the address's mapping fills.
    """
    keys = [one.key for one in fields]
    steps = tuple(
        _step(one, keys, f"{pointer}/steps/{at}", faults)
        for at, one in enumerate(entry.get("steps") or ())
    )
    for name, known in (("by", WAYS), ("check", CHECKS)):
        if entry.get(name):
            faults.one_of(_CALLED[name], entry[name], known, f"{pointer}/{name}")
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
    is_own = any(one.empty == "own" and one.key in visited for one in fields)
    return WritingPlan(
        fields=tuple(fields),
        visited=tuple(visited),
        own_steps=steps,
        clear_keys=_clear_keys(entry, is_own, pointer, faults),
        **given,
    )


_CALLED = {"by": "way to write", "check": "way to check"}


def _step(entry: Mapping[str, Any], fields: Sequence[str], at: str, faults: Faults) -> Step:
    given = {name: value for name, value in entry.items() if name != "do" and value is not None}
    step: Step = STEPS[entry["do"]](**given)
    step.check(fields, at, faults)
    return step


def _chord(text: str, pointer: str, faults: Faults) -> Chord | None:
    try:
        return read_chord(text)
    except KeyNameError as error:
        faults.say(pointer, str(error))
        return None


def _clear_keys(
    entry: Mapping[str, Any], is_own: bool, pointer: str, faults: Faults
) -> tuple[Chord, ...]:
    text = entry.get("clear_keys") or ""
    if not text and is_own:
        faults.say(f"{pointer}/clear_keys", "Name the keys that empty a field, such as Ctrl+U.")
    try:
        return tuple(read_chords(text))
    except KeyNameError as error:
        faults.say(f"{pointer}/clear_keys", str(error))
        return ()
