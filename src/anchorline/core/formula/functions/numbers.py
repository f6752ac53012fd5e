"""Rounding, and what several numbers come to.

Rounding looks at fifteen digits, as spreadsheets do: 2.675 rounded to two places is 2.68, though
the double nearest to it is a little less.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from decimal import ROUND_DOWN, ROUND_HALF_UP, ROUND_UP, Decimal

from ..values import EVERY_DIGIT, Date, Problem, Value, date_of, fifteen, finite, to_number
from .operators import rounded_to_fifteen
from .registry import ANY, DATE, EMPTY, NUMBER, function, needed, optional

_MOST_PLACES = 15
_PLACES = [needed("number", NUMBER), optional("places", NUMBER, 0.0)]
_SEVERAL = [needed("value", ANY), optional("next", ANY)]


def _to_places(number: float, places: float, rounding: str) -> Value:
    if abs(places) > _MOST_PLACES:
        return Problem("out-of-range")
    step = Decimal(1).scaleb(-math.trunc(places))
    return finite(float(fifteen(number).quantize(step, rounding, EVERY_DIGIT)))


@function(
    "ROUND",
    _PLACES,
    NUMBER,
    "A number to so many places after the point; halves away from zero.",
    ("ROUND(2.345; 2)", "2.35"),
)
def _round(number: float, places: float) -> Value:
    return _to_places(number, places, ROUND_HALF_UP)


@function(
    "ROUNDUP",
    _PLACES,
    NUMBER,
    "A number to so many places after the point, away from zero.",
    ("ROUNDUP(2.301; 1)", "2.4"),
)
def _round_up(number: float, places: float) -> Value:
    return _to_places(number, places, ROUND_UP)


@function(
    "ROUNDDOWN",
    _PLACES,
    NUMBER,
    "A number to so many places after the point, towards zero.",
    ("ROUNDDOWN(2.399; 1)", "2.3"),
)
def _round_down(number: float, places: float) -> Value:
    return _to_places(number, places, ROUND_DOWN)


@function(
    "TRUNC",
    _PLACES,
    NUMBER,
    "A number without what stands behind so many places after the point.",
    ("TRUNC(-2.7)", "-2"),
)
def _trunc(number: float, places: float) -> Value:
    return _to_places(number, places, ROUND_DOWN)


@function(
    "INT",
    [needed("number", NUMBER)],
    NUMBER,
    "The greatest whole number that is not above a number.",
    ("INT(-2.7)", "-3"),
)
def _int(number: float) -> Value:
    return float(math.floor(rounded_to_fifteen(number)))


@function(
    "MOD",
    [needed("number", NUMBER), needed("divisor", NUMBER)],
    NUMBER,
    "What is left over of a division; it has the sign of the divisor.",
    ("MOD(-7; 3)", "2"),
)
def _mod(number: float, divisor: float) -> Value:
    if not divisor:
        return Problem("division-by-zero")
    times = finite(number / divisor)
    if isinstance(times, Problem):
        return times
    rest = number - divisor * math.floor(rounded_to_fifteen(times))
    return 0.0 if abs(rest) <= abs(number) * 1e-15 else finite(rounded_to_fifteen(rest))


@function("ABS", [needed("number", NUMBER)], NUMBER, "A number without its sign.", ("ABS(-4)", "4"))
def _abs(number: float) -> Value:
    return abs(number)


@function(
    "CEILING",
    [needed("number", NUMBER), optional("step", NUMBER)],
    NUMBER,
    "The next multiple of a step that is not below a number.",
    ("CEILING(17; 5)", "20"),
)
def _ceiling(number: float, step: float | None) -> Value:
    return _multiple(number, step, up=True)


@function(
    "FLOOR",
    [needed("number", NUMBER), optional("step", NUMBER)],
    NUMBER,
    "The next multiple of a step that is not above a number.",
    ("FLOOR(17; 5)", "15"),
)
def _floor(number: float, step: float | None) -> Value:
    return _multiple(number, step, up=False)


def _multiple(number: float, step: float | None, *, up: bool) -> Value:
    step = math.copysign(1.0, number) if step is None else step
    if not number or not step:
        return 0.0
    if (number < 0) != (step < 0):
        return Problem("out-of-range")
    times = finite(number / step)
    if isinstance(times, Problem):
        return times
    exact = rounded_to_fifteen(times)
    whole = math.ceil(exact) if up == (step > 0) else math.floor(exact)
    return finite(rounded_to_fifteen(step * whole))


def _numbers(values: Sequence[Value]) -> list[float] | Problem:
    """What was given, as numbers; what was not given is left out."""
    found: list[float] = []
    for value in values:
        number = to_number(value)
        if isinstance(number, Problem):
            return number
        if value is not None:
            found.append(number)
    return found


def _of_numbers_or_dates(kinds: Sequence[frozenset[str]]) -> frozenset[str]:
    every = frozenset().union(*kinds) - {EMPTY}
    surely = any(kind == {DATE} for kind in kinds)
    return every if every == {DATE} and surely else frozenset({NUMBER} | (every & {DATE}))


def _extreme(values: Sequence[Value], least: bool) -> Value:
    numbers = _numbers(values)
    if isinstance(numbers, Problem):
        return numbers
    if not numbers:
        return 0.0
    found = min(numbers) if least else max(numbers)
    given = [value for value in values if value is not None]
    return date_of(int(found)) if all(isinstance(v, Date) for v in given) else found


@function(
    "MIN",
    _SEVERAL,
    _of_numbers_or_dates,
    "The least of several numbers or dates.",
    ("MIN(4; 2; 8)", "2"),
    repeated=1,
)
def _min(*values: Value) -> Value:
    return _extreme(values, least=True)


@function(
    "MAX",
    _SEVERAL,
    _of_numbers_or_dates,
    "The greatest of several numbers or dates.",
    ("MAX(4; 2; 8)", "8"),
    repeated=1,
)
def _max(*values: Value) -> Value:
    return _extreme(values, least=False)


def _total(numbers: Sequence[float]) -> float:
    """From left to right, so that it is the same everywhere."""
    total = 0.0
    for number in numbers:
        total += number
    return total


@function(
    "SUM",
    _SEVERAL,
    NUMBER,
    "Several numbers added; what was not given is left out.",
    ("SUM(4; 2; 8)", "14"),
    repeated=1,
)
def _sum(*values: Value) -> Value:
    numbers = _numbers(values)
    return numbers if isinstance(numbers, Problem) else finite(_total(numbers))


@function(
    "AVERAGE",
    _SEVERAL,
    NUMBER,
    "The mean of several numbers; what was not given is left out.",
    ("AVERAGE(4; 2; 9)", "5"),
    repeated=1,
)
def _average(*values: Value) -> Value:
    numbers = _numbers(values)
    if isinstance(numbers, Problem):
        return numbers
    return finite(_total(numbers) / len(numbers)) if numbers else Problem("division-by-zero")


@function(
    "COUNT",
    _SEVERAL,
    NUMBER,
    "How many of several values are numbers or dates.",
    ('COUNT(4; "a"; 8)', "2"),
    repeated=1,
    holds_problems=True,
)
def _count(*values: Value) -> Value:
    numbers = [v for v in values if v is not None and not isinstance(v, bool | str | Problem)]
    return float(len(numbers))


@function(
    "COUNTA",
    _SEVERAL,
    NUMBER,
    "How many of several values were given.",
    ('COUNTA(4; "a"; 8)', "3"),
    repeated=1,
    holds_problems=True,
)
def _counta(*values: Value) -> Value:
    return float(len([value for value in values if value is not None]))
