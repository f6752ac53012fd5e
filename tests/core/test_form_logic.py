"""What is shown and needed on a form, and what its formulas come to."""

import json
from pathlib import Path

import pytest

from anchorline.core.errors import DocumentError
from anchorline.core.forms import check_submission, formulas_of, read_form, upgraded, work_out
from anchorline.core.forms.values import read_values
from anchorline.core.formula import AddressValue, to_data
from tests.core.form_checking import check_values
from tests.core.formula.generated import as_data

VECTORS = json.loads((Path(__file__).parents[1] / "vectors/logic.json").read_text())
SETTINGS = {"formula": "formulas", "shown_when": "shown", "required_when": "required"}


@pytest.fixture(scope="module")
def form(layouts):
    return read_form(VECTORS["document"], layouts)


def test_the_vectors_have_the_checked_trees_of_their_document(form):
    logic = {"order": list(form.order), "formulas": {}, "shown": {}, "required": {}}
    for key in form.order:
        for setting, formula in formulas_of(form.item(key)):
            logic[SETTINGS[setting]][key] = to_data(formula.tree)
    assert logic == VECTORS["logic"]


@pytest.mark.parametrize("case", VECTORS["cases"], ids=lambda case: case["says"])
def test_a_form_comes_to_what_its_vector_says(form, case):
    slots = {
        key: AddressValue(**{**slot, "lines": tuple(slot["lines"])})
        for key, slot in case["slots"].items()
    }
    worked = work_out(form, read_values(form, case["values"])[0], slots, 0)
    in_order = [key for item in form.items for key in [item.key, *_parts(item)]]
    assert [key for key in in_order if key in worked.shown] == case["shown"]
    assert [key for key in in_order if key in worked.needed] == case["needed"]
    found = {key: as_data(value) for key, value in worked.values.items() if value is not None}
    assert found == case["comes_to"]


@pytest.mark.parametrize("case", VECTORS["stops"]["cases"], ids=lambda case: case["says"])
def test_a_form_whose_steps_are_used_up_stops_where_its_vector_says(layouts, case):
    stops = read_form(VECTORS["stops"]["document"], layouts)
    worked = work_out(stops, {"notes": "a" * case["characters"]}, {}, 0)
    assert worked.stopped_at == (case["stopped_at"] or "")
    assert [key for key in stops.order if key in worked.shown] == case["shown"]
    assert sorted(worked.needed) == case["needed"]


@pytest.mark.parametrize(("characters", "is_taken"), [(370, True), (1000, False)])
def test_a_filled_form_is_refused_where_its_formulas_have_no_steps_left(
    layouts, characters, is_taken
):
    stops = read_form(VECTORS["stops"]["document"], layouts)
    typed = {"notes": "a" * characters, "after": "x"}
    checked = check_submission(stops, typed, {}, layouts, lambda _: None, 0)
    if is_taken:
        assert (checked.problems, checked.values["found12"]) == ([], False)
        return
    (problem,) = checked.problems
    assert problem.pointer == "/values"
    assert "may take 100,000 steps" in problem.detail
    assert checked.values == {}


def _parts(item):
    return [part.key for part in getattr(item, "parts", ())]


def document(*fields, **whole):
    return {"key": "f", "kind": "web", "title": "F", "fields": list(fields), **whole}


def text(key, **settings):
    return {"key": key, "label": key.title(), **settings}


def test_formulas_are_kept_whatever_was_sent(layouts):
    form = read_form(
        document(
            text("n", type="number"),
            text("double", type="formula", formula="n * 2"),
            text("secret", type="formula", formula="n + 1", hidden=True),
            text("never", type="formula", formula="1 / 0"),
            text("half", type="formula", formula="n / 2", shown_when="n > 10"),
        ),
        layouts,
    )
    values, problems = check_values(form, {"n": 3, "double": 999, "secret": "x", "half": 4})
    assert (values, problems) == ({"n": 3, "double": 6, "secret": 4}, [])


