"""Checking the values that were typed into a form's fields."""

from __future__ import annotations

from collections.abc import Mapping

from ..address import escape_pointer
from ..errors import Problem, nearest_names, unknown_name_detail
from .field_types import FIELD_TYPES
from .model import Field, Form
from .visibility import is_shown

Values = dict[str, object]


def check_values(form: Form, typed: Mapping[str, object]) -> tuple[Values, list[Problem]]:
    """The values to keep, and the problems, with pointers below `/values`.

    Values of fields that are not shown are left out. Text is kept as it was typed, but for
    blanks around it.
    """
    keys = [f.key for f in form.all_fields()]
    problems = [
        Problem(_pointer(key), unknown_name_detail("field", key, nearest_names(key, keys)))
        for key in typed
        if key not in keys
    ]
    kept: Values = {}
    for item in form.all_fields():
        if not FIELD_TYPES[item.type].holds_value or not is_shown(form, item, typed):
            continue
        value, fault = _checked(item, typed.get(item.key))
        if fault:
            problems.append(Problem(_pointer(item.key), fault))
        elif value is not None and value != "":
            kept[item.key] = value
        elif item.required:
            problems.append(Problem(_pointer(item.key), "This is needed."))
    return kept, problems


def _pointer(key: str) -> str:
    return f"/values/{escape_pointer(key)}"


def _checked(item: Field, value: object) -> tuple[object, str]:
    """The value to keep, and what is wrong with it or nothing."""
    if value is None or value == "":
        return None, ""
    return FIELD_TYPES[item.type].read(item, value)
