"""Kinds of sources: the key that a rule has in a document, and how it is read."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from ...faults import Faults
from ..known import KnownAddress
from ..rules import Note, Put, Rule, Source, Surroundings, changed

Entry = Mapping[str, Any]
ReadRules = Callable[[Sequence[Entry], str, Faults], tuple[Rule, ...]]


@dataclass(frozen=True, slots=True)
class SourceKind:
    """One kind of source.

    Attributes:
        title: what it is called where one is chosen.
        read: from a rule's entry, with a way to read rules inside it.
        fills: the keys of the receivers that a rule of this kind writes, from its entry.
    """

    title: str
    read: Callable[[Entry, str, Faults, ReadRules], Source]
    fills: Callable[[Entry], tuple[str, ...]]


def named_into(entry: Entry) -> tuple[str, ...]:
    """The one receiver that most rules write."""
    into = entry.get("into")
    return (into,) if into else ()


SOURCES: dict[str, SourceKind] = {}


def put_text(found: Put, rule: Rule, known: KnownAddress, around: Surroundings) -> list[Put]:
    """What a rule with one receiver puts into it.

    Args:
        found: the text before the rule's changes; its `field` is left open.
    """
    (key,) = rule.into
    text, notes = changed(found.text, rule.changes, known, around.receivers[key].length)
    return [Put(key, text, found.sources, (*found.notes, *notes))]


def nothing(detail: str) -> Put:
    """No text, and why."""
    return Put("", "", (), (Note("nothing", detail),))
