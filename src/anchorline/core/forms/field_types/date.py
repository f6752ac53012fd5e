"""A date, with limits."""

import re
from datetime import date

from ...said import said
from ..model import Field
from .registry import DATE, Fault, FieldType, Read, read_text, register

_ISO = re.compile(r"\d{4}-\d\d-\d\d", re.ASCII)
_WRITTEN = "write it like 2026-03-31."


def _read(field: Field, value: object) -> Read:
    text, fault = read_text(field, value)
    if fault:
        return None, fault
    day = _day(text)
    if day is None:
        return None, said("not_a_date", f"This is not a date; {_WRITTEN}")
    first, last = _day(field.least), _day(field.most)
    if first is not None and day < first:
        sentence = "This is before {first}, the first day that is possible."
        return None, said("too_early", sentence, first=first.isoformat())
    if last is not None and day > last:
        sentence = "This is after {last}, the last day that is possible."
        return None, said("too_late", sentence, last=last.isoformat())
    return text, ""


def _day(text: object) -> date | None:
    """The day of a text in ISO 8601's extended format; None where it is none."""
    if not isinstance(text, str) or not _ISO.fullmatch(text):
        return None
    try:
        return date.fromisoformat(text)
    except ValueError:
        return None


def _faults(field: Field) -> list[Fault]:
    limits = (("least", field.least), ("most", field.most))
    found: list[Fault] = [
        (name, f"This is not a date; {_WRITTEN}")
        for name, value in limits
        if value is not None and _day(value) is None
    ]
    first, last = _day(field.least), _day(field.most)
    if first is not None and last is not None and first > last:
        found.append(("most", f"No day is from {first} on and until {last}."))
    return found


register(
    FieldType(
        "date",
        "Date",
        "A day, perhaps within limits.",
        _read,
        DATE,
        faults=_faults,
        settings=("least", "most"),
    )
)
