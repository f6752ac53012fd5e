"""The fields and addresses of a proposed target, of pages and programs alike."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from ...layouts import LayoutLibrary
from .grouping import Group, addresses_among
from .keys import keys_of
from .meaning import Meaning, meaning_of, words_of
from .rules import rules_for
from .seen import SeenField

Entry = dict[str, Any]


@dataclass(frozen=True, slots=True)
class Reason:
    """Why a field is taken for what it is, and whether that is sure."""

    because: str
    is_sure: bool = True


@dataclass(frozen=True)
class FieldsProposal:
    """Fields and addresses that may be meant.

    Attributes:
        fields: as a document has them, without how they are found and reached.
        addresses: key, label and mapping of each.
        reasons: by the fields' keys.
    """

    fields: Sequence[Entry]
    addresses: Sequence[Entry]
    reasons: Mapping[str, Reason]


def propose_fields(seen: Sequence[SeenField], layouts: LayoutLibrary) -> FieldsProposal:
    """What fields are, and the addresses that are to be written into them."""
    keys = keys_of(seen)
    meanings = [meaning_of(one, layouts) for one in seen]
    groups = addresses_among(seen, meanings)
    addresses = [_address(group, seen, keys, meanings) for group in groups]
    return FieldsProposal(
        [_field(one, key) for one, key in zip(seen, keys, strict=True)],
        _with_keys(addresses, groups),
        {key: Reason(one.because, one.is_sure) for key, one in zip(keys, meanings, strict=True)},
    )


def _address(
    group: Group, seen: Sequence[SeenField], keys: Sequence[str], meanings: Sequence[Meaning]
) -> Entry:
    own = [(keys[at], seen[at], meanings[at]) for at in group.places]
    return {"label": group.label, "mapping": rules_for(own)}


def _with_keys(addresses: Sequence[Entry], groups: Sequence[Group]) -> list[Entry]:
    found: list[Entry] = []
    taken: set[str] = set()
    for entry, group in zip(addresses, groups, strict=True):
        plain = group.key or "-".join(words_of(group.label).split()) or "address"
        plain = plain[:40] if plain.isascii() and plain[:1].isalpha() else "address"
        key, number = plain, 2
        while key in taken:
            key, number = f"{plain}-{number}", number + 1
        taken.add(key)
        found.append({"key": key, **entry})
    return found


def _field(seen: SeenField, key: str) -> Entry:
    label = seen.label or seen.placeholder or words_of(seen.name or seen.id) or key
    entry: Entry = {"key": key, "label": label}
    if seen.type != "text":
        entry["type"] = seen.type
    if seen.several_lines:
        entry["several_lines"] = True
    if seen.max_length and not seen.pieces:
        entry["max_length"] = seen.max_length
    if seen.options:
        entry["options"] = [{"value": one.value, "text": one.text} for one in seen.options]
    if seen.block:
        entry["block"] = seen.block
    if seen.place is not None:
        at = seen.place
        entry["place"] = {
            "left": at.left, "top": at.top, "width": at.width, "height": at.height,
        }  # fmt: skip
    return entry


def filled_by(mapping: Sequence[Mapping[str, Any]]) -> list[str]:
    """Keys of the fields that rules fill."""
    return [key for rule in mapping for key in _into(rule)]


def _into(rule: Mapping[str, Any]) -> Sequence[str]:
    return rule["fit"]["into"] if rule.get("fit") else [rule["into"]]
