"""Administrators' own layouts: drafted, previewed, published, gone back from; forms follow."""

import pytest

from anchorline.store.schema_documents import DocumentVersionRow
from tests.states import ANY_STATE

KEY = "sample-layout"
NOTE = {"extra": "delivery_note", "label": {"en": "Delivery note"}, "after": "street"}


@pytest.fixture
def own(api):
    """Puts drafts of an own layout; it is gone again afterwards."""

    def put(etag=None, key=KEY, **document):
        document = {"key": key, "title": "Sample", "countries": ["LU"], **document}
        headers = {"If-Match": etag} if etag else {}
        return api.put(f"layouts/own/{key}/draft", json=document, headers=headers)

    yield put
    for kept in api.get("layouts/own").json()["own_layouts"]:
        api.delete(f"layouts/own/{kept['key']}")


def publish(api, key=KEY):
    answer = api.post(f"layouts/own/{key}/publish", headers=ANY_STATE)
    assert answer.status_code == 200, answer.text
    return answer.json()


def labels(api, country="LU", **query):
    layout = api.get(f"layouts/{country}", params=query).json()
    return {asked["component"]: asked["label"] for asked in layout["components"]}


def test_a_draft_holds_nowhere_until_it_is_published_and_no_longer_when_gone_back_from(api, own):
    made = own(ask=[{"component": "town", "label": {"en": "Village"}}])
    assert made.status_code == 200
    assert labels(api)["town"] == "Town"
    first = publish(api)["published_version"]
    assert labels(api)["town"] == "Village"
    changed = own(made.headers["ETag"], ask=[{"component": "town", "label": {"en": "Hamlet"}}])
    assert changed.json()["summary"]["draft_differs"] is True
    assert labels(api)["town"] == "Village"
    assert publish(api)["published_version"] == first + 1
    assert labels(api)["town"] == "Hamlet"
    assert (
        api.post(
            f"layouts/own/{KEY}/restore", json={"version": first}, headers=ANY_STATE
        ).status_code
        == 200
    )
    assert labels(api)["town"] == "Village"
    versions = api.get(f"layouts/own/{KEY}/versions").json()["versions"]
    assert [(v["number"], v["in_force"]) for v in versions][:2] == [
        (first + 1, False),
        (first, True),
    ]
    assert (
        api.post(f"layouts/own/{KEY}/restore", json={"version": 0}, headers=ANY_STATE).status_code
        == 200
    )
    assert labels(api)["town"] == "Town"


def test_deleting_one_lets_its_base_hold(api, own):
    own(ask=[{"component": "town", "label": {"en": "Village"}}])
    publish(api)
    assert api.delete(f"layouts/own/{KEY}").status_code == 204
    assert labels(api)["town"] == "Town"
    assert api.delete(f"layouts/own/{KEY}").status_code == 404


def test_which_layouts_speak_is_said_wherever_a_layout_is_answered(api, own):
    own(ask=[{"component": "town", "label": {"en": "Village"}}])
    own(key="one-form", forms=["instrument"], ask=[{"component": "postcode", "first": True}])
    publish(api)
    publish(api, "one-form")
    layout = api.get("layouts/LU", params={"form": "instrument"}).json()
    assert [(step["key"], step["of_form"]) for step in layout["own"]] == [
        ("one-form", True),
        (KEY, False),
    ]
    assert next(iter(labels(api, form="instrument"))) == "postcode"
    assert labels(api, form="instrument")["town"] == "Village"
    assert next(iter(labels(api, form="venue"))) != "postcode"
    [listed] = [e for e in api.get("layouts").json()["layouts"] if e["country_code"] == "LU"]
    assert sorted(listed["own"]) == ["one-form", KEY]
    assert api.get("layouts/LU", params={"form": "instrumnt"}).status_code == 404


