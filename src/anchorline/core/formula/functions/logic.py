"""Choosing, and what is yes or no."""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence

from ..values import Problem, Value, to_number, to_yes_no
from .registry import ANY, NUMBER, YES_NO, function, needed, optional

Later = Callable[[], Value]


def _of_rest(kinds: Sequence[frozenset[str]]) -> frozenset[str]:
    return frozenset().union(*kinds[1:])


def _of_any(kinds: Sequence[frozenset[str]]) -> frozenset[str]:
    return frozenset().union(*kinds)


@function(
    "IF",
    [needed("condition", YES_NO), needed("then", ANY), optional("otherwise", ANY, False)],
    _of_rest,
    "One value where a condition holds, another one where it does not.",
    ('IF(2 > 1; "more"; "less")', "more"),
    lazy=True,
)
def _if(condition: Later, then: Later, otherwise: Later) -> Value:
    holds = to_yes_no(condition())
    if isinstance(holds, Problem):
        return holds
    return then() if holds else otherwise()


@function(
    "IFERROR",
    [needed("value", ANY), needed("instead", ANY)],
    _of_any,
    "A value, or another one where the first cannot be worked out.",
    ('IFERROR(1 / 0; "none")', "none"),
    lazy=True,
)
def _iferror(value: Later, instead: Later) -> Value:
    found = value()
    return instead() if isinstance(found, Problem) else found


@function(
    "CHOOSE",
    [needed("which", NUMBER), needed("first", ANY), optional("next", ANY)],
    _of_rest,
    "The first, second, third … of several values.",
    ('CHOOSE(2; "low"; "middle"; "high")', "middle"),
    repeated=1,
    lazy=True,
)
def _choose(which: Later, *values: Later) -> Value:
    number = to_number(which())
    if isinstance(number, Problem):
        return number
    place = math.floor(number)
    return values[place - 1]() if 1 <= place <= len(values) else Problem("out-of-range")


@function(
    "AND",
    [needed("condition", YES_NO), optional("next", YES_NO)],
    YES_NO,
    "Whether all conditions hold.",
    ("AND(2 > 1; 3 > 2)", "yes"),
    repeated=1,
)
def _and(*conditions: bool) -> Value:
    return all(conditions)


@function(
    "OR",
    [needed("condition", YES_NO), optional("next", YES_NO)],
    YES_NO,
    "Whether at least one condition holds.",
    ("OR(2 > 1; 3 > 4)", "yes"),
    repeated=1,
)
def _or(*conditions: bool) -> Value:
    return any(conditions)


@function(
    "XOR",
    [needed("condition", YES_NO), optional("next", YES_NO)],
    YES_NO,
    "Whether an odd number of conditions holds: of two, just one.",
    ("XOR(2 > 1; 3 > 2)", "no"),
    repeated=1,
)
def _xor(*conditions: bool) -> Value:
    return sum(conditions) % 2 == 1


@function(
    "NOT",
    [needed("condition", YES_NO)],
    YES_NO,
    "Whether a condition does not hold.",
    ("NOT(2 > 1)", "no"),
)
def _not(condition: bool) -> Value:
    return not condition


@function("TRUE", [], YES_NO, "Yes.", ("TRUE()", "yes"))
def _true() -> Value:
    return True


@function("FALSE", [], YES_NO, "No.", ("FALSE()", "no"))
def _false() -> Value:
    return False


@function(
    "ISBLANK",
    [needed("value", ANY)],
    YES_NO,
    "Whether nothing was given.",
    ('ISBLANK("")', "no"),
    holds_problems=True,
)
def _is_blank(value: Value) -> Value:
    return value is None


@function(
    "ISNUMBER",
    [needed("value", ANY)],
    YES_NO,
    "Whether a value is a number or a date.",
    ('ISNUMBER("12")', "no"),
    holds_problems=True,
)
def _is_number(value: Value) -> Value:
    return value is not None and not isinstance(value, bool | str | Problem)


@function(
    "ISTEXT",
    [needed("value", ANY)],
    YES_NO,
    "Whether a value is a text.",
    ('ISTEXT("12")', "yes"),
    holds_problems=True,
)
def _is_text(value: Value) -> Value:
    return isinstance(value, str)
