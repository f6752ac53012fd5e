"""Checking the values of one column, each distinct value once.

A column of a country's file has few distinct values: towns, streets, house numbers. The result for
each is remembered, so that most of a column is only looked up.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Sequence

from ..address import USES
from ..layouts import LayoutLibrary
from ..text import has_control_characters

LONGEST_ID = 64
LONGEST_VALUE = 200
_VALUES_REMEMBERED = 200_000

Fault = tuple[str, str]
"""Name of a finding, and the reason for people."""


class Column(dict[str, str]):
    """A column's values as they will be kept, by what stands in the file.

    Args:
        name: of the column, for messages.
        accept: a normalized value as it will be kept, or the fault that makes its row useless.

    Attributes:
        faults: the faults by value, so far.
        suspects: the values that look wrongly decoded, so far.
    """

    def __init__(self, accept: Callable[[str], str | Fault]) -> None:
        super().__init__()
        self._accept = accept
        self.faults: dict[str, Fault] = {}
        self.suspects: set[str] = set()

    def __missing__(self, raw: str) -> str:
        if len(self) >= _VALUES_REMEMBERED:
            self.clear()
        kept = text_fault(raw) or self._accept(" ".join(raw.split()))
        if isinstance(kept, tuple):
            self.faults[raw] = kept
            kept = ""
        elif looks_doubly_encoded(kept):
            self.suspects.add(raw)
        self[raw] = kept
        return kept

    def read(self, values: Iterable[str]) -> list[str]:
        """The values as they will be kept; `""` for a faulty one."""
        return list(map(self.__getitem__, values))


def text_fault(raw: str) -> Fault | None:
    """What is wrong with a value whatever its column, or None."""
    if raw.isprintable() and len(raw) <= LONGEST_VALUE:
        return None
    if any("\udc80" <= c <= "\udcff" for c in raw):
        byte = next(c for c in raw if "\udc80" <= c <= "\udcff")
        return "unreadable", f"is not UTF-8: it holds the byte {ord(byte) - 0xDC00:#04x}"
    if has_control_characters(raw):
        return "control-characters", "holds control characters"
    if len(raw) > LONGEST_VALUE:
        return "too-long", f"is longer than {LONGEST_VALUE} characters"
    return None


def looks_doubly_encoded(text: str) -> bool:
    """Whether a text reads as UTF-8 that was taken for a one-byte encoding, or lost letters."""
    if text.isascii():
        return False
    if "\ufffd" in text:
        return True
    for codec in ("cp1252", "latin-1"):
        try:
            text.encode(codec).decode("utf-8")
        except UnicodeError:
            continue
        return True
    return False


def text_column() -> Column:
    """A component or a language: any text."""
    return Column(str)


def country_column(layouts: LayoutLibrary) -> Column:
    """A country that has a layout."""

    def accept(text: str) -> str | Fault:
        if layouts.get(text) is None:
            return "bad-country", f"there is no layout for country {text.upper()!r}"
        return text.upper()

    return Column(accept)


def use_column() -> Column:
    """One of USES, or nothing."""

    def accept(text: str) -> str | Fault:
        if text and text not in USES:
            return "bad-use", f"{text!r} is not one of {', '.join(USES)}"
        return text

    return Column(accept)


def action_column() -> Column:
    """`put` or `drop`."""

    def accept(text: str) -> str | Fault:
        if text not in ("put", "drop"):
            return "bad-action", f"{text!r} is neither put nor drop"
        return text

    return Column(accept)


def id_faults(ids: Sequence[str]) -> dict[int, Fault]:
    """The faults of normalized ids by their places; ids differ, so they are looked at together."""
    together = "".join(ids)
    lengths = set(map(len, ids))
    plain = together.isprintable() and "~" not in together
    if plain and min(lengths, default=1) > 0 and max(lengths, default=1) <= LONGEST_ID:
        return {}
    reason = f"must be 1 to {LONGEST_ID} characters and not begin with ~"
    faults: dict[int, Fault] = {}
    for place, text in enumerate(ids):
        if not 1 <= len(text) <= LONGEST_ID or text.startswith("~"):
            faults[place] = ("bad-id", reason)
        elif fault := text_fault(text):
            faults[place] = fault
    return faults
