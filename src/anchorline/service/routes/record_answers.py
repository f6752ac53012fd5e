"""What is answered of records, and how a filled form becomes what a record keeps."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from anchorline.core.address import Address, Facts
from anchorline.core.errors import Problem
from anchorline.core.forms import (
    Captured,
    Form,
    Position,
    SlotInput,
    check_submission,
    find_or_captured,
    kept_as_before,
    languages_of,
    text_of,
)
from anchorline.core.forms.linking import has_link_rules
from anchorline.core.formula import today
from anchorline.core.layouts import LayoutLibrary, component_label, one_line, write_lines
from anchorline.store.record_model import PlannedRecord, Record, RecordSummary
from anchorline.wire.records import (
    CapturedSchema,
    PositionSchema,
    RecordAnswer,
    RecordRequest,
    SlotInputSchema,
)

from ..endpoints import ApiRequest
from ..problems import invalid
from .finding import facts_schema
from .layouts import reference_notes
from .link_rules import set_links
from .links import link_problems, linked, links_of


def layouts_of(request: ApiRequest, form: str) -> LayoutLibrary:
    """The layouts that hold on a form now."""
    return request.services.layouts_in_force.current().on_form(form)


@dataclass(frozen=True, slots=True)
class Filled:
    """A filled form, checked: what a record keeps of it.

    Attributes:
        typed: what was typed into fields that keep it otherwise, by their keys.
        planned: records of other forms that are made with it.
    """

    values: dict[str, Any]
    addresses: Sequence[Captured]
    typed: Mapping[str, str]
    planned: Sequence[PlannedRecord] = ()


def checked_form(
    request: ApiRequest, form: Form, body: RecordRequest, before: Record | None = None
) -> Filled:
    """The values and addresses to keep; 422 with every problem.

    Args:
        before: the record that is changed by it.
    """

    def find(address_id: str) -> tuple[Address, str] | None:
        found = request.services.gazetteer.having(address_id).address(address_id)
        return (found[0], f"{found[1].dataset}@{found[1].number}") if found else None

    inputs = {key: _input_of(slot) for key, slot in body.slots.items()}
    finds = find_or_captured(find, before.addresses) if before else find
    day = today(request.services.database.now())
    layouts = layouts_of(request, form.key)
    checked = check_submission(form, body.values, inputs, layouts, finds, day)
    planned: Sequence[PlannedRecord] = ()
    problems: list[Problem] = []
    if has_link_rules(form):
        links = set_links(request, form, checked.captured, checked.values, layouts)
        planned, problems = links.planned, list(links.problems)
        if links.values:  # a link may be needed, or decide what is shown
            values = {**body.values, **links.values}
            checked = check_submission(form, values, inputs, layouts, finds, day)
    made = {plan.field for plan in planned}
    there = {key: value for key, value in checked.values.items() if key not in made}
    problems += [*checked.problems, *link_problems(request, form, there)]
    if problems:
        raise invalid(problems)
    addresses: Sequence[Captured] = checked.captured
    if before is not None:
        addresses = kept_as_before(
            form, before.addresses, checked.captured, before.values, checked.values
        )
    planned = [plan for plan in planned if plan.field in checked.values]
    return Filled(checked.values, addresses, checked.typed, planned)


def _input_of(slot: SlotInputSchema) -> SlotInput:
    pin = slot.position
    position = Position(pin.latitude, pin.longitude, pin.source, pin.accuracy_m) if pin else None
    return SlotInput(slot.country_code, slot.address_id, slot.typed, position)


def label_of(
    form: Form, values: dict[str, Any], addresses: Sequence[Captured], layouts: LayoutLibrary
) -> str:
    """What lists show: the first text that was given, and the first address in one line."""
    texts = [f.key for f in form.all_fields() if f.type == "text" and f.slot is None]
    parts = [str(values[key]) for key in texts if key in values][:1]
    if addresses:
        first = addresses[0]
        line = one_line(layouts.require(first.country_code), first.components)
        if line not in parts:
            parts.append(line)
    return " · ".join(parts) or form.title


def summary_data(row: RecordSummary) -> dict[str, Any]:
    """What lists show of a record, by the names of the answer."""
    return {
        "id": row.id,
        "form": row.form,
        "form_version": row.form_version,
        "label": row.label,
        "made_at": row.made_at,
        "made_by": row.made_by,
    }


def record_answer(
    request: ApiRequest,
    record: Record,
    form: Form,
    layouts: LayoutLibrary,
    document: Mapping[str, Any],
) -> RecordAnswer:
    return RecordAnswer(
        **summary_data(record),
        values=record.values,
        texts=texts_of(request, form, record.values),
        agreed=_agreed(form, record, document),
        language=record.language or languages_of(document)[0],
        labels=field_labels(form, record.values, record.addresses, layouts),
        slots=slots_answer(form, record.addresses, layouts),
        typed=dict(record.typed),
        revision=record.revision,
        changed_at=record.changed_at,
        changed_by=record.changed_by,
    )


def without_unfetched(request: ApiRequest, answer: RecordAnswer) -> RecordAnswer:
    """What a key with an allowance is told of a record that it has sent: no facts of addresses.

    They come with fetching an address, which is counted.
    """
    if not request.caller.allowance.is_limited:
        return answer
    slots = {
        key: slot.model_copy(update={"facts": facts_schema(Facts())})
        for key, slot in answer.slots.items()
    }
    return answer.model_copy(update={"slots": slots})


def texts_of(request: ApiRequest, form: Form, values: Mapping[str, object]) -> dict[str, str]:
    """Values as people read them: of a choice its label, of a link what is shown of its record."""
    texts = {
        field.key: text_of(field, values[field.key])
        for field in form.all_fields()
        if field.key in values
    }
    for field in links_of(form):
        if field.key in values:
            texts[field.key] = linked(request, field, values[field.key]) or texts[field.key]
    return texts


def _agreed(form: Form, record: Record, document: Mapping[str, Any]) -> dict[str, str]:
    """What was agreed to, in the language in which it was read."""
    translation = (document.get("translations") or {}).get(record.language) or {}
    items = translation.get("items") or {}
    return {
        field.key: (items.get(field.key) or {}).get("label") or field.label
        for field in form.all_fields()
        if field.type == "consent" and record.values.get(field.key)
    }


def slots_answer(
    form: Form, addresses: Sequence[Captured], layouts: LayoutLibrary
) -> dict[str, CapturedSchema]:
    return {address.slot: _captured(form, address, layouts) for address in addresses}


def field_labels(
    form: Form,
    values: Mapping[str, object],
    addresses: Sequence[Captured],
    layouts: LayoutLibrary,
) -> dict[str, str]:
    """What people read on the form above each value; a slot's parts with the slot's name."""
    countries = {address.slot: address.country_code for address in addresses}
    labels: dict[str, str] = {}
    for field in form.all_fields():
        if field.key not in values:
            continue
        label = field.label
        slot = form.slot(field.slot) if field.slot else None
        if not label and field.component:
            country = countries.get(field.slot or "")
            layout = layouts.require(country) if country else None
            label = component_label(layout, field.component)
        labels[field.key] = f"{slot.label}: {label}" if slot is not None else label or field.key
    return labels


def _captured(form: Form, address: Captured, layouts: LayoutLibrary) -> CapturedSchema:
    layout = layouts.require(address.country_code)
    slot = form.slot(address.slot)
    return CapturedSchema(
        label=slot.label if slot is not None else address.slot,
        country_code=address.country_code,
        components=address.components,
        component_labels={name: component_label(layout, name) for name in address.components},
        facts=facts_schema(address.facts),
        lines=write_lines(layout, address.components),
        address_id=address.address_id,
        edition=address.edition,
        typed=address.typed,
        changed=list(address.changed),
        layout=address.layout,
        notes=reference_notes(layout, address.components) if address.address_id else [],
        position=_position(address.position),
    )


def _position(position: Position | None) -> PositionSchema | None:
    if position is None:
        return None
    return PositionSchema(
        latitude=position.latitude,
        longitude=position.longitude,
        source=position.source,
        accuracy_m=position.accuracy_m,
        distance_m=position.distance_m,
    )
