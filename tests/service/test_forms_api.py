import copy
import threading

import pytest

from anchorline.demo.scenario import form_document
from tests.states import ANY_STATE


@pytest.fixture
def document():
    return form_document("venue").model_dump(exclude_none=True) | {"key": "hall", "title": "Hall"}


def put(api, document, etag=None, key=None):
    headers = {"If-Match": etag} if etag else {}
    return api.put(f"forms/{key or document['key']}/draft", json=document, headers=headers)


def test_a_form_is_drafted_published_and_read(api, document):
    document["key"] = "hall-a"
    made = put(api, document)
    assert made.status_code == 200
    assert made.json()["summary"]["published_version"] is None
    assert api.get("forms/hall-a").status_code == 404
    assert api.get("forms/hall-a", params={"draft": "true"}).json()["version"] is None
    assert api.post("forms/hall-a/publish", headers=ANY_STATE).json()["published_version"] == 1
    assert api.get("forms/hall-a").json()["document"]["title"] == "Hall"
    assert "hall-a" in [form["key"] for form in api.get("forms").json()["forms"]]


def test_a_change_needs_the_drafts_etag_and_a_stale_one_is_refused(api, document):
    document["key"] = "hall-b"
    first = put(api, document)
    assert put(api, document).status_code == 428
    changed = copy.deepcopy(document) | {"title": "Changed"}
    second = put(api, changed, first.headers["ETag"])
    assert second.headers["ETag"] != first.headers["ETag"]
    stale = put(api, document | {"title": "Mine"}, first.headers["ETag"])
    assert stale.status_code == 412
    assert stale.headers["ETag"] == second.headers["ETag"]
    assert api.get("forms/hall-b/draft").json()["document"]["title"] == "Changed"


def test_a_draft_that_is_published_unchanged_does_not_differ(api, document):
    document["key"] = "hall-c"
    etag = put(api, document).headers["ETag"]
    api.post("forms/hall-c/publish", headers=ANY_STATE)
    same = put(api, document, etag).json()["summary"]
    assert same["draft_differs"] is False


def test_a_misspelt_name_in_a_field_is_one_problem_at_its_place(api, document):
    document["fields"] = [{"key": "note", "lable": "Note"}, {"slot": "venue", "x": 1}]
    errors = put(api, document, key="hall").json()["errors"]
    assert [e["pointer"] for e in errors] == ["/fields/0/lable", "/fields/1/x"]
    assert "'lable' is not known here. Did you mean" in errors[0]["detail"]
    assert " label " in errors[0]["detail"]


@pytest.mark.parametrize(
    ("change", "pointer", "detail"),
    [
        (lambda d: d | {"titel": "x"}, "/titel", "Did you mean title"),
        (lambda d: d | {"title": 5}, "/title", "valid string"),
        (lambda d: d | {"kind": "paper"}, "/kind", "'record' or 'web'"),
        (lambda d: d["slots"][0]["mapping"][0].update(components=["strete"]),
         "/slots/0/mapping/0/components/0", "Did you mean street"),
        (lambda d: d["slots"][0]["mapping"][0].update(into="venue_strete"),
         "/slots/0/mapping/0/into", "Did you mean venue_street"),
        (lambda d: d["slots"][0].update(countries=["QQ"], country="QQ"),
         "/slots/0/countries/0", "no layout for country 'QQ'"),
        (lambda d: d | {"key": "other"}, "/key", "is 'hall' in the address"),
    ],
)  # fmt: skip
def test_a_faulty_document_is_refused_at_its_place(api, document, change, pointer, detail):
    changed = change(document) or document
    answer = put(api, changed, key="hall")
    assert answer.status_code == 422, answer.text
    assert any(
        e["pointer"] == pointer and detail in e["detail"] for e in answer.json()["errors"]
    ), answer.text
    assert api.get("forms/hall/draft").status_code == 404


def test_filling_clears_what_the_address_lacks_and_traces_every_step(api):
    filled = api.post(
        "forms/tuning-visit/slots/piano/fill",
        json={"address_id": "demo:GB0000012", "values": {"piano_unit": "Flat 9"}},
    ).json()
    assert filled["values"]["piano_street"] == "Abbey Mews"
    assert filled["values"]["piano_unit"] == ""
    assert "piano_unit" in filled["cleared"]
    assert filled["trace"][0] == {
        "kind": "cleared", "field": "piano_unit", "components": [], "rule": None, "text": "",
        "detail": "cleared what stood there: Flat 9",
    }  # fmt: skip
    assert len(filled["trace"]) == 12


