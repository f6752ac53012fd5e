"""What can never be worked out is refused, with the place and what to do."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from anchorline.core.formula import (
    CircleError,
    FormulaError,
    Given,
    Names,
    check,
    evaluate,
    from_data,
    in_order,
    parse,
    to_data,
)
from tests.core.formula.generated import CALLS, NAMES

PIANO = Names(
    {
        "distance": frozenset({"number", "empty"}),
        "contact": frozenset({"text", "empty"}),
        "visit_day": frozenset({"date", "empty"}),
    },
    ["piano", "destination"],
)


@pytest.mark.parametrize(
    ("formula", "detail", "at", "length"),
    [
        ("distnce * 2", "no field “distnce”. Did you mean distance", 0, 7),
        ("2 * distnce", "Did you mean distance", 4, 7),
        ("ROUNDD(1)", "There is no function ROUNDD. Did you mean ROUND", 0, 6),
        ("1 + piano", "“piano” is an address: write ADDRESS(piano)", 4, 5),
        ("ADDRESS(pino)", "“pino” is no address of this form. Did you mean piano", 8, 4),
        ("ADDRESS(contact)", "is no address of this form", 8, 7),
        ("ADDRESS(1)", "needs the name of an address", 0, 7),
        ('COMPONENT(piano; "twon")', "no component “twon”. Did you mean town", 17, 6),
        ("COMPONENT(piano; contact)", "quotation marks", 17, 1),
        ("ROUND()", "ROUND(number; [places]) takes 1 to 2; none came", 0, 5),
        ("ROUND(1; 2; 3)", "takes 1 to 2; 3 came", 0, 5),
        ("SUM()", "SUM(value; [next]; …) takes at least 1; none came", 0, 3),
        ("NOT(1; 2)", "NOT(condition) takes 1; 2 came", 0, 3),
        ('"abc" * 2', "A number must stand here, not “abc”", 0, 5),
        ('2 * "abc"', "not “abc”", 4, 5),
        ('YEAR("soon")', "A date must stand here in YEAR(date), not “soon”", 5, 6),
        ("YEAR(TRUE)", "A date must stand here in YEAR(date), not yes or no", 5, 1),
        ("NOT(visit_day)", "empty", 0, 0),
        ('IF("maybe"; 1; 2)', "Yes or no must stand here in IF", 3, 7),
        ("DATE(2026; 1; 1) + TODAY()", "Two dates cannot be added", 17, 1),
        ("sum", "SUM is a function: write SUM(value; [next]; …)", 0, 3),
        ("1 +", "ends too soon: something is missing", 3, 0),
        ("(1 + 2", "ends too soon: a ) is missing", 6, 0),
        ("1 + 2)", "closes none", 5, 1),
        ("ROUND(1", "a ) is missing", 7, 0),
        ('"abc', "A text is not closed", 4, 0),
        ("distance distance", "“distance” cannot stand here; perhaps an operator", 9, 8),
        ("1 == 1", "Write = to compare", 2, 2),
        ("1 != 1", "Write <> for", 2, 2),
        ("“a”", "straight quotation marks", 0, 1),
        ("1 # 2", "“#” means nothing", 2, 1),
        ("", "no formula yet", 0, 0),
        (" = ", "no formula yet", 0, 0),
        ("1e999", "too large", 0, 5),
        ("A1:B2", "“:” means nothing", 2, 1),
    ],
)
def test_a_formula_that_cannot_be_is_refused_with_its_place(formula, detail, at, length):
    if detail == "empty":  # a date may be missing, and nothing is no
        assert check(formula, PIANO)
        return
    with pytest.raises(FormulaError) as caught:
        check(formula, PIANO)
    assert detail in caught.value.detail
    assert (caught.value.at, caught.value.length) == (at, length)


def test_the_place_is_pointed_out_below_its_line():
    text = "distance * 2\n+ distnce"
    with pytest.raises(FormulaError) as caught:
        check(text, PIANO)
    assert caught.value.pointed_out(text) == "+ distnce\n  ^^^^^^^"


@pytest.mark.parametrize(
    "formula", ["(" * 65 + "1" + ")" * 65, "-" * 65 + "1", "1" + " + 1" * 101, "1" * 4_001]
)
def test_a_formula_too_large_or_too_deep_is_refused(formula):
    with pytest.raises(FormulaError):
        parse(formula)


def test_at_the_limits_a_formula_still_is_one():
    assert check("(" * 64 + "1" + ")" * 64, PIANO)
    assert check("IF(TRUE; " * 60 + "1" + ")" * 60, PIANO)
    assert evaluate(check("1 + " * 100 + "1", PIANO).tree, Given()) == 101
    assert evaluate(check(f"SUM({'1; ' * 900}1)", PIANO).tree, Given()) == 901


def test_names_are_found_in_any_case_and_kept_as_the_form_has_them():
    formula = check("ROUND(DISTANCE) & address(Piano)", PIANO)
    assert (formula.fields, formula.slots) == ({"distance"}, {"piano"})


@pytest.mark.parametrize(
    ("formula", "gives"),
    [
        ("distance * 2", {"number"}),
        ("contact & 1", {"text"}),
        ("visit_day + 1", {"date", "number"}),
        ("visit_day - visit_day", {"date", "number"}),
        ("distance > 1", {"yes_no"}),
        ('IF(distance > 1; "far"; 0)', {"text", "number"}),
        ("IF(distance > 1; contact)", {"text", "empty", "yes_no"}),
        ("LATITUDE(piano)", {"number", "empty"}),
        ("EDATE(visit_day; 1)", {"date"}),
    ],
)
def test_what_a_formula_can_come_to_is_known_before(formula, gives):
    assert check(formula, PIANO).gives == gives


def test_formulas_come_after_what_they_need():
    needs = {"band": {"km", "rate"}, "km": {"from"}, "rate": set(), "total": {"band", "km"}}
    order = in_order(needs)
    assert sorted(order) == sorted(needs)
    for key, others in needs.items():
        for other in others & set(needs):
            assert order.index(other) < order.index(key)


def test_a_thousand_in_a_row_are_brought_in_order():
    row = {f"f{n}": {f"f{n + 1}"} for n in range(3000)}
    assert in_order(row)[:2] == ["f2999", "f2998"]
    with pytest.raises(CircleError) as caught:
        in_order(row | {"f3000": {"f0"}})
    assert len(caught.value.circle) == 3002


def test_a_circle_is_named():
    with pytest.raises(CircleError) as caught:
        in_order({"a": {"b"}, "b": {"c"}, "c": {"b"}})
    assert caught.value.circle == ["b", "c", "b"]
    with pytest.raises(CircleError, match="a → a"):
        in_order({"a": {"a"}})


PIECES = st.sampled_from(
    [*CALLS, *NAMES.fields, *NAMES.slots, *"()+-*/^&=<>%;,.\"' \n", "<=", "<>", "1", "2.5", '"a"', "TRUE", "é", "🎹"]
)  # fmt: skip


@given(st.lists(PIECES, max_size=30).map("".join) | st.text(max_size=60))
def test_any_text_is_a_formula_or_is_refused_with_a_place_in_it(text):
    formula = refused = None
    try:
        formula = check(text, NAMES)
    except FormulaError as error:
        refused = error
    if formula is None:
        assert refused.detail
        assert 0 <= refused.at <= len(text)
    else:
        value = evaluate(formula.tree, Given())
        assert evaluate(from_data(to_data(formula.tree)), Given()) == value
