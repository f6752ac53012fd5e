"""The values that formulas work with, and how one kind is taken for another.

A value is a number (IEEE 754 double), a text, yes or no, a date, nothing, or a problem: what a
formula comes to where it cannot come to anything else (a division by zero). The rules follow
OpenFormula (OASIS OpenDocument 1.3, part 4, chapter 6.3), with two choices that it leaves open:
a date is a kind of its own, and a text stands for a number or a date where it is written like one.

The embedded form evaluates the same rules in the browser; both are held to one set of vectors.
"""

from __future__ import annotations

import math
import re
from dataclasses import dataclass
from decimal import ROUND_HALF_UP, Context, Decimal

from .budget import MOST_STEPS
from .calendar import day_of, is_day, serial_of

MOST_CHARACTERS = 10_000
_NUMBER = re.compile(r"[+-]?(?:[0-9]+(?:\.[0-9]*)?|\.[0-9]+)(?:[eE][+-]?[0-9]{1,3})?%?", re.ASCII)
_ISO_DATE = re.compile(r"([0-9]{4})-([0-9]{2})-([0-9]{2})", re.ASCII)
_DIGITS = 15
# Of the largest double with fifteen places after the point.
EVERY_DIGIT = Context(prec=340)


@dataclass(frozen=True, slots=True)
class Date:
    """A day, as the number that spreadsheets give it: 1 is 31 December 1899."""

    serial: int

    def __str__(self) -> str:
        return "{:04}-{:02}-{:02}".format(*day_of(self.serial))


@dataclass(frozen=True, slots=True)
class Problem:
    """What a formula comes to where these values leave it nothing else; a key of PROBLEMS."""

    code: str


Value = float | str | bool | Date | Problem | None

PROBLEMS = {
    "division-by-zero": "This divides by zero.",
    "not-a-number": "This is no number.",
    "not-a-date": "This is no date; write one like 2026-03-01.",
    "not-yes-or-no": "This is neither yes nor no.",
    "no-such-date": "There is no such date between the years 1 and 9999.",
    "out-of-range": "This lies outside of what the function takes.",
    "not-found": "The text is not in the other one.",
    "too-large": "This number is too large.",
    "too-long": f"This text is longer than {MOST_CHARACTERS:,} characters.",
    "unknown-format": "TEXT has no such format.",
    "too-many-steps": f"The formulas here take more than {MOST_STEPS:,} steps. "
    "Shorten the texts that they work on, or make them simpler.",
}


def type_of(value: Value) -> str:
    """What a value is: number, text, yes_no, date, empty or problem."""
    if value is None:
        return "empty"
    if isinstance(value, bool):
        return "yes_no"
    if isinstance(value, str):
        return "text"
    if isinstance(value, Date):
        return "date"
    return "problem" if isinstance(value, Problem) else "number"


def within_limits(value: Value) -> Value:
    """A value that formulas may work with, or the problem that it is too long, large or no number.

    Texts and numbers come in from fields of any length, and out of every function: this is the
    one place that holds them to what there is.
    """
    if isinstance(value, str):
        return value if len(value) <= MOST_CHARACTERS else Problem("too-long")
    if isinstance(value, float) and not math.isfinite(value):
        return Problem("not-a-number" if math.isnan(value) else "too-large")
    return value


def finite(number: float) -> float | Problem:
    """A number, or the problem that it is none."""
    return number + 0.0 if math.isfinite(number) else Problem("too-large")


def to_number(value: Value) -> float | Problem:
    """A value as a number: nothing is 0, yes is 1, a date is its serial number."""
    if value is None:
        return 0.0
    if isinstance(value, Date):
        return float(value.serial)
    if isinstance(value, str):
        return _written_number(value)
    return value if isinstance(value, Problem) else float(value)


def _written_number(text: str) -> float | Problem:
    text = text.strip(" ")
    if _NUMBER.fullmatch(text):
        number = float(text.removesuffix("%"))
        return finite(number / 100 if text.endswith("%") else number)
    date = _written_date(text)
    return Problem("not-a-number") if date is None else float(date.serial)


def to_text(value: Value) -> str | Problem:
    """A value as a text: nothing is empty, a number has at most 15 digits, a date is ISO 8601."""
    if value is None:
        return ""
    if isinstance(value, bool):
        return "TRUE" if value else "FALSE"
    if isinstance(value, str | Problem):
        return value
    return str(value) if isinstance(value, Date) else plain(value)


