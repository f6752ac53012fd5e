"""Checking the values that were typed into a form's fields."""

from __future__ import annotations

from collections.abc import Mapping

from ..address import escape_pointer
from ..errors import Problem, nearest_names, unknown_name_detail
from ..said import said
from .field_types import FIELD_TYPES
from .logic import Worked, as_kept
from .model import Field, Form

Values = dict[str, object]


def read_values(form: Form, typed: Mapping[str, object]) -> tuple[Values, dict[str, str]]:
    """What was typed as it is kept, and what is wrong with it, by field; shown or not.

    Text is kept as it was typed, but for blanks around it.
    """
    values: Values = {}
    faults: dict[str, str] = {}
    for item in form.all_fields():
        value, fault = _read(item, typed.get(item.key))
        if fault:
            faults[item.key] = fault
        elif value is not None and value != "":
            values[item.key] = value
    return values, faults


def check_values(
    form: Form,
    typed: Mapping[str, object],
    read: Values,
    faults: Mapping[str, str],
    worked: Worked,
) -> tuple[Values, list[Problem]]:
    """The values to keep, and the problems, with pointers below `/values`.

    Values of fields that are not shown are left out, unless the form keeps them; formulas are as
    they were worked out here, whatever was sent.

    Args:
        typed: as it was sent.
        read, faults: as `read_values` gives them.
        worked: what the form comes to on them.
    """
    keys = [f.key for f in form.all_fields()]
    problems = [
        Problem(_pointer(key), unknown_name_detail("field", key, nearest_names(key, keys)))
        for key in typed
        if key not in keys
    ]
    kept: Values = {}
    for item in form.all_fields():
        if not FIELD_TYPES[item.type].holds_value:
            continue
        if item.key not in worked.shown:
            if form.keeps_hidden and item.key in read:
                kept[item.key] = read[item.key]
            continue
        value = as_kept(worked.values.get(item.key)) if item.formula else read.get(item.key)
        if item.key in faults:
            problems.append(Problem(_pointer(item.key), faults[item.key]))
        elif value is not None:
            kept[item.key] = value
        elif item.key in worked.needed and item.formula is None:
            problems.append(Problem(_pointer(item.key), said("needed", "This is needed.")))
    return kept, problems


def _pointer(key: str) -> str:
    return f"/values/{escape_pointer(key)}"


def _read(item: Field, value: object) -> tuple[object, str]:
    if value is None or value == "":
        return None, ""
    return FIELD_TYPES[item.type].read(item, value)
