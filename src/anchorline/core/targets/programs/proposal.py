"""A program target proposed from what is seen: its signature, its parts, its mapping, its table."""

from __future__ import annotations

import re
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from ...forms.mapping_proposals import propose_rules
from ...layouts import LayoutLibrary
from .facts import Look, SeenField
from .program import read_program_target
from .ready_made import ReadyMadePlan
from .signature_proposal import SignatureProposal, propose_signature

# Lines that an address has at most, with a line to spare.
_LINES = 6
# Characters of a line, where the field does not say how many it takes.
_LINE_WIDTH = 60
# The part for what no field of the screen takes.
_REST = "rest"
_PARTS = re.compile(r"[^a-z0-9]+")


@dataclass(frozen=True, slots=True)
class ProgramProposal:
    """A target that may be meant.

    Attributes:
        document: the target.
        signature: its conditions, each with its reason.
        because: by the parts' keys, why each is taken for what it is.
        left: labels of the fields that nothing is written into.
    """

    document: Mapping[str, Any]
    signature: SignatureProposal
    because: Mapping[str, str]
    left: tuple[str, ...]


def propose_program(
    key: str,
    title: str,
    looks: Sequence[Look],
    others: Sequence[Look],
    fields: Sequence[SeenField],
    layouts: LayoutLibrary,
    like: ReadyMadePlan | None = None,
) -> ProgramProposal:
    """A target for a screen with these fields.

    Args:
        looks: at the screen, the latest last.
        others: at screens that are not to match.
        fields: in the order of the Tab key, from the first of the address on.
        like: a ready-made plan in place of one made from the fields.
    """
    signature = propose_signature(looks, others)
    document: dict[str, Any] = {"key": key, "kind": "program", "title": title}
    conditions = [
        {"kind": one.condition.kind, "test": one.condition.test, "text": one.condition.text}
        for one in signature.conditions
    ]
    document["screens"] = [{"key": "screen", "label": title, "conditions": conditions}]
    address: dict[str, Any] = {"key": "address", "label": "Address"}
    if like is not None:
        document["parts"] = list(like.content["parts"])
        plans = {"mapping": list(like.content["mapping"]), "plan": dict(like.content["plan"])}
        return ProgramProposal(document | {"addresses": [address | plans]}, signature, {}, ())
    keys = _keys(fields)
    document["parts"] = [
        part
        for name, seen in zip(keys, fields, strict=True)
        for part in ([_part(name, seen)] if seen.holds == "part" else _lines(name))
    ]
    document["parts"].append({"key": _REST, "label": "Without a field here"})
    because: dict[str, str] = {}
    address["mapping"] = _mapping(document, address, layouts, because)
    used = {into for rule in address["mapping"] for into in _into(rule)}
    address["plan"], left = _plan(keys, fields, used)
    if looks[-1].texts("terminal"):
        address["plan"] = _in_terminal(address["plan"])
    document["parts"] = [part for part in document["parts"] if part["key"] in used]
    return ProgramProposal(document | {"addresses": [address]}, signature, because, tuple(left))


def _mapping(
    document: Mapping[str, Any],
    address: Mapping[str, Any],
    layouts: LayoutLibrary,
    because: dict[str, str],
) -> list[dict[str, Any]]:
    """Rules for the fields that are recognised, and what is left for a box or a second line."""
    read, _problems = read_program_target({**document, "addresses": [address]}, layouts)
    of_field = {
        part["key"]: (part.get("max_length"), part["label"].casefold())
        for part in document["parts"]
    }
    found: list[dict[str, Any]] = []
    for proposal in propose_rules(read.form, read.form.slots[0], layouts):
        rule = {name: value for name, value in proposal.rule.items() if name != "changes"}
        width, label = of_field.get(str(rule.get("into")), (None, ""))
        if rule.get("components") == ["country_code"] and "code" not in label and not width:
            # HTML's token of this name asks for a code; people who read a label write the name.
            rule["components"] = ["country"]
        found.append(rule)
        why = proposal.because
        if why.startswith("HTML") and label:
            # The part's key was made from the label.
            why = f"Its label says “{label.capitalize()}”."
        because.update((name, why) for name in _into(rule))
    box = [part["key"] for part in document["parts"] if part.get("of_box")]
    for part in document["parts"]:
        part.pop("of_box", None)
    if box:
        found = [rule for rule in found if not set(_into(rule)) & set(box)]
        found.append({"fit": {"into": box, "width": _LINE_WIDTH}})
        because.update(dict.fromkeys(box, "It takes what no other field does."))
    elif found and not any(rule.get("fit") for rule in found):
        # A firm, a post box: it is offered after a run, to be copied.
        found.append({"fit": {"into": [_REST], "width": _LINE_WIDTH}})
        because[_REST] = "It holds what has no field here, and is offered after a run."
    return found


def _plan(
    keys: Sequence[str], fields: Sequence[SeenField], used: set[str]
) -> tuple[dict[str, Any], list[str]]:
    """The table, and the labels of the fields that it passes over."""
    rows: list[dict[str, Any]] = []
    left: list[str] = []
    for key, seen in zip(keys, fields, strict=True):
        named = {"field": seen.label} if seen.label and seen.is_named else {}
        names = [key] if seen.holds == "part" else [one["key"] for one in _lines(key)]
        if not set(names) <= used:
            left.append(seen.label)
            if rows:
                rows[-1]["times"] = rows[-1].get("times", 1) + 1
            continue
        clear = {"clear": "box"} if seen.holds == "lines" else {}
        between = "comma" if seen.holds == "commas" else "line"
        rows += [{"part": name, **clear, "then": between} for name in names[:-1]]
        rows.append({"part": names[-1], **clear, "then": "next"})
        rows[-len(names)] |= named
    if rows:
        rows[-1]["then"] = "nothing"
        rows[-1].pop("times", None)
    return {"table": rows}, left


def _in_terminal(plan: Mapping[str, Any]) -> dict[str, Any]:
    """As most forms in terminals work: a key clears a field, and a full one passes on."""
    rows = [{**row, "clear": "own"} for row in plan["table"]]
    keys = {"clear_keys": "Ctrl+U", "paste_key": "Shift+Insert"}
    return {"table": rows, "jumps": True, "check": "screen", **keys}


def _part(key: str, seen: SeenField) -> dict[str, Any]:
    entry: dict[str, Any] = {"key": key, "label": seen.label or key}
    return entry | ({"max_length": seen.max_length} if seen.max_length else {})


def _lines(key: str) -> list[dict[str, Any]]:
    return [
        {"key": f"{key}-{number}", "label": f"Line {number}", "of_box": True}
        for number in range(1, _LINES + 1)
    ]


def _into(rule: Mapping[str, Any]) -> list[str]:
    return list(rule["fit"]["into"]) if rule.get("fit") else [rule["into"]]


def _keys(fields: Sequence[SeenField]) -> list[str]:
    """A key for each field, from its label; each once."""
    found: list[str] = []
    for place, seen in enumerate(fields, 1):
        plain = _PARTS.sub("-", seen.label.casefold()).strip("-")[:40] or f"field-{place}"
        plain = plain if plain[:1].isalpha() else f"field-{plain}"
        key, number = plain, 2
        while key in found:
            key, number = f"{plain}-{number}", number + 1
        found.append(key)
    return found
