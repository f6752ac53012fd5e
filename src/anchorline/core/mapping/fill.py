"""Filling a slot's fields from an address.

Filling clears every field that the slot's mapping owns before it writes any, so nothing of
an earlier address can stay behind.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import TYPE_CHECKING

from .changes import CHANGES
from .rules import Rule

if TYPE_CHECKING:  # forms are built on mapping, not the other way round
    from ..forms.model import Form, Slot


@dataclass(frozen=True, slots=True)
class TraceStep:
    """One thing that filling did, in a sentence, with the field it concerns."""

    field: str
    components: tuple[str, ...]
    detail: str


@dataclass(slots=True)
class Fill:
    """What filling did.

    Attributes:
        values: the new value of every field that the mapping owns; empty text where nothing
            goes into it.
        cleared: the owned fields that are empty now.
        warnings: what a person should know, in sentences.
        trace: every step, in order.
    """

    values: dict[str, str] = field(default_factory=dict)
    cleared: list[str] = field(default_factory=list)
    warnings: list[str] = field(default_factory=list)
    trace: list[TraceStep] = field(default_factory=list)


def owned_fields(slot: Slot) -> list[str]:
    """Keys of the fields that the slot's mapping owns, each once, in the rules' order."""
    return list(dict.fromkeys(rule.into for rule in slot.mapping))


def fill_slot(
    form: Form, slot: Slot, components: Mapping[str, str], before: Mapping[str, object]
) -> Fill:
    """Fills a slot.

    Args:
        form: the form, for the lengths of its fields.
        slot: one of its slots.
        components: the address.
        before: the form's values so far; only the trace looks at them.
    """
    filled = Fill(values=dict.fromkeys(owned_fields(slot), ""))
    for key in filled.values:
        if before.get(key) not in (None, ""):
            step = TraceStep(key, (), f"cleared what stood there: {before[key]!s}")
            filled.trace.append(step)
    for rule in slot.mapping:
        _apply(form, rule, components, filled)
    filled.cleared = [key for key, value in filled.values.items() if not value]
    return filled


def _apply(form: Form, rule: Rule, components: Mapping[str, str], filled: Fill) -> None:
    def note(detail: str) -> None:
        filled.trace.append(TraceStep(rule.into, rule.components, detail))

    text = rule.text(components)
    if not text:
        note("nothing to write: the address has none of these components")
        return
    if filled.values[rule.into]:
        note("left alone: an earlier rule has written this field")
        return
    length = form.field(rule.into).max_length
    for change in rule.changes:
        changed = CHANGES[change](text, length)
        if change == "shorten" and changed != text:
            lost = text[len(changed) :].strip()
            filled.warnings.append(
                f"{form.field(rule.into).label}: shortened to {length} characters, without {lost!r}"
            )
        text = changed
    if length is not None and len(text) > length:
        filled.warnings.append(
            f"{form.field(rule.into).label}: {len(text)} characters, the field takes {length}"
        )
    filled.values[rule.into] = text
    note(f"wrote {text}")