def test_filling_from_components_shortens_and_warns(api):
    street = " ".join(["Burgemeester van Rozenhofwegenlaan"] * 2)
    firm = "Harrow Bell Works and Sons of Marl"
    components = {"number": "12", "street": street, "town": "Ü", "organisation": firm}
    filled = api.post("forms/supplier/slots/office/fill", json={"components": components}).json()
    lines = [filled["values"][f"line_{n}"] for n in (1, 2, 3)]
    assert all(0 < len(line) <= 35 for line in lines)
    assert lines[0].startswith("HARROW BELL WORKS, 12 BURG"), lines
    assert lines[2].endswith("ROZENHOFWEGENLAAN, U"), "the town is kept before the firm"
    assert any("no room for " in one and "(organisation)" in one for one in filled["warnings"])


@pytest.mark.parametrize(
    ("body", "pointer", "detail"),
    [
        ({}, "", "Give one of address_id, group_id and components"),
        ({"address_id": "a", "components": {}}, "", "Give one of address_id, group_id"),
        ({"group_id": "demo:~0"}, "/group_id", "no group"),
        ({"typed": "12 Mill"}, "/country_code", "Say of which country"),
        ({"typed": "12 Mill", "country_code": "AQ"}, "/country_code", "no country of this slot"),
        ({"address_id": "demo:none"}, "/address_id", "no address"),
        ({"components": {"stret": "x"}}, "/components/stret", "Did you mean street"),
        ({"components": {"street": 5}}, "/components/street", "valid string"),
        ({"components": {"street": "a\u0000b"}}, "/components/street", "control characters"),
        ({"adress_id": "a"}, "/adress_id", "Did you mean address_id"),
    ],
)
def test_a_faulty_fill_is_refused_at_its_place(api, body, pointer, detail):
    answer = api.post("forms/tuning-visit/slots/piano/fill", json=body)
    assert answer.status_code == 422, answer.text
    assert any(
        e["pointer"] == pointer and detail in e["detail"] for e in answer.json()["errors"]
    ), answer.text


def test_a_group_is_filled_as_far_as_its_addresses_agree(api):
    rows = api.get("suggest", params={"q": "kiln crescent", "country": "GB"}).json()
    street = next(row for row in rows["suggestions"] if row["kind"] == "street")
    body = {"group_id": street["id"], "typed": "997 kiln"}
    values = api.post("forms/tuning-visit/slots/piano/fill", json=body).json()["values"]
    assert (values["piano_street"], values["piano_number"]) == ("Kiln Crescent", "997")
    assert values["piano_town"] == "Brackwater"
    inside = api.get("suggest", params={"q": "", "within": street["id"], "limit": 50}).json()
    postcodes = {
        api.get(f"addresses/{row['id']}").json()["components"]["postcode"]
        for row in inside["suggestions"]
        if row["count"] == 1
    }
    assert (values["piano_postcode"] != "") == (len(postcodes) == 1)


def test_a_typed_text_is_filled_into_the_fields_of_its_country(api):
    body = {"typed": "Rue Verte 3, 00120 Vaubrac", "country_code": "FR"}
    values = api.post("forms/tuning-visit/slots/piano/fill", json=body).json()["values"]
    assert {key: text for key, text in values.items() if text} == {
        "piano_number": "3", "piano_street": "Rue Verte", "piano_postcode": "00120",
        "piano_town": "Vaubrac",
    }  # fmt: skip


def test_an_unknown_slot_names_those_that_there_are(api):
    answer = api.post("forms/tuning-visit/slots/pian/fill", json={"address_id": "x"})
    assert answer.status_code == 404
    assert "it has: piano, destination, billing" in answer.json()["detail"]


def test_what_is_kept_while_a_form_is_published_is_not_published_unchecked(stack, api):
    good = {"key": "raced", "kind": "web", "title": "Good", "fields": [{"key": "a", "label": "A"}]}
    bad = {
        **good,
        "title": "Bad",
        "fields": [{"key": "a", "label": "A", "shown_when": "there_is_none"}],
    }
    assert api.put("forms/raced/draft", json=good).status_code == 200
    for number in range(12):
        tag = api.get("forms/raced/draft").headers["ETag"]
        changed = {**good, "title": f"Good {number}"}
        tag = api.put("forms/raced/draft", json=changed, headers={"If-Match": tag}).headers["ETag"]

        def keep(tag=tag):
            with stack.http() as http:
                path = "/api/v1/forms/raced/draft?unfinished=true"
                http.put(path, json=bad, headers={"If-Match": tag}).raise_for_status()

        keeping = threading.Thread(target=keep)
        keeping.start()
        published = api.post("forms/raced/publish", headers=ANY_STATE)
        keeping.join()
        assert published.status_code in (200, 412, 422)
        if published.status_code == 200:
            newest = published.json()["published_version"]
            document = api.get(f"forms/raced/versions/{newest}").json()["document"]
            assert document["title"] != "Bad"
