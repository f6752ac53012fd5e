"""Conditions and formulas of forms over HTTP."""

import pytest

from tests.states import ANY_STATE

DOCUMENT = {
    "key": "logic",
    "kind": "web",
    "title": "Logic",
    "fields": [
        {"key": "n", "type": "number", "label": "N"},
        {"key": "double", "type": "formula", "label": "Double", "formula": "n * 2"},
        {"key": "why", "label": "Why", "shown_when": "n > 5", "required_when": "double > 20"},
        {"slot": "place"},
        {"key": "line", "type": "formula", "label": "Line", "formula": "ADDRESS(place)"},
        {"key": "how", "type": "formula", "label": "How", "hidden": True,
         "formula": 'IF(ISPICKED(place); "picked"; IF(ISTYPED(place); "typed"; "none"))'},
        {"key": "far", "type": "formula", "label": "Far",
         "formula": "KILOMETRESFROM(place; 51.6; -2.8)"},
    ],
    "slots": [
        {"key": "place", "label": "Place", "countries": ["GB"], "required": False,
         "shown_when": "n < 100",
         "parts": [{"key": f"p_{c}", "component": c} for c in ("number", "street", "town", "postcode")],
         "mapping": [{"components": [c], "into": f"p_{c}"}
                     for c in ("number", "street", "town", "postcode")]},
    ],
}  # fmt: skip


@pytest.fixture(scope="module")
def published(stack):
    with stack.http() as http:
        put = http.put("/api/v1/forms/logic/draft", json=DOCUMENT)
        assert put.status_code == 200, put.text
        assert http.post("/api/v1/forms/logic/publish", headers=ANY_STATE).status_code == 200


def send(api, values, slots=None):
    return api.post("forms/logic/records", json={"values": values, "slots": slots or {}})


def test_a_form_comes_with_its_checked_formulas(api, published):
    logic = api.get("forms/logic").json()["logic"]
    assert logic["formulas"]["double"] == {
        "call": "*", "of": [{"call": "number", "of": [{"field": "n"}]}, {"value": 2}]
    }  # fmt: skip
    assert set(logic["shown"]) == {"why", "place"}
    assert set(logic["required"]) == {"why"}
    assert logic["order"].index("double") < logic["order"].index("why")


def test_formulas_are_worked_out_by_the_service_whatever_was_sent(api, published):
    record = send(api, {"n": 4, "double": 999, "why": "hidden, so not kept"}).json()
    assert record["values"] == {"n": 4, "double": 8, "how": "none"}


def test_what_is_needed_on_a_condition_is_asked_for(api, published):
    answer = send(api, {"n": 11})
    assert answer.status_code == 422
    assert answer.json()["errors"] == [
        {"pointer": "/values/why", "detail": "This is needed.", "kind": "needed"}
    ]
    assert send(api, {"n": 11, "why": "many"}).json()["values"]["why"] == "many"


def test_an_address_is_in_formulas_as_it_is_captured(api, published):
    (found,) = api.get("suggest", params={"q": "16 abbey mews", "country": "GB"}).json()[
        "suggestions"
    ][:1]
    fill = api.post("forms/logic/slots/place/fill", json={"address_id": found["id"]}).json()
    address = api.get(f"addresses/{found['id']}").json()
    assert fill["address"]["lines"] == address["lines"]
    assert fill["address"]["latitude"] == address["facts"]["latitude"]
    slots = {"place": {"country_code": "GB", "address_id": found["id"]}}
    picked = send(api, {"n": 1, **fill["values"]}, slots).json()["values"]
    assert (picked["line"], picked["how"]) == ("16 Abbey Mews, Brackwater, QV1 1AA", "picked")
    assert picked["far"] > 0
    typed = send(api, {"n": 1, **fill["values"]}, {"place": {"country_code": "GB"}}).json()[
        "values"
    ]
    assert (typed["line"], typed["how"], typed.get("far")) == (picked["line"], "typed", None)
    hidden = send(api, {"n": 100, "why": "x", **fill["values"]}, slots).json()
    assert hidden["values"] == {"n": 100, "double": 200, "why": "x", "how": "none"}
    assert hidden["slots"] == {}


@pytest.mark.parametrize(
    ("change", "pointer", "at"),
    [
        ({"formula": "m * 2", "type": "formula"}, "/fields/0/formula", 0),
        ({"shown_when": "1 + "}, "/fields/0/shown_when", 3),
        ({"required_when": "ADDRESS(x) = 1"}, "/fields/0/required_when", 8),
    ],
)
def test_a_formula_that_cannot_be_is_refused_with_its_place(api, change, pointer, at):
    field = {"key": "a", "label": "A", **change}
    document = {"key": "bad-logic", "kind": "web", "title": "Bad", "fields": [field]}
    answer = api.put("forms/bad-logic/draft", json=document)
    assert answer.status_code == 422
    assert [(e["pointer"], e["at"]) for e in answer.json()["errors"]] == [(pointer, at)]


def test_a_condition_of_earlier_releases_is_refused_with_the_new_name(api):
    field = {"key": "a", "label": "A", "show_when": {"field": "a", "values": ["x"]}}
    document = {"key": "old-logic", "kind": "web", "title": "Old", "fields": [field]}
    answer = api.put("forms/old-logic/draft", json=document)
    assert answer.status_code == 422
    assert "Did you mean shown_when" in answer.json()["errors"][0]["detail"]
