"""Days as the serial numbers of spreadsheets: day 0 is 30 December 1899 (OpenFormula, 4.3.3)."""

from __future__ import annotations

from calendar import monthrange
from datetime import date

_EPOCH = date(1899, 12, 30).toordinal()
_YEARS, _DAYS = 400, 146_097  # after so many years, which are so many days, the calendar repeats


def is_day(serial: int) -> bool:
    """Whether a serial number is a day of the years 1 to 9999."""
    return date.min.toordinal() <= serial + _EPOCH <= date.max.toordinal()


def serial_of(year: int, month: int, day: int) -> int:
    """The serial number of a day; months and days beyond their end run on, of any year."""
    cycles, of_cycle = divmod(year + (month - 1) // 12 - 1, _YEARS)
    first = date(of_cycle + 1, (month - 1) % 12 + 1, 1).toordinal()
    return first + cycles * _DAYS + day - 1 - _EPOCH


def day_of(serial: int) -> tuple[int, int, int]:
    """Year, month and day of a serial number that is a day."""
    day = date.fromordinal(serial + _EPOCH)
    return day.year, day.month, day.day


def days_in_month(year: int, month: int) -> int:
    """How many days a month has."""
    return monthrange(year, month)[1]