def to_yes_no(value: Value) -> bool | Problem:
    """A value as yes or no: nothing and 0 are no, any other number is yes."""
    if value is None or isinstance(value, bool):
        return bool(value)
    if isinstance(value, str):
        said = {"TRUE": True, "FALSE": False}.get(value.strip(" ").upper())
        return Problem("not-yes-or-no") if said is None else said
    if isinstance(value, Problem):
        return value
    return bool(value.serial if isinstance(value, Date) else value)


def to_date(value: Value) -> Date | Problem:
    """A value as a date: a number is a serial number, its fraction is left out."""
    if isinstance(value, Date | Problem):
        return value
    if isinstance(value, str):
        date = _written_date(value.strip(" "))
        if date is not None:
            return date
        if not _NUMBER.fullmatch(value.strip(" ")):
            return Problem("not-a-date")
    number = to_number(value)
    if isinstance(number, Problem):
        return number
    return date_of(math.floor(number))


def date_of(serial: int) -> Date | Problem:
    """The date with a serial number, if there is one."""
    return Date(serial) if is_day(serial) else Problem("no-such-date")


def _written_date(text: str) -> Date | None:
    match = _ISO_DATE.fullmatch(text)
    if match is None:
        return None
    year, month, day = map(int, match.groups())
    serial = serial_of(year, month, day)
    return Date(serial) if is_day(serial) and day_of(serial) == (year, month, day) else None


def fifteen(number: float) -> Decimal:
    """A number to 15 digits, halves away from zero: what a spreadsheet shows and rounds."""
    exact = Decimal(number)
    if not exact:
        return exact
    return exact.quantize(Decimal(1).scaleb(exact.adjusted() + 1 - _DIGITS), ROUND_HALF_UP)


def plain(number: float) -> str:
    """A number in at most 15 digits: without exponent from 1E-9 up to 1E15."""
    kept = fifteen(number)
    if not kept:
        return "0"
    if -9 <= kept.adjusted() < _DIGITS:
        text = f"{kept:f}"
        return text.rstrip("0").rstrip(".") if "." in text else text
    digits = "".join(map(str, kept.as_tuple().digits)).rstrip("0")
    body = digits[0] + ("." + digits[1:] if len(digits) > 1 else "")
    return f"{'-' if kept < 0 else ''}{body}E{kept.adjusted():+}"


def folded(text: str) -> str:
    """A text as texts are compared: in one case, each character whatever stands beside it.

    Only the sigma is written otherwise at a word's end (Unicode, SpecialCasing: Final_Sigma).
    """
    return text.upper().lower().replace("ς", "σ")


_ORDER = {"number": 0, "date": 0, "text": 1, "yes_no": 2}
_EMPTY: dict[str, Value] = {"number": 0.0, "date": 0.0, "text": "", "yes_no": False}


def compared(one: Value, other: Value) -> int | Problem:
    """-1, 0 or 1: how two values stand to each other.

    Nothing is 0, "" or no, whatever it is held against. A text that is written like a date is one
    beside a date. Values of different kinds: numbers come before texts, texts before yes and no.
    """
    for value in (one, other):
        if isinstance(value, Problem):
            return value
    kinds = [type_of(one), type_of(other)]
    if kinds == ["empty", "empty"]:
        return 0
    if "empty" in kinds:
        kind = next(kind for kind in kinds if kind != "empty")
        one, other = (_EMPTY[kind] if value is None else value for value in (one, other))
        kinds = [kind, kind]
    if sorted(kinds) == ["date", "text"]:
        one, other = (as_date(value) for value in (one, other))
        kinds = [type_of(one), type_of(other)]
    ranks = [_ORDER[kind] for kind in kinds]
    if ranks[0] != ranks[1]:
        return -1 if ranks[0] < ranks[1] else 1
    keys = [_key(value) for value in (one, other)]
    return (keys[0] > keys[1]) - (keys[0] < keys[1])  # type: ignore[operator]


def as_date(value: Value) -> Value:
    """A text that is written like a date as one; anything else as it is."""
    return (_written_date(value.strip(" ")) or value) if isinstance(value, str) else value


def _key(value: Value) -> float | str:
    if isinstance(value, str):
        return folded(value)
    number = to_number(value)
    return 0.0 if isinstance(number, Problem) else float(fifteen(number))
