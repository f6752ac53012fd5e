"""Which fields and slots are shown, given the values so far.

The embedded form evaluates the same rule in the browser; both are held to one set of vectors.
"""

from __future__ import annotations

from collections.abc import Mapping

from .model import Condition, Field, Form, Slot


def value_as_text(value: object) -> str:
    """A value as conditions compare it: yes and no for booleans, nothing for none."""
    if value is None:
        return ""
    if isinstance(value, bool):
        return "yes" if value else "no"
    return str(value).strip()


def is_shown(form: Form, item: Field | Slot, values: Mapping[str, object]) -> bool:
    """Whether a field or slot is shown: its own condition holds, and that of what it hangs on."""
    if isinstance(item, Field) and item.slot is not None:
        slot = form.slot(item.slot)
        if slot is not None and not is_shown(form, slot, values):
            return False
    return _holds(form, item.show_when, values, set())


def _holds(
    form: Form, condition: Condition | None, values: Mapping[str, object], seen: set[str]
) -> bool:
    if condition is None:
        return True
    if condition.field in seen:
        return True
    if value_as_text(values.get(condition.field)) not in condition.values:
        return False
    return _holds(form, form.field(condition.field).show_when, values, seen | {condition.field})
