"""Formats of the function TEXT: digits of numbers, parts of dates.

| in a format | means |
|---|---|
| `0` | a digit, also where it is a zero at the end |
| `#` | a digit where it is needed |
| `,` between digits | thousands are parted by commas |
| `.` | the decimal point |
| `%` behind | a hundred times the number |
| `YYYY` `YY` `MM` `M` `DD` `D` | year, month and day of a date |
| anything before and behind the digits, or beside parts of a date, or in `"…"` | itself |
"""

from __future__ import annotations

import re
from decimal import ROUND_HALF_UP, Decimal

from .calendar import day_of
from .values import EVERY_DIGIT, Date, Problem, Value, fifteen, to_date, to_number, to_text

_DIGITS = re.compile(r"[0#][0#,]*(?:\.[0#]*)?|\.[0#]+")
_DATE_PART = re.compile(r'"[^"]*"|YYYY|YY|MM|M|DD|D|.', re.IGNORECASE | re.DOTALL)
_LITERAL = re.compile(r'"([^"]*)"')
_MOST_PLACES = 15


def written(value: Value, form: str) -> str | Problem:
    """A value in a format; a text stays as it is."""
    if isinstance(value, Problem):
        return value
    bare = _LITERAL.sub("", form)
    if _DIGITS.search(bare) and not isinstance(value, Date):
        number = to_number(value)
        if isinstance(number, Problem):
            return number if not isinstance(value, str) else value
        return _number(number, form)
    if re.search("[YMD]", bare, re.IGNORECASE):
        date = to_date(value)
        if isinstance(date, Problem):
            return date if not isinstance(value, str) else value
        return _date(date, form)
    if form == "@":
        return to_text(value)
    return Problem("unknown-format")


def _number(number: float, form: str) -> str | Problem:
    parts = re.split(r'("[^"]*")', form)
    places = [
        n for n, part in enumerate(parts) if not part.startswith('"') and _DIGITS.search(part)
    ]
    if len(places) != 1:
        return Problem("unknown-format")
    part = parts[places[0]]
    match = _DIGITS.search(part)
    assert match is not None
    before, behind = part[: match.start()], part[match.end() :]
    if _DIGITS.search(behind) or match[0].endswith(","):
        return Problem("unknown-format")
    whole, _, fraction = match[0].partition(".")
    if len(fraction) > _MOST_PLACES or "," in fraction:
        return Problem("unknown-format")
    percent = "%" in behind or "%" in before
    digits = _digits(fifteen(number) * (100 if percent else 1), whole, fraction)
    parts[places[0]] = f"{before}{digits}{behind}"
    text = "".join(p[1:-1] if len(p) > 1 and p.startswith('"') else p for p in parts)
    return f"-{text}" if number < 0 and any(d in "123456789" for d in digits) else text


def _digits(number: Decimal, whole: str, fraction: str) -> str:
    rounded = abs(number).quantize(Decimal(1).scaleb(-len(fraction)), ROUND_HALF_UP, EVERY_DIGIT)
    ones, _, rest = f"{rounded:f}".partition(".")
    while len(rest) > fraction.rfind("0") + 1 and rest.endswith("0"):
        rest = rest[:-1]
    ones = ones.lstrip("0").rjust(whole.count("0"), "0")
    if "," in whole:
        parted = [ones[max(0, end - 3) : end] for end in range(len(ones), 0, -3)]
        ones = ",".join(reversed(parted))
    point = "." if rest or (fraction.startswith("0")) else ""
    return f"{ones}{point}{rest}"


def _date(date: Date, form: str) -> str:
    year, month, day = day_of(date.serial)
    parts = {
        "YYYY": f"{year:04}", "YY": f"{year % 100:02}", "MM": f"{month:02}", "M": str(month),
        "DD": f"{day:02}", "D": str(day),
    }  # fmt: skip
    return "".join(
        parts.get(part.upper(), part[1:-1] if len(part) > 1 and part[0] == '"' else part)
        for part in _DATE_PART.findall(form)
    )
