"""A page target proposed from the fields that are seen on a page."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from ...layouts import LayoutLibrary
from ..proposal.meaning import token_of
from ..proposal.seen import SeenField
from ..proposal.target import FieldsProposal, Reason, filled_by, propose_fields

Entry = dict[str, Any]


@dataclass(frozen=True)
class PageProposal:
    """A target that may be meant, and by the fields' keys why each is taken for what it is."""

    document: Mapping[str, Any]
    reasons: Mapping[str, Reason]


def propose_page(
    seen: Sequence[SeenField], key: str, title: str, origins: Sequence[str], layouts: LayoutLibrary
) -> PageProposal:
    """A target for a page with these fields; those by which nothing finds them are left out."""
    seen = [one for one in seen if one.pieces or _ways(one)]
    made = propose_fields(seen, layouts)
    document = {
        "key": key, "kind": "page", "title": title, "origins": list(origins),
        "fields": [
            entry | _found_by(one) for entry, one in zip(made.fields, seen, strict=True)
        ],
        "addresses": [_address(one, made) for one in made.addresses],
    }  # fmt: skip
    return PageProposal(document, made.reasons)


def _address(entry: Entry, made: FieldsProposal) -> Entry:
    street = next((rule["into"] for rule in entry["mapping"] if rule.get("lines")), None)
    own = filled_by(entry["mapping"])
    first = next((one["key"] for one in made.fields if one["key"] in own), "")
    return entry | {"finder": {"sits": "before", "at": street or first}}


def _found_by(seen: SeenField) -> Entry:
    if not seen.pieces:
        return {"find": _ways(seen)}
    pieces = []
    for one in seen.pieces:
        narrower = {"position": one.position} if one.position else {}
        way = {"name": one.name} if one.name else {"id": one.id}
        length = {"max_length": one.max_length} if one.max_length else {}
        pieces.append({"find": [way | narrower], **length})
    return {"pieces": pieces}


def _ways(seen: SeenField) -> list[Entry]:
    token = token_of(seen)
    narrower: Entry = {"block": seen.block} if seen.position and seen.block else {}
    if seen.position and not seen.block:
        narrower = {"position": seen.position}
    ways: list[Entry] = [
        {"name": seen.name} if seen.name else {},
        {"id": seen.id} if seen.id else {},
        {"autocomplete": token} if token else {},
        {"label": seen.label} if seen.label else {},
        {"class_name": seen.class_name} if seen.class_name and not (seen.name or seen.id) else {},
    ]
    return [way | (narrower if "id" not in way else {}) for way in ways if way]
