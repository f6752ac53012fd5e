"""A page target proposed from the inputs that are seen on a page: what each is, and why."""

from __future__ import annotations

import re
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from ...forms.mapping_proposals import propose_rules
from ...layouts import LayoutLibrary
from .page import read_page_target
from .seen import SeenInput
from .ways import AUTOFILL_TOKENS

# What autofill tokens say of whose address it is (WHATWG HTML, section "Autofill").
_WHOSE = {"shipping": "Delivery", "billing": "Billing"}
# A code as the value of an option, or in brackets in its text.
_CODE = re.compile(r"[A-Z]{2,3}")
_CODE_IN_TEXT = re.compile(r"\([A-Z]{2,3}\)")
_PARTS = re.compile(r"[^a-z0-9]+")
_CAMEL = re.compile(r"(?<=[a-z0-9])(?=[A-Z])")


@dataclass(frozen=True)
class TargetProposal:
    """A target that may be meant.

    Attributes:
        document: the target, with a rule for each input that was recognised.
        because: by the inputs' keys, why each is taken for what it is; of others, that they are
            left to people.
    """

    document: Mapping[str, Any]
    because: Mapping[str, str]


def propose_target(
    seen: Sequence[SeenInput], key: str, title: str, origins: Sequence[str], layouts: LayoutLibrary
) -> TargetProposal:
    """A target for a page with these inputs; those by which nothing finds them are left out."""
    seen = [one for one in seen if _ways(one)]
    keys = _keys(seen)
    document: dict[str, Any] = {
        "key": key, "kind": "page", "title": title, "origins": list(origins),
        "inputs": [_input(one, name) for one, name in zip(seen, keys, strict=True)],
        "addresses": [],
    }  # fmt: skip
    because: dict[str, str] = {}
    for whose in dict.fromkeys(map(_whose, seen)):
        own = {name: one for one, name in zip(seen, keys, strict=True) if _whose(one) == whose}
        address = _address(document, own, whose, layouts, because)
        if address is not None:
            document["addresses"].append(address)
    left = "It is left to whoever fills the page: nothing tells that it is a part of an address."
    return TargetProposal(document, {name: because.get(name, left) for name in keys})


def _address(
    document: Mapping[str, Any],
    own: Mapping[str, SeenInput],
    whose: str,
    layouts: LayoutLibrary,
    because: dict[str, str],
) -> dict[str, Any] | None:
    """The address of some inputs; None where none of them is a part of one."""
    label = _WHOSE.get(whose, "Address")
    address: dict[str, Any] = {"key": whose or "address", "label": label, "mapping": []}
    inputs = [entry for entry in document["inputs"] if entry["key"] in own]
    alone = {**document, "inputs": inputs, "addresses": [address | {"finder": {"at": ""}}]}
    target, _problems = read_page_target(alone, layouts)
    for proposal in propose_rules(target.form, target.form.slots[0], layouts):
        rule = {name: value for name, value in proposal.rule.items() if name != "changes"}
        into = rule.get("into") or ""
        if into:
            rule = _as_listed(rule, own[into])
        address["mapping"].append(rule)
        for name in (into,) if into else rule["fit"]["into"]:
            because[name] = proposal.because
    filled = [name for name in own if name in because]
    if not filled:
        return None
    street = next((r["into"] for r in address["mapping"] if r.get("lines")), filled[0])
    return address | {"finder": {"sits": "before", "at": street}}


def _as_listed(rule: dict[str, Any], seen: SeenInput) -> dict[str, Any]:
    """Of a list of codes the component that is a code, of a list of names the name."""
    codes = sum(
        bool(_CODE.fullmatch(value) or _CODE_IN_TEXT.search(text)) for value, text in seen.options
    )
    for name, code in (("country", "country_code"), ("region", "region_code")):
        if rule.get("components") in ([name], [code]) and seen.element == "select":
            return {**rule, "components": [code if codes > len(seen.options) // 2 else name]}
    return rule


def _ways(seen: SeenInput) -> list[dict[str, str]]:
    token = _token(seen)
    ways = [
        {"name": seen.name} if seen.name else {},
        {"id": seen.id} if seen.id else {},
        {"autocomplete": token} if token else {},
        {"label": seen.label} if seen.label else {},
        {"class_name": seen.class_name} if seen.class_name and not (seen.name or seen.id) else {},
    ]
    return [way for way in ways if way]


def _input(seen: SeenInput, key: str) -> dict[str, Any]:
    label = seen.label or seen.placeholder or _words(seen.name or seen.id) or key
    entry: dict[str, Any] = {"key": key, "label": label, "find": _ways(seen)}
    return entry | ({"max_length": seen.max_length} if seen.max_length else {})


def _keys(seen: Sequence[SeenInput]) -> list[str]:
    """A key for each input, from what it is called; each once."""
    found: list[str] = []
    for one in seen:
        whose, token = _whose(one), _token(one)
        called = f"{whose}-{token}" if whose and token else token or one.name or one.id or one.label
        plain = _PARTS.sub("-", _CAMEL.sub("-", called).lower()).strip("-")[:50]
        key = plain if plain[:1].isalpha() else f"input-{plain}".strip("-")
        number = 2
        while key in found:
            key, number = f"{plain or 'input'}-{number}", number + 1
        found.append(key)
    return found


def _token(seen: SeenInput) -> str:
    last = seen.autocomplete.lower().split(" ")[-1]
    return last if last in AUTOFILL_TOKENS else ""


def _whose(seen: SeenInput) -> str:
    return next((word for word in seen.autocomplete.lower().split(" ") if word in _WHOSE), "")


def _words(name: str) -> str:
    return " ".join(_PARTS.sub(" ", _CAMEL.sub(" ", name).lower()).split())
