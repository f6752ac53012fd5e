"""Values as JSON has them: a date is a text in ISO 8601."""

from __future__ import annotations

from .values import Date, Problem, Value, to_date

Plain = str | int | float | bool | None
_ISO_LENGTH = 10


def from_plain(value: Plain) -> Value:
    """A value of JSON; a text that is an ISO date is that date, an empty text is nothing."""
    if isinstance(value, bool) or value is None:
        return value
    if isinstance(value, int | float):
        return float(value)
    if len(value) == _ISO_LENGTH and value[4:5] == "-":
        date = to_date(value)
        if isinstance(date, Date):
            return date
    return value or None


def to_plain(value: Value) -> Plain:
    """A value for JSON: a whole number has no point, a problem is nothing."""
    if isinstance(value, Date):
        return str(value)
    if isinstance(value, Problem):
        return None
    if isinstance(value, float) and value.is_integer() and abs(value) < 2**53:
        return int(value)
    return value
