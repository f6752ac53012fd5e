"""What is asked and answered of records."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Any

from anchorline.application.filling import reference_notes
from anchorline.application.records import Kept, Submission
from anchorline.core.address import Facts
from anchorline.core.forms import Captured, Form, Position, SlotInput, languages_of
from anchorline.core.layouts import LayoutLibrary, component_label, write_lines
from anchorline.store.record_model import Record, RecordSummary
from anchorline.wire.records import (
    CapturedSchema,
    PositionSchema,
    RecordAnswer,
    RecordRequest,
    SlotInputSchema,
)

from ..endpoints import ApiRequest
from .finding import facts_schema


def submission_of(body: RecordRequest) -> Submission:
    """A filled form as it was sent."""
    return Submission(
        values=body.values,
        slots={key: _input_of(slot) for key, slot in body.slots.items()},
        version=body.version,
        language=body.language or "",
        trap=body.trap or "",
        seconds=body.seconds,
    )


def _input_of(slot: SlotInputSchema) -> SlotInput:
    pin = slot.position
    position = Position(pin.latitude, pin.longitude, pin.source, pin.accuracy_m) if pin else None
    return SlotInput(slot.country_code, slot.address_id, slot.typed, position)


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


def record_answer(kept: Kept) -> RecordAnswer:
    """A whole record."""
    record, form, layouts, document = kept.record, kept.form, kept.layouts, kept.document
    return RecordAnswer(
        **summary_data(record),
        values=record.values,
        texts=kept.texts,
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
