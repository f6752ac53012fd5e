"""Dates: their parts, and days and months between them."""

from __future__ import annotations

import math

from ..calendar import day_of, days_in_month, serial_of
from ..values import Date, Problem, Value, date_of
from .registry import DATE, NUMBER, function, needed, optional

_DATE = needed("date", DATE)
_MOST = 120_000


@function(
    "DATE",
    [needed("year", NUMBER), needed("month", NUMBER), needed("day", NUMBER)],
    DATE,
    "The date of a year, a month and a day; what is beyond a month's end runs on.",
    ("DATE(2026; 2; 29)", "2026-03-01"),
)
def _date(year: float, month: float, day: float) -> Value:
    parts = [math.trunc(part) for part in (year, month, day)]
    if any(abs(part) > 10_000_000 for part in parts):
        return Problem("no-such-date")
    return date_of(serial_of(*parts))


@function("TODAY", [], DATE, "The date of today, in UTC.", ("", ""))
def _today() -> Value:
    raise AssertionError("the evaluation knows the day")  # pragma: no cover


@function("YEAR", [_DATE], NUMBER, "The year of a date.", ('YEAR("2026-03-01")', "2026"))
def _year(date: Date) -> Value:
    return float(day_of(date.serial)[0])


@function("MONTH", [_DATE], NUMBER, "The month of a date.", ('MONTH("2026-03-01")', "3"))
def _month(date: Date) -> Value:
    return float(day_of(date.serial)[1])


@function("DAY", [_DATE], NUMBER, "The day of a date in its month.", ('DAY("2026-03-01")', "1"))
def _day(date: Date) -> Value:
    return float(day_of(date.serial)[2])


@function(
    "WEEKDAY",
    [_DATE, optional("type", NUMBER, 1.0)],
    NUMBER,
    "The day of the week: type 1 counts from Sunday (1), 2 from Monday (1), 3 from Monday (0).",
    ('WEEKDAY("2026-03-01"; 2)', "7"),
)
def _weekday(date: Date, kind: float) -> Value:
    monday = (date.serial + 5) % 7  # day 0 was a Saturday
    days = {1: (monday + 1) % 7 + 1, 2: monday + 1, 3: monday}
    found = days.get(math.floor(kind))
    return Problem("out-of-range") if found is None else float(found)


@function(
    "DAYS",
    [needed("end", DATE), needed("start", DATE)],
    NUMBER,
    "How many days lie between two dates.",
    ('DAYS("2026-03-01"; "2026-02-01")', "28"),
)
def _days(end: Date, start: Date) -> Value:
    return float(end.serial - start.serial)


@function(
    "EDATE",
    [_DATE, needed("months", NUMBER)],
    DATE,
    "The date so many months later or earlier; the last of the month where it has no such day.",
    ('EDATE("2026-01-31"; 1)', "2026-02-28"),
)
def _edate(date: Date, months: float) -> Value:
    if abs(months) > _MOST:
        return Problem("no-such-date")
    year, month, day = day_of(date.serial)
    month += math.trunc(months)
    year, month = year + (month - 1) // 12, (month - 1) % 12 + 1
    if not 1 <= year <= 9999:
        return Problem("no-such-date")
    return date_of(serial_of(year, month, min(day, days_in_month(year, month))))