def test_a_form_asks_for_what_a_layout_adds_keeps_it_and_writes_it(api, own):
    own(ask=[NOTE], lines=[{"add": "delivery_note", "after": "organisation"}])
    version = publish(api)["published_version"]
    slot = next(
        s for s in api.get("forms/instrument").json()["document"]["slots"] if s["key"] == "home"
    )
    assert {"home_delivery_note", "home_street"} <= {part["key"] for part in slot["parts"]}
    values = {
        "make": "Kestrel", "owner": "Ada", "home_street": "Rue A", "home_number": "3",
        "home_town": "Bourscheid", "home_postcode": "9140", "home_organisation": "Vale",
        "home_delivery_note": "Ring twice",
    }  # fmt: skip
    body = {"values": values, "slots": {"home": {"country_code": "LU"}}}
    kept = api.post("forms/instrument/records", json=body)
    assert kept.status_code == 201, kept.text
    address = kept.json()["slots"]["home"]
    assert address["components"]["delivery_note"] == "Ring twice"
    assert address["lines"][:2] == ["Vale", "Ring twice"]
    assert address["layout"] == f"{KEY}@{version}"
    # Without the layout the note is kept, and no longer written.
    api.post(f"layouts/own/{KEY}/restore", json={"version": 0}, headers=ANY_STATE)
    read = api.get(f"records/{kept.json()['id']}").json()
    assert "slots" in read, read
    assert read["slots"]["home"]["components"]["delivery_note"] == "Ring twice"
    assert "Ring twice" not in read["slots"]["home"]["lines"]
    assert read["values"]["home_delivery_note"] == "Ring twice"
    refused = api.post("forms/instrument/records", json=body).json()["errors"]
    assert [e["pointer"] for e in refused] == ["/values/home_delivery_note"]


def test_what_a_layout_requires_is_required_of_the_form(api, own):
    own(ask=[{**NOTE, "required": True}])
    publish(api)
    values = {
        "make": "Kestrel", "owner": "Ada", "home_street": "Rue A", "home_town": "Bourscheid",
        "home_postcode": "9140",
    }  # fmt: skip
    body = {"values": values, "slots": {"home": {"country_code": "LU"}}}
    errors = api.post("forms/instrument/records", json=body).json()["errors"]
    assert errors == [
        {
            "pointer": "/values/home_delivery_note",
            "detail": "Luxembourg needs a Delivery note here.",
            "kind": "needed_in",
            "given": {"country": "Luxembourg", "label": "Delivery note"},
        }
    ]


def test_lines_and_check_follow_and_know_the_extra(api, own):
    own(ask=[{**NOTE, "required": True}], lines=[{"add": "delivery_note", "first": True}])
    publish(api)
    components = {"delivery_note": "Ring", "street": "Rue A"}
    assert api.post("layouts/LU/lines", json={"components": components}).json()["lines"] == [
        "Ring",
        "Rue A",
    ]
    problems = api.post("layouts/LU/check", json={"components": {"street": "A"}}).json()["problems"]
    assert "delivery_note" in [p["component"] for p in problems]
    refused = api.post("layouts/DE/lines", json={"components": components})
    assert refused.status_code == 422
    body = {"addresses": [{"country_code": "LU", **components}]}
    assert api.post("layouts/lines", json=body).json()["lines"] == [["Ring", "Rue A"]]


@pytest.mark.parametrize(
    ("document", "pointer", "said"),
    [
        ({"ask": [{"component": "town", "hidden": True}]}, "/ask/0/hidden", "requires town"),
        (
            {"ask": [{"component": "district", "required": True}], "forms": ["supplier"]},
            "/ask/0/required",
            "The form supplier has no field for district in its address “Office”",
        ),
        (
            {"forms": ["instrumnt"], "ask": [{"component": "town", "label": {"en": "T"}}]},
            "/forms/0",
            "Did you mean instrument",
        ),
        ({}, "/ask", "changes nothing yet"),
    ],
)
def test_what_cannot_work_is_kept_as_a_draft_and_not_published(api, own, document, pointer, said):
    made = own(**{"countries": ["GB"], **document})
    assert made.status_code == 200
    assert [p["pointer"] for p in made.json()["problems"]] == [pointer]
    refused = api.post(f"layouts/own/{KEY}/publish", headers=ANY_STATE)
    assert refused.status_code == 422
    assert said in refused.json()["errors"][0]["detail"]


