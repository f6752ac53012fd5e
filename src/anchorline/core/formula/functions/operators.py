"""Operators: arithmetic with dates, joining and comparing."""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence

from ..values import (
    Date,
    Problem,
    Value,
    as_date,
    compared,
    date_of,
    fifteen,
    finite,
    to_date,
    to_number,
    to_text,
    to_yes_no,
)
from .registry import ANY, DATE, EMPTY, NUMBER, TEXT, YES_NO, Function, always, needed, register

_TWO = (needed("left", ANY), needed("right", ANY))
_TWO_NUMBERS = (needed("left", NUMBER), needed("right", NUMBER))
_TWO_TEXTS = (needed("left", TEXT), needed("right", TEXT))
_ONE_NUMBER = (needed("number", NUMBER),)
Kinds = Sequence[frozenset[str]]


def _added(one: Value, other: Value) -> Value:
    one, other = _with_dates(one, other)
    if isinstance(one, Date) and isinstance(other, Date):
        return Problem("not-a-number")
    return _shifted(one, other, 1)


def _with_dates(one: Value, other: Value) -> tuple[Value, Value]:
    """Beside a date a text that is written like one is one."""
    return (
        as_date(one) if isinstance(other, Date) else one,
        as_date(other) if isinstance(one, Date) else other,
    )


def _subtracted(one: Value, other: Value) -> Value:
    one, other = _with_dates(one, other)
    if isinstance(one, Date) and isinstance(other, Date):
        return float(one.serial - other.serial)
    return _shifted(one, other, -1)


def _shifted(one: Value, other: Value, sign: int) -> Value:
    """A number more or less, or a date so many days later or earlier."""
    left, right = to_number(one), to_number(other)
    if isinstance(left, Problem):
        return left
    if isinstance(right, Problem):
        return right
    total = finite(left + sign * right)
    if isinstance(total, Problem):
        return total
    if isinstance(one, Date) or (sign > 0 and isinstance(other, Date)):
        return date_of(math.floor(total))
    return total


def _sum_kinds(kinds: Kinds) -> frozenset[str]:
    left, right = kinds
    found = set()
    if left - {DATE} and right - {DATE}:
        found.add(NUMBER)
    if (DATE in left and right - {DATE}) or (DATE in right and left - {DATE}):
        found.add(DATE)
    return frozenset(found or {NUMBER})


def _difference_kinds(kinds: Kinds) -> frozenset[str]:
    left, right = kinds
    found = {DATE} if DATE in left and right - {DATE} else set()
    return frozenset(found | ({NUMBER} if left - {DATE} or DATE in right else set()))


def _no_two_dates(kinds: Kinds) -> str:
    both = all(kind == {DATE} for kind in kinds)
    return (
        "Two dates cannot be added; the days between them are one minus the other." if both else ""
    )


def _power(base: float, exponent: float) -> Value:
    if base == 0 and exponent == 0:
        return 1.0
    if base == 0 and exponent < 0:
        return Problem("division-by-zero")
    if base < 0 and not exponent.is_integer():
        return Problem("out-of-range")
    if exponent == 0.5:
        return math.sqrt(base)
    if exponent.is_integer() and abs(exponent) <= 1024:
        return _whole_power(base, int(exponent))
    try:
        return finite(_twelve(math.pow(base, exponent)))
    except OverflowError:
        return Problem("too-large")


def _whole_power(base: float, exponent: int) -> Value:
    """By squaring, which is the same wherever numbers are doubles."""
    result, square, left = 1.0, base, abs(exponent)
    while left:
        if left & 1:
            result *= square
        square *= square
        left >>= 1
    if exponent < 0:
        return finite(1 / result) if result else Problem("too-large")
    return finite(result)


def _twelve(number: float) -> float:
    """Twelve digits: beyond these, languages disagree about powers."""
    return float(f"{number:.11e}") if math.isfinite(number) else number


def _divided(one: float, other: float) -> Value:
    return finite(one / other) if other else Problem("division-by-zero")


def _comparing(holds: Callable[[int], bool]) -> Callable[[Value, Value], Value]:
    def rule(one: Value, other: Value) -> Value:
        order = compared(one, other)
        return order if isinstance(order, Problem) else holds(order)

    return rule


for sign, holds in {
    "=": lambda order: order == 0,
    "<>": lambda order: order != 0,
    "<": lambda order: order < 0,
    ">": lambda order: order > 0,
    "<=": lambda order: order <= 0,
    ">=": lambda order: order >= 0,
}.items():
    register(Function(sign, _TWO, always(YES_NO), _comparing(holds)))

register(Function("+", _TWO, _sum_kinds, _added, refuses=_no_two_dates))
register(Function("-", _TWO, _difference_kinds, _subtracted))
register(Function("*", _TWO_NUMBERS, always(NUMBER), lambda one, other: finite(one * other)))
register(Function("/", _TWO_NUMBERS, always(NUMBER), _divided))
register(Function("^", _TWO_NUMBERS, always(NUMBER), _power))
register(
    Function(
        "&",
        (needed("left", TEXT), needed("right", TEXT)),
        always(TEXT),
        lambda one, other: one + other,
    )
)
register(Function("NEGATE", _ONE_NUMBER, always(NUMBER), lambda number: finite(-number)))
register(Function("PLUS", _ONE_NUMBER, always(NUMBER), lambda number: number))
register(Function("PERCENT", _ONE_NUMBER, always(NUMBER), lambda number: finite(number / 100)))

# What a checked tree says where one kind of value is taken for another.
CONVERSIONS: dict[str, Callable[[Value], Value]] = {
    NUMBER: to_number,
    TEXT: to_text,
    YES_NO: to_yes_no,
    DATE: to_date,
}
# Kinds that can be taken for another; a text only where it is written like one.
TAKEN_FOR = {
    NUMBER: frozenset({NUMBER, TEXT, YES_NO, DATE, EMPTY}),
    TEXT: frozenset({NUMBER, TEXT, YES_NO, DATE, EMPTY}),
    YES_NO: frozenset({NUMBER, TEXT, YES_NO, EMPTY}),
    DATE: frozenset({NUMBER, TEXT, DATE, EMPTY}),
}


def rounded_to_fifteen(number: float) -> float:
    """A number without the noise beyond its fifteenth digit."""
    return float(fifteen(number))
