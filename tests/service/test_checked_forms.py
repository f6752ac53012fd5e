"""Forms that were read and checked once are kept for whoever opens them next."""

import json

import pytest

from anchorline.application.checked_forms import CheckedForms
from anchorline.core.errors import DocumentError
from tests.states import ANY_STATE

FORM = {"key": "f", "kind": "web", "title": "F", "fields": [{"key": "name", "label": "Name"}]}


def test_a_document_that_says_the_same_is_read_once(layouts):
    forms = CheckedForms(layouts)
    assert forms.form({**FORM}) is forms.form({**FORM})
    assert forms.form({**FORM, "title": "G"}).title == "G"


def test_what_was_not_asked_for_lately_makes_room(layouts):
    forms = CheckedForms(layouts, most_bytes=2_000)
    first = forms.form(FORM)
    for number in range(20):
        forms.form({**FORM, "title": str(number)})
    assert forms.form(FORM) is not first


def test_what_is_larger_than_all_the_room_is_read_each_time(layouts):
    forms = CheckedForms(layouts, most_bytes=10)
    assert forms.form(FORM) is not forms.form(FORM)
    assert forms.form(FORM) == forms.form(FORM)


def test_a_document_that_is_none_is_not_kept(layouts):
    forms = CheckedForms(layouts)
    for _ in range(2):
        with pytest.raises(DocumentError):
            forms.form({**FORM, "slots": [{"key": "s", "label": "S", "countries": ["ZZ"]}]})


def test_what_would_be_refused_today_does_not_keep_people_from_the_rest(layouts):
    fields = [{"key": "a", "label": "A", "shown_when": "there_is_none"}, {"key": "b", "label": "B"}]
    form = CheckedForms(layouts).form({**FORM, "fields": fields})
    assert [field.key for field in form.all_fields()] == ["a", "b"]


def test_an_answer_is_that_of_its_document_its_version_and_the_layouts_of_the_form(layouts):
    forms = CheckedForms(layouts)
    made = []

    def answer(digest, version, on_form):
        def make():
            made.append(1)
            return str(len(made)).encode()

        return forms.answer(digest, version, on_form, make)

    other = object()
    asked = [
        ("a", 1, layouts),
        ("a", 1, layouts),
        ("a", 2, layouts),
        ("a", 1, other),
        ("b", 1, layouts),
    ]
    assert [answer(*one) for one in asked] == [b"1", b"1", b"2", b"3", b"4"]


def test_what_is_known_by_its_digest_is_not_loaded_again(layouts):
    forms, loaded = CheckedForms(layouts), []

    def load():
        loaded.append(1)
        return FORM

    assert forms.known("d", load) is forms.known("d", load)
    assert (forms.known("d", load).document, len(loaded)) == (FORM, 1)
    assert forms.known("e", load).form == forms.form(FORM)


def test_a_form_that_was_deleted_and_made_again_is_not_taken_for_the_one_before(stack):
    with stack.http() as http:
        for title in ("First", "Second", "First"):
            http.put(
                "/api/v1/forms/made-again/draft", json={**FORM, "key": "made-again", "title": title}
            )
            assert (
                http.post("/api/v1/forms/made-again/publish", headers=ANY_STATE).json()[
                    "published_version"
                ]
                == 1
            )
            titles = {
                http.get("/api/v1/forms/made-again").json()["document"]["title"] for _ in range(6)
            }
            assert titles == {title}
            assert http.delete("/api/v1/forms/made-again").status_code == 204
            assert http.get("/api/v1/forms/made-again").status_code == 404


def test_a_form_of_hundreds_of_conditions_is_the_same_however_often_it_is_opened(stack):
    fields = [{"key": "f0", "label": "F"}]
    for n in range(1, 480):
        condition = f'OR(f{n - 1} = "x"; LEN(f{n - 1}) > 3; NOT(ISBLANK(f{max(0, n - 2)})))'
        fields.append({"key": f"f{n}", "label": f"F {n}", "shown_when": condition})
    document = {**FORM, "key": "many-conditions", "fields": fields}
    with stack.http() as http:
        put = http.put("/api/v1/forms/many-conditions/draft", json=document)
        assert (
            http.post("/api/v1/forms/many-conditions/publish", headers=ANY_STATE).status_code == 200
        ), put.text
        reads = {http.get("/api/v1/forms/many-conditions").content for _ in range(8)}
        assert len(reads) == 1  # whichever process answers, kept or made anew
        assert len(json.loads(reads.pop())["logic"]["shown"]) == 479
        values = {f"f{n}": "abcd" for n in range(480)}
        sent = http.post("/api/v1/forms/many-conditions/records", json={"values": values})
        assert sent.status_code == 201
        assert sent.json()["values"] == values
