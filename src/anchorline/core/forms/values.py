"""Checking the values that were typed into a form's fields."""

from __future__ import annotations

import math
import re
from collections.abc import Mapping
from datetime import date

from ..address import escape_pointer
from ..errors import Problem, nearest_names, unknown_name_detail
from ..text import has_control_characters
from .model import Field, Form
from .visibility import is_shown

_EMAIL = re.compile(r"[^@\s]+@[^@\s.]+(\.[^@\s.]+)+")
_DATE = re.compile(r"\d{4}-\d\d-\d\d", re.ASCII)
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
        if not is_shown(form, item, typed):
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
    if item.type == "yes_no":
        return (value, "") if isinstance(value, bool) else (None, "Say true or false here.")
    if item.type == "number":
        return _number(value)
    if not isinstance(value, str):
        return None, "Give text here."
    text = value.strip()
    if has_control_characters(text):
        return None, "This holds characters that cannot be shown; type it again."
    if item.type != "long_text" and ("\n" in text or "\r" in text):
        return None, "This is one line only; take the line breaks out."
    if item.max_length is not None and len(text) > item.max_length:
        return None, f"This is {len(text)} characters long; at most {item.max_length} fit."
    return text, _text_fault(item, text)


def _number(value: object) -> tuple[object, str]:
    if isinstance(value, bool) or not isinstance(value, int | float | str):
        return None, "Give a number here."
    try:
        number = float(value)
    except (ValueError, OverflowError):
        return None, f"{value!r} is not a number; write it like 12 or 12.5."
    if not math.isfinite(number):
        return None, "Give an ordinary number here."
    return (int(number) if number.is_integer() and abs(number) < 2**53 else number), ""


def _text_fault(item: Field, text: str) -> str:
    if item.type == "choice" and text and text not in [o.value for o in item.options]:
        nearest = nearest_names(text, [o.value for o in item.options])
        return unknown_name_detail("choice", text, nearest)
    if item.type == "email" and text and not _EMAIL.fullmatch(text):
        return "This is not an e-mail address; it looks like name@example.org."
    if item.type == "phone" and text and sum(c.isdigit() for c in text) < 5:
        return "This is not a phone number; give all its digits."
    if item.type == "date" and text and not _is_date(text):
        return "This is not a date; write it like 2026-03-31."
    return ""


def _is_date(text: str) -> bool:
    """Whether a text is a calendar date, written as ISO 8601's extended format has it."""
    if not _DATE.fullmatch(text):
        return False
    try:
        date.fromisoformat(text)
    except ValueError:
        return False
    return True
