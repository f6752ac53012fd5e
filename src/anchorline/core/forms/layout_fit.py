"""Forms under administrators' own layouts.

What an own layout asks for beside the shipped one, it brings: a slot that has fields for
components gets one more, without anybody touching the form. And an own layout that requires what
a form cannot take, or hides what a form requires, does not fit that form.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from dataclasses import replace

from ..address import COMPONENT_SET
from ..errors import Problem, nearest_names, unknown_name_detail
from ..layouts import LayoutLibrary
from ..layouts.own import ComponentChange, LayoutsInForce, OwnLayout
from ..mapping import Rule
from ..mapping.sources import Components, Joined
from .field_types import FIELD_TYPES
from .model import Field, Form, Slot

# Where one of these is there, the other follows from it.
_SAME = {"region": "region_code", "region_code": "region"}


def with_brought_parts(form: Form, layouts: LayoutLibrary) -> Form:
    """A form with the fields that own layouts bring to its slots.

    Args:
        form: as its administrator made it.
        layouts: those that hold on this form.
    """
    taken = {field.key for field in form.all_fields()} | {slot.key for slot in form.slots}
    items = [
        _with_parts(item, layouts, taken) if isinstance(item, Slot) else item for item in form.items
    ]
    return form if items == list(form.items) else replace(form, items=tuple(items))


def fit_problems(own: OwnLayout, planned: LayoutsInForce, forms: Iterable[Form]) -> list[Problem]:
    """Why an own layout does not fit the forms that it is for, with pointers into its document.

    Args:
        own: the own layout.
        planned: the layouts as they would be, were it published.
        forms: all published forms.
    """
    known = {form.key: form for form in forms}
    problems = [
        Problem(f"/forms/{index}", unknown_name_detail("form", key, nearest_names(key, known)))
        for index, key in enumerate(own.forms)
        if key not in known
    ]
    for form in known.values():
        if own.forms and form.key not in own.forms:
            continue
        for slot in form.slots:
            if set(slot.countries) & set(own.countries):
                problems += _slot_problems(own, planned.on_form(form.key), form, slot)
    return problems


def _with_parts(slot: Slot, layouts: LayoutLibrary, taken: set[str]) -> Slot:
    there = {part.component for part in slot.parts}
    if not any(there):
        return slot
    brought = dict.fromkeys(
        entry.component
        for code in slot.countries
        for entry in layouts.require(code).components
        if entry.added and entry.component not in there
    )
    parts = []
    for component in brought:
        key = f"{slot.key}_{component}"
        while key in taken:
            key += "_"
        taken.add(key)
        parts.append(
            Field(key, max_length=FIELD_TYPES["text"].longest, component=component, slot=slot.key)
        )
    if not parts:
        return slot
    rules = [
        Rule(Components(Joined((part.component,))), (part.key,))
        for part in parts
        if part.component in COMPONENT_SET
    ]
    return replace(slot, parts=(*slot.parts, *parts), mapping=(*slot.mapping, *rules))


def _slot_problems(
    own: OwnLayout, layouts: LayoutLibrary, form: Form, slot: Slot
) -> Iterator[Problem]:
    parts = {part.component: part for part in slot.parts if part.component}
    mapped = {name for rule in slot.mapping for name in rule.source.takes}
    for change in own.ask:
        if change.required and not _can_be_given(change, set(parts), mapped, slot, layouts):
            detail = (
                f"The form {form.key} has no field for {change.component} in its address "
                f"“{slot.label}”, so nobody could give it. Add one, or do not require it."
            )
            yield Problem(f"/ask/{change.index}/required", detail)
        part = parts.get(change.component)
        if change.hidden and part is not None and part.required:
            detail = (
                f"The form {form.key} requires its field {part.key} for {change.component}: "
                "hidden, nobody could fill it."
            )
            yield Problem(f"/ask/{change.index}/hidden", detail)


def _can_be_given(
    change: ComponentChange, parts: set[str], mapped: set[str], slot: Slot, layouts: LayoutLibrary
) -> bool:
    name = change.component
    if {name, _SAME.get(name, name)} & (parts | mapped):
        return True
    entries = [
        found
        for code in slot.countries
        if (layout := layouts.get(code)) is not None
        and (found := layout.component(name)) is not None
    ]
    # Nobody is asked for it on this form, or the layout brings a field of its own for it.
    return not entries or (bool(parts) and all(one.added for one in entries))
