"""What is answered of forms: their documents as they are filled, and their logic."""

from __future__ import annotations

from typing import Any

from anchorline.application.open_forms import OpenForm, require_slot
from anchorline.core.forms import Form, formulas_of
from anchorline.core.formula import to_data
from anchorline.wire.fields import FieldSchema
from anchorline.wire.forms import BroughtSchema, FormDocument
from anchorline.wire.formulas import FormLogic
from anchorline.wire.rules import RuleSchema
from anchorline.wire.slots import SlotSchema


def as_filled(opened: OpenForm) -> FormDocument:
    """The document of a form as people fill it, with what own layouts have brought to it."""
    document = FormDocument.model_validate(opened.document)
    slots = []
    for schema in document.slots:
        more = brought_to(schema, opened.form)
        update = {
            "parts": [*schema.parts, *more.parts],
            "mapping": [*schema.mapping, *more.mapping],
            "examples": [],  # for those who made them
            "countries": list(require_slot(opened.form, schema.key).countries),
        }
        slots.append(schema.model_copy(update=update))
    return document.model_copy(update={"slots": slots})


def brought_to(schema: SlotSchema, form: Form) -> BroughtSchema:
    """What own layouts have brought to a slot."""
    slot = require_slot(form, schema.key)
    brought = slot.parts[len(schema.parts) :]
    parts = [
        FieldSchema(key=part.key, component=part.component, max_length=part.max_length)
        for part in brought
    ]
    keys = {part.key for part in brought}
    rules = [
        RuleSchema(components=list(rule.source.takes), into=rule.into[0])
        for rule in slot.mapping
        if rule.into[0] in keys
    ]
    return BroughtSchema(parts=parts, mapping=rules)


def logic_of(form: Form) -> FormLogic:
    """The checked formulas of a form."""
    found: dict[str, dict[str, Any]] = {}
    for key in form.order:
        for setting, formula in formulas_of(form.item(key)):
            found.setdefault(setting, {})[key] = to_data(formula.tree)
    return FormLogic.model_validate(
        {
            "order": form.order,
            "formulas": found.get("formula", {}),
            "shown": found.get("shown_when", {}),
            "required": found.get("required_when", {}),
        }
    )
