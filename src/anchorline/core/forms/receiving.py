"""A form's fields as what a slot's mapping can write into."""

from __future__ import annotations

from collections.abc import Mapping

from ..formula.budget import MOST_STEPS, Budget
from ..layouts import usual_label
from ..mapping import Fill, FindRecord, KnownAddress, Receiver, fill
from .field_types import FIELD_TYPES
from .model import Field, Form, Slot


def receivers_of(form: Form) -> dict[str, Receiver]:
    """Every field of a form, the parts of slots among them, by key."""
    return {field.key: _receiver(field) for field in form.all_fields()}


def fill_slot(
    form: Form,
    slot: Slot,
    known: KnownAddress,
    before: Mapping[str, object] | None = None,
    find: FindRecord | None = None,
) -> Fill:
    """What an address puts into the fields of a slot's mapping; see `mapping.fill`.

    The slots of a form share its steps evenly, whichever of them is filled when.
    """
    budget = Budget(MOST_STEPS // max(1, len(form.slots)))
    return fill(slot.mapping, receivers_of(form), known, before, find, budget)


def _receiver(field: Field) -> Receiver:
    field_type = FIELD_TYPES.get(field.type)
    label = field.label or (usual_label(field.component, "en") if field.component else field.key)
    return Receiver(
        key=field.key,
        label=label,
        length=field.max_length,
        type=field.type,
        component=field.component,
        slot=field.slot,
        form=field.form,
        is_filled=field_type is None or field_type.is_filled,
        several_lines=field.type == "long_text",
        refuses=lambda text: field_type.read(field, text)[1] if field_type else "",
    )
