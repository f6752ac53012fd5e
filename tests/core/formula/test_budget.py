"""How many steps formulas may take."""

import time

import pytest
from hypothesis import given
from hypothesis import strategies as st

from anchorline.core.formula import Budget, Given, Names, Problem, check, evaluate
from anchorline.core.formula.occurrence import place_of_whole
from anchorline.core.formula.values import folded

USED_UP = Problem("too-many-steps")
NAMES = Names({"t": frozenset({"text", "empty"}), "n": frozenset({"number", "empty"})})


def taken(formula, **values):
    """What a formula comes to, and the steps that it takes."""
    budget = Budget()
    before = budget.left
    return evaluate(check(formula, NAMES).tree, Given(values), budget), before - budget.left


@pytest.mark.parametrize(
    ("formula", "steps"),
    [
        ("1", 1),
        ("n", 1),
        ("n + 1", 3),
        ("IF(TRUE; 1; n + n)", 3),  # what is not chosen is not worked out
        ('"123456789"', 1),
        ('"1234567890"', 2),
        ('REPT("a"; 100)', 13),  # two arguments, and a text of a hundred characters
    ],
)
def test_each_value_is_a_step_and_one_more_for_each_ten_characters(formula, steps):
    assert taken(formula)[1] == steps


def test_a_budget_is_enough_to_the_last_step_and_not_beyond():
    tree = check("n + 1", NAMES).tree
    assert evaluate(tree, Given({"n": 2.0}), Budget(3)) == 3
    assert evaluate(tree, Given({"n": 2.0}), Budget(2)) == USED_UP


def test_nothing_hides_that_the_steps_are_used_up():
    budget = Budget(4)
    hiding = check("IFERROR(n + n + n; 5)", NAMES).tree
    assert evaluate(hiding, Given({"n": 1.0}), budget) == USED_UP
    assert budget.is_used_up
    assert evaluate(check("1", NAMES).tree, Given(), budget) == USED_UP


def test_a_text_that_is_longer_than_formulas_take_is_none_for_them():
    assert taken("LEN(t)", t="a" * 10_000)[0] == 10_000
    assert taken("LEN(t)", t="a" * 10_001)[0] == Problem("too-long")
    assert taken("ISBLANK(t)", t="a" * 10_001)[0] is False


COSTLY = [
    'SEARCH(REPT("a"; 4999) & "b"; REPT("a"; 9999))',
    'SEARCH(REPT("ß"; 4999) & "b"; REPT("ß"; 9999))',
    'FIND(REPT("a"; 4999) & "b"; REPT("a"; 9999))',
    'SUBSTITUTE(REPT("a"; 9999); "a"; REPT("b"; 9999))',
    'PROPER(REPT("a "; 5000))',
    'CHOSEN(REPT("a,"; 5000); "b")',
    'TEXT(1234567; REPT("0"; 9990) & "," & "0")',
    'TEXT("2026-03-01"; REPT("YM"; 4999))',
    'VALUE("1" & REPT(" "; 9990) & "1")',
    'UPPER(REPT("ŉ"; 9999)) = LOWER(REPT("İ"; 9999))',
]


@pytest.mark.parametrize("formula", COSTLY)
def test_what_a_form_may_take_is_taken_in_moments(formula):
    tree, budget, began = check(formula, NAMES).tree, Budget(), time.process_time()
    while not budget.is_used_up:
        evaluate(tree, Given(), budget)
    # A tenth of it is usual; seventy such calls took minutes before there was a budget.
    assert time.process_time() - began < 5


LETTERS = st.text(alphabet="asßSİiΣσς", max_size=12)


@given(LETTERS, LETTERS, st.integers(1, 14))
def test_a_part_is_found_where_some_characters_of_the_text_equal_it(part, text, start):
    """The oracle looks at every run of whole characters."""
    runs = [
        first + 1
        for first in range(start - 1, len(text) + 1)
        if any(folded(text[first:end]) == folded(part) for end in range(first, len(text) + 1))
    ]
    tree = check(f'SEARCH("{part}"; "{text}"; {start})', NAMES).tree
    outside = start > len(text) + 1
    expected = Problem("out-of-range") if outside else runs[0] if runs else Problem("not-found")
    assert evaluate(tree, Given()) == expected


@given(st.text(alphabet="ab", max_size=8), st.lists(st.sampled_from(["a", "b", "ab", "aab"])))
def test_the_place_of_a_part_is_that_of_plain_looking(wanted, characters):
    plain = next(
        (
            first
            for first in range(len(characters) + 1)
            if any(
                "".join(characters[first:end]) == wanted
                for end in range(first, len(characters) + 1)
            )
        ),
        -1,
    )
    assert place_of_whole(wanted, characters, 0) == plain