def test_a_line_that_cannot_be_read_is_refused_with_its_position(api, own):
    refused = own(lines=[{"add": "number strete"}])
    assert refused.status_code == 422
    [error] = refused.json()["errors"]
    assert error["pointer"] == "/lines/0/add"
    assert "There is no component 'strete'. Did you mean street?" in error["detail"]
    assert "character 8" in error["detail"]


def test_a_change_needs_the_drafts_etag_and_a_stale_one_is_refused(api, own):
    first = own()
    assert own().status_code == 428
    assert own(first.headers["ETag"], title="Other").status_code == 200
    assert own(first.headers["ETag"], title="Mine").status_code == 412
    assert api.get(f"layouts/own/{KEY}/draft").json()["document"]["title"] == "Other"


def test_a_preview_shows_both_sides_and_keeps_nothing(api, own):
    document = {
        "key": KEY, "title": "T", "countries": ["LU", "FR"],
        "ask": [{"component": "district", "hidden": True}, NOTE],
        "lines": [{"add": "delivery_note", "first": True}, {"drop": "place"}, {"add": "stret"}],
    }  # fmt: skip
    body = {
        "document": document,
        "country_code": "FR",
        "language": "fr",
        "components": {"delivery_note": "Sonner", "street": "Rue A"},
    }
    seen = api.post("layouts/own/preview", json=body).json()
    assert seen["written"] == ["Sonner", "Rue A"]
    assert seen["written_base"] == ["Rue A"]
    assert [h["component"] for h in seen["hidden"]] == ["district"]
    assert "district" in [a["component"] for a in seen["base"]]
    assert {a["component"]: a["change"] for a in seen["components"]}["delivery_note"] == 1
    lines = seen["lines"][""]
    assert lines[0] == {
        "line": "delivery_note", "was": None, "change": 0, "dropped": False
    }  # fmt: skip
    assert [line["line"] for line in lines if line["dropped"]] == ["place"]
    assert [p["pointer"] for p in seen["problems"]] == ["/lines/2/add"]
    assert api.get(f"layouts/own/{KEY}/draft").status_code == 404
    elsewhere = api.post("layouts/own/preview", json={**body, "country_code": "DE"})
    assert elsewhere.json()["errors"][0]["detail"] == "This own layout is not for DE."


def test_samples_are_of_real_records_and_of_reference_data(api):
    samples = api.get("layouts/FR/samples", params={"form": "tuning-visit"}).json()["samples"]
    of_records = [s for s in samples if s["record"]]
    assert of_records
    assert {s["form"] for s in of_records} == {"tuning-visit"}
    assert any(s["record"] is None for s in samples)
    assert {s["components"]["country_code"] for s in samples} == {"FR"}
    assert api.get("layouts/AQ/samples").json()["samples"] == []


def test_a_browser_key_sees_layouts_of_its_own_form_only(stack):
    with stack.http("browser_key") as http:
        own_form = http.get("/api/v1/layouts/FR", params={"form": "tuning-visit"})
        other = http.get("/api/v1/layouts/FR", params={"form": "instrument"})
    assert own_form.status_code == 200
    assert other.status_code == 403


def test_what_a_newer_shipped_layout_says_otherwise_is_shown_until_it_is_published_again(
    api, own, stack_database
):
    own(ask=[{"component": "town", "label": {"en": "Village"}}])
    version = publish(api)["published_version"]
    # As an older release would have kept it: then the shipped label was another.

    def work(session):
        kept = session.get(DocumentVersionRow, ("own_layout", KEY, version))
        kept.base = {"LU": {"ask": {"town": {"labels": {"en": "Place"}, "required": True}},
                              "lines": {}}}  # fmt: skip

    stack_database.run(work)
    [listed] = api.get("layouts/own").json()["own_layouts"]
    assert listed["conflicts"] == 1
    [conflict] = api.get(f"layouts/own/{KEY}/draft").json()["conflicts"]
    assert (conflict["was"], conflict["now"]) == ("Place", "Town")
    assert conflict["detail"] == "The shipped layout of LU calls town “Town” now (en)."
    assert labels(api)["town"] == "Village"
    assert publish(api)["published_version"] == version + 1
    assert api.get(f"layouts/own/{KEY}/draft").json()["conflicts"] == []
