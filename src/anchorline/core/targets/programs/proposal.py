"""A program target proposed from what is seen: its signature, its fields, and what fills them."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from ...layouts import LayoutLibrary
from ..proposal.seen import SeenField
from ..proposal.target import Reason, filled_by, propose_fields
from .facts import Look
from .ready_made import ReadyMadeTarget
from .signature_proposal import SignatureProposal, propose_signature

# Characters of a line, where the field does not say how many it takes.
_LINE_WIDTH = 60
# The field for what the screen has none for.
_REST = "rest"
Entry = dict[str, Any]


@dataclass(frozen=True, slots=True)
class ProgramProposal:
    """A target that may be meant.

    Attributes:
        signature: its conditions, each with its reason.
        reasons: by the fields' keys, why each is taken for what it is.
        left: labels of the fields that nothing is written into.
    """

    document: Mapping[str, Any]
    signature: SignatureProposal
    reasons: Mapping[str, Reason]
    left: tuple[str, ...]


def propose_program(
    key: str,
    title: str,
    looks: Sequence[Look],
    others: Sequence[Look],
    fields: Sequence[SeenField],
    layouts: LayoutLibrary,
    like: ReadyMadeTarget | None = None,
) -> ProgramProposal:
    """A target for a screen with these fields.

    Args:
        looks: at the screen, the latest last.
        others: at screens that are not to match.
        fields: in the order of the Tab key, from the first of the address on.
        like: a ready-made target in place of one made from the fields.
    """
    signature = propose_signature(looks, others)
    conditions = [
        {"kind": one.condition.kind, "test": one.condition.test, "text": one.condition.text}
        for one in signature.conditions
    ]
    screens = [{"key": "screen", "label": title, "conditions": conditions}]
    document: Entry = {"key": key, "kind": "program", "title": title, "screens": screens}
    if like is not None:
        return ProgramProposal(document | dict(like.content), signature, {}, ())
    made = propose_fields(fields, layouts)
    listed = [
        entry | ({"name": seen.label} if seen.label and seen.is_named else {})
        for entry, seen in zip(made.fields, fields, strict=True)
    ]
    reasons = dict(made.reasons)
    in_terminal = bool(looks[-1].texts("terminal"))
    if in_terminal:
        listed = [{**entry, "empty": "own"} for entry in listed]
    addresses = [dict(one) for one in made.addresses[:1]] or [
        {"key": "address", "label": "Address", "mapping": []}
    ]
    rules = addresses[0]["mapping"]
    if rules and not any(rule.get("fit") for rule in rules):
        # A firm, a post box: it is offered after a run, to be copied.
        rules.append({"fit": {"into": [_REST], "width": _LINE_WIDTH}})
        listed.append({"key": _REST, "label": "Without a field here", "where": "offered"})
        reasons[_REST] = Reason("It holds what has no field here, and is offered after a run.")
    if in_terminal:
        # As most forms in terminals work: a key empties a field, and a full one passes on.
        keys = {"clear_keys": "Ctrl+U", "paste_key": "Shift+Insert"}
        addresses[0]["writing"] = {"jumps": True, "check": "screen", **keys}
    filled = filled_by(rules)
    left = tuple(entry["label"] for entry in listed if entry["key"] not in filled)
    document |= {"fields": listed, "addresses": addresses}
    return ProgramProposal(document, signature, reasons, left)
