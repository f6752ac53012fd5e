"""Proposals for a mapping: which component goes into which field, and why.

Fields are recognised by their component, by HTML's autofill tokens where their keys are such, and
by their labels, keys and help in the words of many languages, as the columns of a table are.
"""

from __future__ import annotations

import re
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from ..layouts import LayoutLibrary
from .field_types import FIELD_TYPES
from .model import Field, Form, Slot
from .table.address_columns import component_of

_STREET = ("number", "street")
# HTML's autofill tokens (WHATWG HTML, section "Autofill"), with what they stand for.
_AUTOFILL: dict[str, tuple[str, ...]] = {
    "organization": ("organisation",),
    "address-line1": _STREET,
    "address-line2": ("unit", "building"),
    "address-line3": ("district",),
    "street-address": (),
    "address-level1": ("region",),
    "address-level2": ("town",),
    "address-level3": ("district",),
    "postal-code": ("postcode",),
    "country": ("country_code",),
    "country-name": ("country",),
}
_LINE = re.compile(
    r"(?<![^\W_])(?:address|line|adresse|regel|zeile|ligne|linha)[\W_]*(\d)$", re.IGNORECASE
)
# Words of fields for a firm, which tables of addresses leave out.
_FIRM = frozenset(
    {"organisation", "organization", "company", "firm", "business", "firma", "unternehmen",
     "entreprise", "société", "bedrijf", "empresa", "会社名"}
)  # fmt: skip
_JOINED = re.compile(r"\s*(?:[,/&+]|\b(?:and|und|et|en|e)\b)\s*", re.IGNORECASE)
_FACTS = {
    "latitude": ("latitude", "lat"),
    "longitude": ("longitude", "lon", "lng", "long"),
}


@dataclass(frozen=True, slots=True)
class RuleProposal:
    """A rule that may be meant.

    Attributes:
        rule: as a document has it.
        because: why, a sentence.
    """

    rule: Mapping[str, Any]
    because: str


def propose_rules(form: Form, slot: Slot, layouts: LayoutLibrary) -> list[RuleProposal]:
    """Rules for the fields of a form that no rule of the slot writes yet."""
    written = {key for rule in slot.mapping for key in rule.into}
    others = {key for other in form.slots if other is not slot for key in _keys(other)}
    open_fields = [
        field
        for field in form.all_fields()
        if field.key not in written | others and _can_be_written(field)
    ]
    lines = [field for field in open_fields if field.component is None and _line_of(field)]
    found = [] if len(lines) < 2 else [_fit(lines)]
    fitted = set(found[0].rule["fit"]["into"]) if found else set()
    taken = {name for rule in slot.mapping for name in rule.source.takes}
    for field in open_fields:
        if field.key in fitted:
            continue
        for proposal in _of_field(field, slot, layouts):
            names = _named(proposal.rule)
            if field.component is not None or not taken & set(names):
                taken |= set(names)
                found.append(proposal)
                break
    return found


def _named(rule: Mapping[str, Any]) -> Sequence[str]:
    """The components and facts that a proposed rule takes."""
    return rule.get("components") or rule.get("facts") or (_STREET if rule.get("lines") else ())


def _keys(slot: Slot) -> Iterator[str]:
    yield from (part.key for part in slot.parts)
    yield from (key for rule in slot.mapping for key in rule.into)


def _can_be_written(field: Field) -> bool:
    field_type = FIELD_TYPES.get(field.type)
    return field_type is not None and field_type.is_filled and field.type in (
        "text", "long_text", "hidden", "number", "choice",
    )  # fmt: skip


def _line_of(field: Field) -> int:
    """Which line of an address a field is for; 0 for none."""
    for text in (field.label, field.key):
        found = _LINE.search(text)
        if found:
            return int(found[1])
    return 0


def _fit(lines: Sequence[Field]) -> RuleProposal:
    ordered = sorted(lines, key=_line_of)
    widths = [field.max_length for field in ordered if field.max_length]
    fit: dict[str, Any] = {"into": [field.key for field in ordered]}
    if widths and min(widths) < 100:
        fit["width"] = min(widths)
    named = ", ".join(f"“{field.label or field.key}”" for field in ordered)
    because = f"{named} are numbered lines: what no other rule takes is fitted to them."
    return RuleProposal({"fit": fit, "changes": []}, because)


def _of_field(field: Field, slot: Slot, layouts: LayoutLibrary) -> Iterator[RuleProposal]:
    """What a field may be for, the surest first."""
    if field.component and field.slot == slot.key:
        because = f"It stands for {field.component.replace('_', ' ')} in this address."
        yield _components((field.component,), field.key, because)
        return
    token = field.key.replace("_", "-").removeprefix(f"{slot.key}-")
    if _AUTOFILL.get(token):
        yield _components(_AUTOFILL[token], field.key, f"HTML's autofill token {token} says so.")
    for what, text in (("label", field.label), ("key", field.key), ("help", field.help)):
        words = text.replace("_", " ").replace("-", " ")
        for fact, called in _FACTS.items():
            if words.casefold().split()[-1:] and words.casefold().split()[-1] in called:
                rule = {"facts": [fact], "into": field.key, "changes": []}
                yield RuleProposal(rule, f"Its {what} says “{text}”.")
        if what == "label":
            yield from _of_joined_label(field, text, layouts)
        if words.casefold().strip() in _FIRM:
            yield _components(("organisation",), field.key, f"Its {what} says “{text}”.")
        component, word = component_of(words, layouts)
        if component:
            because = f"Its {what} says “{word}”."
            yield _components(_as_wanted(component, field), field.key, because)


def _of_joined_label(field: Field, text: str, layouts: LayoutLibrary) -> Iterator[RuleProposal]:
    """A label that names two or more components, such as `Unit and building`."""
    found = [component_of(piece, layouts)[0] for piece in _JOINED.split(text)]
    if len(found) < 2 or not all(found) or len(set(found)) < len(found):
        return
    names = _STREET if set(found) == set(_STREET) else tuple(found)
    yield _components(names, field.key, f"Its label says “{text}”.")


def _as_wanted(component: str, field: Field) -> tuple[str, ...]:
    """The component in the form that a field has room for."""
    short = field.max_length is not None and field.max_length <= 3
    short = short or "code" in field.label.casefold().split()
    if component == "region" and short:
        return ("region_code",)
    if component == "country" and short:
        return ("country_code",)
    # A field for a street alone takes its number, too.
    return _STREET if component == "street" and field.component is None else (component,)


def _components(names: tuple[str, ...], into: str, because: str) -> RuleProposal:
    if names == _STREET:
        # In the order of each country.
        return RuleProposal({"lines": "street", "into": into, "changes": []}, because)
    return RuleProposal({"components": list(names), "into": into, "changes": []}, because)