def test_what_is_needed_on_a_condition_is_needed_then_only(layouts):
    form = read_form(
        document(text("n", type="number"), text("why", required_when="n > 3")), layouts
    )
    assert check_values(form, {"n": 3})[1] == []
    (problem,) = check_values(form, {"n": 4})[1]
    assert (problem.pointer, problem.detail) == ("/values/why", "This is needed.")


def test_what_is_wrong_with_a_hidden_field_stands_in_nobodys_way(layouts):
    form = read_form(
        document(text("a", type="yes_no"), text("n", type="number", shown_when="a")), layouts
    )
    assert check_values(form, {"n": "many"}) == ({}, [])
    assert check_values(form, {"a": True, "n": "many"})[1]


@pytest.mark.parametrize(
    ("fields", "pointer", "detail"),
    [
        ([text("a", shown_when="bb = 1"), text("b")], "/fields/0/shown_when", "no field “bb”"),
        ([text("a", shown_when="1 +")], "/fields/0/shown_when", "something is missing"),
        ([text("a", type="formula")], "/fields/0/formula", "Write what the field comes to"),
        ([text("a", formula="1")], "/fields/0/formula", "only fields of the type formula have it"),
        ([text("a", shown_when="DATE(2026; 1; 1)")], "/fields/0/shown_when", "is yes or no"),
        ([text("a", shown_when="h"), text("h", type="heading")], "/fields/0/shown_when", "“h”"),
        (
            [text("a", shown_when="b"), text("b", type="formula", formula='a & "x"')],
            "/fields/0/shown_when", "These depend on each other: “A” → “B” → “A”",
        ),
        ([text("a", shown_when='a = ""')], "/fields/0/shown_when", "“A” → “A”"),
    ],
)  # fmt: skip
def test_a_formula_that_cannot_be_is_refused_where_it_stands(layouts, fields, pointer, detail):
    with pytest.raises(DocumentError) as caught:
        read_form(document(*fields), layouts)
    assert [problem.pointer for problem in caught.value.problems] == [pointer]
    assert detail in caught.value.problems[0].detail


OLD = document(
    text("other", type="yes_no"), text("n", type="number"), text("visit-kind"),
    text("b", show_when={"field": "other", "values": ["no"]}),
    text("c", show_when={"field": "n", "values": ["2", "3"]}),
    text("d", show_when={"field": "visit-kind", "values": ['the "big" one', ""]}),
    {"slot": "s"},
    slots=[
        {"key": "s", "label": "S", "countries": ["GB"],
         "show_when": {"field": "other", "values": ["yes"]},
         "parts": [{"key": "p", "component": "unit",
                    "show_when": {"field": "n", "values": ["2"]}}]},
    ],
)  # fmt: skip


def test_conditions_of_earlier_releases_become_formulas(layouts):
    today = upgraded(OLD)
    assert [entry.get("shown_when") for entry in today["fields"]] == [
        None, None, None, "NOT(other)", "OR(n = 2; n = 3)",
        'OR(\'visit-kind\' = "the ""big"" one"; ISBLANK(\'visit-kind\'))', None,
    ]  # fmt: skip
    assert today["slots"][0]["shown_when"] == "other"
    assert today["slots"][0]["parts"][0]["shown_when"] == "n = 2"
    assert "show_when" not in json.dumps(today)
    assert read_form(today, layouts)
    assert upgraded(today) is today


def test_old_conditions_that_hang_on_themselves_show_what_they_hid(layouts):
    def hangs(key, field):
        return text(key, show_when={"field": field, "values": ["1"]})

    today = upgraded(
        document(hangs("p", "q"), hangs("q", "p"), hangs("own", "own"), hangs("x", "p"))
    )
    assert [entry.get("shown_when") for entry in today["fields"]] == [None, None, None, 'p = "1"']
    values, problems = check_values(read_form(today, layouts), {"p": "1", "q": "2", "own": "3"})
    assert (values, problems) == ({"p": "1", "q": "2", "own": "3"}, [])
