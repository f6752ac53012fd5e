"""The vectors that the browser is held to as well."""

import json
from pathlib import Path

import pytest

from anchorline.core.formula import (
    AddressValue,
    Date,
    Given,
    Names,
    check,
    evaluate,
    from_data,
    to_data,
    type_of,
)
from anchorline.core.formula.functions import FUNCTIONS
from anchorline.core.formula.tree import Call, walk
from tests.core.formula.generated import as_data

VECTORS = json.loads((Path(__file__).parents[2] / "vectors/formulas.json").read_text())
NAMES = Names(
    {key: frozenset([*kinds, "empty"]) for key, kinds in VECTORS["fields"].items()},
    VECTORS["slots"],
)
GIVEN = Given(
    {
        key: Date(value["date"])
        if isinstance(value, dict)
        else value
        if isinstance(value, str | bool)
        else float(value)
        for key, value in VECTORS["values"].items()
    },
    {
        key: AddressValue(**{**slot, "lines": tuple(slot["lines"])})
        for key, slot in VECTORS["slots"].items()
    },
    VECTORS["today"],
)


@pytest.mark.parametrize("case", VECTORS["cases"], ids=lambda case: case["formula"])
def test_a_formula_comes_to_what_its_vector_says(case):
    formula = check(case["formula"], NAMES)
    assert to_data(formula.tree) == case["tree"], "run the generator of the vectors again"
    value = evaluate(formula.tree, GIVEN)
    found = as_data(value)
    assert found == case["value"]
    assert isinstance(found, bool) == isinstance(case["value"], bool)
    assert type_of(value) in formula.gives | {"problem"}
    assert evaluate(from_data(case["tree"]), GIVEN) == value


def test_every_function_has_vectors():
    called = {
        node.name
        for case in VECTORS["cases"]
        for node in walk(from_data(case["tree"]))
        if isinstance(node, Call)
    }
    assert set(FUNCTIONS) - called == set()
    assert len(VECTORS["cases"]) >= 400
