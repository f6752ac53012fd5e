"""docs/formulas.md: every function is in it, and every example comes to what it says."""

import re
from pathlib import Path

import pytest

from anchorline.core.formula import AddressValue, Given, Names, check, evaluate
from anchorline.core.formula.functions import functions_by_name
from anchorline.core.formula.values import to_text

PAGE = (Path(__file__).parents[3] / "docs/formulas.md").read_text()
ROWS = re.findall(r"^\| `([A-Z]+\(.*?\))` \| (.+?) \| (?:`(.+?)`)? \| (.+) \|$", PAGE, re.MULTILINE)
SLOTS = {
    "venue": AddressValue(
        {"number": "16", "street": "Abbey Mews", "town": "Brackwater", "postcode": "QV1 1AA"},
        51.5, -2.75, "16 Abbey Mews, Brackwater, QV1 1AA",
        ("16 Abbey Mews", "BRACKWATER", "QV1 1AA"), "picked",
        {"use": "residential", "languages": "en", "id": "demo:GB0000012"},
    ),
    "home": AddressValue({"town": "Marl"}, 51.6, -2.8, "Marl", ("Marl",), "picked"),
}  # fmt: skip


def test_every_function_is_on_the_page_as_it_says_of_itself():
    assert {usage: says for usage, says, _formula, _value in ROWS} == {
        function.usage: function.says for function in functions_by_name()
    }


@pytest.mark.parametrize(
    ("formula", "value"), [(f, v) for _usage, _says, f, v in ROWS if f], ids=lambda text: text
)
def test_an_example_comes_to_what_the_page_says(formula, value):
    found = evaluate(check(formula, Names(slots=list(SLOTS))).tree, Given(slots=SLOTS))
    said = {True: "yes", False: "no"}[found] if isinstance(found, bool) else to_text(found)
    assert said.replace("\n", " ⏎ ") == value.strip("`")


@pytest.mark.parametrize("function", functions_by_name(), ids=lambda function: function.name)
def test_examples_of_functions_are_those_of_the_page(function):
    if function.example[0]:
        formula, value = function.example
        assert (formula, f"`{value}`".replace("\n", " ⏎ ")) in {(f, v) for _u, _s, f, v in ROWS}
