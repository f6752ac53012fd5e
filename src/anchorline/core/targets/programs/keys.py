"""Keys as plans name them: `Tab`, `Ctrl+S`, `Shift+End`."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from ...errors import nearest_names

MODIFIERS: tuple[str, ...] = ("Ctrl", "Alt", "Shift", "Super")
NAMED_KEYS: tuple[str, ...] = (
    "Tab", "Return", "Escape", "Home", "End", "Left", "Right", "Up", "Down", "Delete", "Backspace",
    "Insert", "PageUp", "PageDown", "Space", *(f"F{number}" for number in range(1, 13)),
)  # fmt: skip


class KeyNameError(ValueError):
    """A text names no key; the message says what one looks like."""


@dataclass(frozen=True, slots=True)
class Chord:
    """A key with those that are held meanwhile."""

    held: tuple[str, ...]
    key: str

    def __str__(self) -> str:
        return "+".join((*self.held, self.key))


def read_chord(text: str) -> Chord:
    """A key, perhaps with others that are held: `Ctrl+Shift+End`, `s`.

    Raises:
        KeyNameError: there is no such key.
    """
    *held, key = text.strip().split("+") if text.strip() != "+" else ["+"]
    named = {name.casefold(): name for name in NAMED_KEYS}
    modifiers = {name.casefold(): name for name in MODIFIERS}
    for one in held:
        if one.casefold() not in modifiers:
            raise KeyNameError(f"{one!r} in {text!r} cannot be held: use {', '.join(MODIFIERS)}.")
    if len(key) != 1 and key.casefold() not in named:
        near = nearest_names(key, NAMED_KEYS)
        meant = f" Did you mean {near[0]}?" if near else ""
        raise KeyNameError(f"There is no key {key!r}.{meant} Keys: {', '.join(NAMED_KEYS)}.")
    ordered = tuple(
        name for name in MODIFIERS if name in {modifiers[one.casefold()] for one in held}
    )
    return Chord(ordered, named.get(key.casefold(), key))


def read_chords(text: str) -> Sequence[Chord]:
    """Keys pressed one after the other, with blanks between; KeyNameError where one is none."""
    return tuple(read_chord(one) for one in text.split())
