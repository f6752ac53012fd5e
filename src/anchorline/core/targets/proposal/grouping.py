"""Which fields are one address."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field

from .meaning import Meaning, whose
from .seen import SeenField


@dataclass
class Group:
    """An address among the fields: a key, a label, and the places of its fields."""

    key: str
    label: str
    places: list[int] = field(default_factory=list)
    taken: set[str] = field(default_factory=set)


def addresses_among(seen: Sequence[SeenField], meanings: Sequence[Meaning]) -> list[Group]:
    """The addresses, in the order of their first fields; fields that are of none are left out.

    Fields belong together by HTML's words for whose address it is, by the block that they stand
    in, and until a part comes a second time.
    """
    groups: list[Group] = []
    for place, (one, meaning) in enumerate(zip(seen, meanings, strict=True)):
        if not meaning.of:
            continue
        word, label = whose(one)
        key, called = (word, label) if word else ("", one.block)
        group = _open(groups, key, called, meaning)
        group.places.append(place)
        group.taken |= set(meaning.of)
    for number, group in enumerate(groups, 1):
        group.label = group.label or ("Address" if len(groups) == 1 else f"Address {number}")
    return groups


def _open(groups: list[Group], key: str, label: str, meaning: Meaning) -> Group:
    for group in reversed(groups):
        if (group.key, group.label) == (key, label):
            if not group.taken & set(meaning.of):
                return group
            break
    groups.append(Group(key, label))
    return groups[-1]
