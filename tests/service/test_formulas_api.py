"""Formulas over HTTP."""

import pytest


def tried(api, formula, values=None, slots=None):
    return api.post(
        "formulas/try", json={"formula": formula, "values": values or {}, "slots": slots or {}}
    )


@pytest.mark.parametrize(
    ("formula", "values", "value", "kind"),
    [
        ("=n*2", {"n": 3}, 6, "number"),
        ("n / 2", {"n": 3}, 1.5, "number"),
        ('a & "!"', {"a": "x"}, "x!", "text"),
        ("day + 1", {"day": "2026-02-28"}, "2026-03-01", "date"),
        ("YEAR(day)", {"day": "2026-02-28"}, 2026, "number"),
        ("yes", {"yes": True}, True, "yes_no"),
        ("nothing", {"nothing": None}, None, "empty"),
        ("nothing", {"nothing": ""}, None, "empty"),
        ('"2026-02-30" & ""', {}, "2026-02-30", "text"),
    ],
)
def test_a_formula_is_worked_out_on_values(api, formula, values, value, kind):
    answer = tried(api, formula, values)
    assert answer.status_code == 200, answer.text
    assert answer.json() == {"value": value, "type": kind, "problems": []}


def test_what_fails_on_these_values_alone_is_a_problem_and_no_error(api):
    answer = tried(api, "1 / n", {"n": 0}).json()
    assert (answer["value"], answer["type"]) == (None, "problem")
    assert answer["problems"] == ["This divides by zero."]


def test_an_address_is_written_as_its_country_does_it(api):
    slots = {
        "piano": {
            "components": {
                "country_code": "DE", "number": "4", "street": "Lindenstraße", "town": "Marl",
                "postcode": "00011",
            },
            "facts": {"latitude": 51.5, "longitude": -2.75},
        },
        "home": {"components": {"country_code": "GB"}},
    }  # fmt: skip
    for formula, value in {
        "ADDRESS(piano)": "Lindenstraße 4, 00011 Marl",
        "ADDRESSLINES(piano)": "Lindenstraße 4\n00011 Marl",
        "ISPICKED(piano)": True,
        "ISFILLED(home)": False,
        "KILOMETRES(piano; home)": None,
        "KILOMETRESFROM(piano; 51.5; -2.75)": 0,
    }.items():
        assert tried(api, formula, slots=slots).json()["value"] == value


@pytest.mark.parametrize(
    ("formula", "detail", "at", "length"),
    [
        ("prise * 2", "There is no field “prise”. Did you mean price?", 0, 5),
        ("n *", "something is missing", 3, 0),
        ('2 * "abc"', "A number must stand here", 4, 5),
        ("n" * 100_000, "at most 4,000 characters; this has 100,000", 4000, 0),
    ],
)
def test_what_can_never_work_is_refused_with_its_place(api, formula, detail, at, length):
    answer = tried(api, formula, {"n": 1, "price": 2})
    assert answer.status_code == 422
    (error,) = answer.json()["errors"]
    assert error["pointer"] == "/formula"
    assert detail in error["detail"]
    assert (error["at"], error["length"]) == (at, length)


def test_a_misspelt_component_of_a_slot_is_named(api):
    answer = tried(api, "ADDRESS(p)", slots={"p": {"components": {"twon": "Marl"}}})
    assert answer.status_code == 422
    assert answer.json()["errors"][0]["pointer"] == "/slots/p/components/twon"


def test_functions_come_with_examples_that_can_be_tried(api):
    functions = {f["name"]: f for f in api.get("formulas").json()["functions"]}
    assert {"IF", "ROUND", "TEXT", "EDATE", "KILOMETRES"} <= set(functions)
    assert list(functions) == sorted(functions)
    round_ = functions["ROUND"]
    assert tried(api, round_["example"]["formula"]).json()["value"] == float(
        round_["example"]["value"]
    )
