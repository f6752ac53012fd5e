"""Every function against numbers that nobody expects."""

import itertools
import math

import pytest

from anchorline.core.formula import Given, Names, Problem, check, evaluate
from anchorline.core.formula.functions import FUNCTIONS
from anchorline.core.formula.functions.registry import COMPONENT, SLOT
from tests.core.formula.generated import CALLS, ODD_NUMBERS, OPERATORS, SLOTS, TODAY

NAMES = Names(dict.fromkeys("abc", frozenset({"number"})), list(SLOTS))
TEXTS = ('""', '"a"', '"1e308"', '"0.00"', '"YYYY-MM-DD"')


def written(name):
    """A function in every way in which its parameters are numbers, and texts where they can be."""
    parameters = FUNCTIONS[name].parameters
    ways = [
        ["venue"] if one.kind == SLOT else ['"town"'] if one.kind == COMPONENT
        # Of three texts and a number, the number alone: there are too many ways otherwise.
        else TEXTS if one.kind == "text" and len(parameters) > 3
        else [field, *(TEXTS if one.kind in ("text", "any") else ())]
        for one, field in zip(parameters, "abca", strict=False)
    ]  # fmt: skip
    return [f"{name}({'; '.join(parts)})" for parts in itertools.product(*ways)]


def numbers(formula):
    """Every combination of odd numbers for the fields that a formula names."""
    for row in itertools.product(ODD_NUMBERS, repeat=len(formula.fields)):
        yield dict(zip(sorted(formula.fields), row, strict=True))


@pytest.mark.parametrize("name", [*CALLS, *OPERATORS])
def test_no_odd_number_breaks_a_function_or_comes_out_of_it_as_one(name):
    texts = [f"a {name} b"] if name in OPERATORS else written(name)
    for formula in (check(text, NAMES) for text in texts):
        for values in numbers(formula):
            found = evaluate(formula.tree, Given(values, SLOTS, TODAY))
            assert not isinstance(found, float) or math.isfinite(found), (formula.text, values)


@pytest.mark.parametrize(
    ("number", "code"),
    [(math.nan, "not-a-number"), (math.inf, "too-large"), (-math.inf, "too-large")],
)
def test_what_is_no_number_is_said_where_it_is_read(number, code):
    formula = check("a + 1", NAMES)
    assert evaluate(formula.tree, Given({"a": number})) == Problem(code)


@pytest.mark.parametrize(
    ("formula", "comes_to"),
    [
        ('REPT(""; 1e300)', ""),
        ('REPT("a"; 1e300)', Problem("too-long")),
        ('REPT("a"; 10000)', "a" * 10_000),
        ('REPT("a"; 10001)', Problem("too-long")),
        ('SUBSTITUTE(REPT("a"; 100); "a"; REPT("b"; 100))', "b" * 10_000),
        ('SUBSTITUTE(REPT("a"; 101); "a"; REPT("b"; 100))', Problem("too-long")),
        ("KILOMETRESFROM(venue; 90.1; 0)", Problem("out-of-range")),
        ("KILOMETRESFROM(venue; 0; -180.1)", Problem("out-of-range")),
        ("ISNUMBER(KILOMETRESFROM(venue; -90; 180))", True),
        ("ISBLANK(1 / 0)", False),
    ],
)
def test_what_is_too_much_is_told_before_it_is_made(formula, comes_to):
    assert evaluate(check(formula, NAMES).tree, Given({}, SLOTS)) == comes_to
