"""Proposals for a mapping: which component goes into which field, and why.

Fields are recognised by their component, by HTML's autofill tokens where their keys are such, and
by their labels, keys and help in the words of many languages, as the columns of a table are.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from ..layouts import LayoutLibrary
from .field_labels import AUTOFILL, STREET, line_number, named_components
from .field_types import FIELD_TYPES
from .model import Field, Form, Slot

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
    return rule.get("components") or rule.get("facts") or (STREET if rule.get("lines") else ())


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
    return line_number(field.label) or line_number(field.key)


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
    if AUTOFILL.get(token):
        yield _components(AUTOFILL[token], field.key, f"HTML's autofill token {token} says so.")
    for what, text in (("label", field.label), ("key", field.key), ("help", field.help)):
        words = text.replace("_", " ").replace("-", " ")
        for fact, called in _FACTS.items():
            if words.casefold().split()[-1:] and words.casefold().split()[-1] in called:
                rule = {"facts": [fact], "into": field.key, "changes": []}
                yield RuleProposal(rule, f"Its {what} says “{text}”.")
        # Keys and help are no labels: what they name beside it is by chance.
        may_join = what == "label"
        names, said = named_components(text if may_join else words, layouts, may_join=may_join)
        if len(names) == 1:
            names = _as_wanted(names[0], field)
        if names:
            yield _components(names, field.key, f"Its {what} says “{said}”.")


def _as_wanted(component: str, field: Field) -> tuple[str, ...]:
    """The component in the form that a field has room for."""
    short = field.max_length is not None and field.max_length <= 3
    short = short or "code" in field.label.casefold().split()
    if component == "region" and short:
        return ("region_code",)
    if component == "country" and short:
        return ("country_code",)
    # A field for a street alone takes its number, too.
    return STREET if component == "street" and field.component is None else (component,)


def _components(names: tuple[str, ...], into: str, because: str) -> RuleProposal:
    if names == STREET:
        # In the order of each country.
        return RuleProposal({"lines": "street", "into": into, "changes": []}, because)
    return RuleProposal({"components": list(names), "into": into, "changes": []}, because)
