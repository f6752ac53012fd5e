"""What changes between two documents: a kind and a place for programs, a sentence for people."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from typing import Any, Literal

from .counting import counted

Document = Mapping[str, Any]
Kind = Literal["added", "removed", "changed", "moved"]


@dataclass(frozen=True, slots=True)
class Change:
    """One change.

    Attributes:
        pointer: to its place in the new document; in the old one where it is removed.
        detail: a sentence.
        keeps: of something that is removed: its key, under which records keep what they have.
    """

    kind: Kind
    pointer: str
    detail: str
    keeps: str | None = None


def settings_changed(old: Document, new: Document, called: Mapping[str, str]) -> Iterator[Change]:
    """What changes of plain settings, by what they are called."""
    for name, title in called.items():
        if old.get(name) != new.get(name):
            yield Change("changed", f"/{name}", f"{title} {from_to(old, new, name)}.")


def finished(change: Change, records: int | None) -> str:
    """The sentence of a change, with how many records it leaves as they are."""
    if change.kind != "removed":
        return change.detail
    if not records:
        return f"{change.detail.rstrip('.')}."
    keep = "keeps its value" if records == 1 else "keep their value"
    return f"{change.detail}: {counted(records, 'record')} {keep}."


def from_to(old: Document, new: Document, name: str) -> str:
    """That a setting is now one thing instead of another."""
    before, now = _plain(old.get(name)), _plain(new.get(name))
    if not now:
        return f"is gone; it was {before}"
    return f"is now {now}" + (f" instead of {before}" if before else "")


def _plain(value: object) -> str:
    # By what it is: a limit of 0 is one.
    if value is None or value is False or value == "" or value == [] or value == {}:
        return ""
    if value is True:
        return "yes"
    if isinstance(value, Mapping):
        return ", ".join(f"{name.replace('_', ' ')}: {_plain(one)}" for name, one in value.items())
    if isinstance(value, list):
        return ", ".join(str(one) for one in value)
    text = str(value)
    return f"“{text if len(text) <= 60 else text[:59] + '…'}”" if isinstance(value, str) else text
