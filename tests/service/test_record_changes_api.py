"""Records that are changed: what they were is kept; who changes what somebody else changed is told."""

import pytest

from anchorline.client import Client, FormDocument, SlotInputSchema
from anchorline.client.errors import ProblemError
from anchorline.store.schema_documents import DocumentVersionRow

FORM = {
    "key": "changing", "kind": "record", "title": "Changing",
    "fields": [
        {"key": "name", "label": "Name", "required": True},
        {"key": "phone", "label": "Phone", "type": "phone", "phone": {"country": "GB"}},
        {"key": "where", "label": "Where"},
        {"slot": "home"},
    ],
    "slots": [{
        "key": "home", "label": "Home", "countries": ["GB", "DE"], "map": {"place": "below"},
        "parts": [{"key": f"home_{c}", "component": c} for c in ("number", "street", "town", "postcode")],
        "mapping": [
            *({"components": [c], "into": f"home_{c}"} for c in ("number", "street", "town", "postcode")),
            {"facts": ["latitude", "longitude"], "join": ", ", "into": "where"},
        ],
    }],
}  # fmt: skip
PICKED = {"home": {"country_code": "GB", "address_id": "demo:GB0000012", "typed": "16 abb"}}


@pytest.fixture(scope="module")
def form(stack):
    with Client(stack.url, stack.access["server_key"]) as client:
        client.forms.put_draft(FormDocument.model_validate(FORM))
        client.forms.publish("changing")
    return FORM


@pytest.fixture
def made(api, form):
    values = api.post(
        "forms/changing/slots/home/fill", json={"address_id": "demo:GB0000012"}
    ).json()["values"]
    body = {"values": {"name": "Ada", "phone": "020 7946 0123", **values}, "slots": PICKED}
    answer = api.post("forms/changing/records", json=body)
    assert answer.status_code == 201, answer.text
    return body, answer.json()


def put(api, record, body, revision):
    return api.put(f"records/{record['id']}", json=body, headers={"If-Match": f'"{revision}"'})


def test_facts_go_where_the_mapping_says(made):
    assert made[1]["values"]["where"] == "51.535459, -2.880898"


def test_a_phone_is_kept_in_one_way_with_what_was_typed(made):
    assert made[1]["values"]["phone"] == "+442079460123"
    assert made[1]["texts"]["phone"] == "+44 20 7946 0123"
    assert made[1]["typed"] == {"phone": "020 7946 0123"}


def test_a_change_keeps_what_the_record_was(api, made):
    body, record = made
    body["values"] |= {"name": "Ada Brindle", "home_number": "16b"}
    changed = put(api, record, body, 1)
    assert changed.status_code == 200
    assert changed.headers["ETag"] == '"2"'
    now = changed.json()
    assert (now["revision"], now["changed_by"]) == (2, record["made_by"])
    assert now["slots"]["home"]["changed"] == ["home_number"]
    states = api.get(f"records/{record['id']}/history").json()["states"]
    assert [(s["number"], s["values"]["name"]) for s in states] == [(2, "Ada Brindle"), (1, "Ada")]
    assert [s["slots"]["home"]["lines"][0] for s in states] == ["16b Abbey Mews", "16 Abbey Mews"]
    assert [s["slots"]["home"]["edition"] for s in states] == ["demo@1", "demo@1"]
    assert api.get("records", params={"search": "brindle 16b"}).json()["total"] >= 1


def test_what_was_not_touched_stays_as_it_was_captured(api, made):
    body, record = made
    body["values"]["name"] = "Somebody else"
    body["slots"]["home"]["typed"] = "other"
    assert put(api, record, body, 1).json()["slots"]["home"] == record["slots"]["home"]


def test_who_changes_an_older_state_is_told(api, made):
    body, record = made
    assert put(api, record, body, 1).status_code == 200
    stale = put(api, record, body, 1)
    assert stale.status_code == 412
    assert "changed this record in the meantime" in stale.json()["detail"]
    bare = api.put(f"records/{record['id']}", json=body)
    assert bare.status_code == 428
    assert len(api.get(f"records/{record['id']}/history").json()["states"]) == 2


def test_a_change_that_is_refused_changes_nothing(api, made):
    body, record = made
    del body["values"]["name"]
    refused = put(api, record, body, 1)
    assert refused.status_code == 422
    assert refused.json()["errors"][0]["pointer"] == "/values/name"
    assert api.get(f"records/{record['id']}").json() == record


def test_values_of_fields_that_the_form_lost_stay(api, client, form, made):
    body, record = made
    fields = [field for field in FORM["fields"] if field.get("key") != "where"]
    slots = [{**FORM["slots"][0], "mapping": FORM["slots"][0]["mapping"][:-1]}]
    _, etag = client.forms.draft("changing")[0], client.forms.draft("changing")[1]
    client.forms.put_draft(
        FormDocument.model_validate({**FORM, "fields": fields, "slots": slots}), etag=etag
    )
    client.forms.publish("changing")
    try:
        del body["values"]["where"]
        now = put(api, record, body, 1).json()
        assert now["values"]["where"] == "51.535459, -2.880898"
        assert now["form_version"] == record["form_version"] + 1
    finally:
        client.forms.put_draft(
            FormDocument.model_validate(FORM), etag=client.forms.draft("changing")[1]
        )
        client.forms.publish("changing")


def test_a_moved_pin_is_kept_with_its_distance(api, made):
    body, record = made
    pin = {"latitude": 51.5356, "longitude": -2.8809, "source": "pin"}
    body["slots"] = {"home": {**PICKED["home"], "position": pin}}
    kept = put(api, record, body, 1).json()["slots"]["home"]["position"]
    assert kept == {**pin, "accuracy_m": None, "distance_m": 16}


def test_where_the_person_was_is_not_kept_where_the_form_does_not_say_so(api, made):
    body, record = made
    device = {"latitude": 51.5356, "longitude": -2.8809, "source": "device", "accuracy_m": 9}
    body["slots"] = {"home": {**PICKED["home"], "position": device}}
    assert put(api, record, body, 1).json()["slots"]["home"]["position"] is None


def test_the_client_changes_a_record_and_reads_its_history(client, made):
    body, record = made
    values = {**body["values"], "name": "By client"}
    slots = {"home": SlotInputSchema(**PICKED["home"])}
    with pytest.raises(ProblemError):
        client.change_record(record["id"], values, slots, revision=7)
    assert client.change_record(record["id"], values, slots, revision=1).revision == 2
    assert [state.number for state in client.record_history(record["id"]).states] == [2, 1]


def test_where_a_person_was_is_not_where_the_address_is(api, stack):
    """Formulas take the place of the address, or of a pin that was moved: never the device's."""
    form = {**FORM, "key": "device", "fields": [*FORM["fields"], {
        "key": "north", "label": "North", "type": "formula", "formula": "LATITUDE(home)"}],
        "slots": [{**FORM["slots"][0], "location": True, "keeps_position": True}]}  # fmt: skip
    with Client(stack.url, stack.access["server_key"]) as client:
        client.forms.put_draft(FormDocument.model_validate(form))
        client.forms.publish("device")
    place = {"latitude": 1.5, "longitude": 2.5}
    fill = {"address_id": "demo:GB0000012"}
    values = api.post("forms/device/slots/home/fill", json=fill).json()["values"]

    def kept(source):
        slots = {"home": {**PICKED["home"], "position": {**place, "source": source}}}
        body = {"values": {"name": "x", **values}, "slots": slots}
        return api.post("forms/device/records", json=body).json()

    device, pin = kept("device"), kept("pin")
    assert (device["values"]["north"], device["slots"]["home"]["position"]["latitude"]) == (
        51.535459,
        1.5,
    )
    assert pin["values"]["north"] == 1.5


def test_components_of_a_country_that_there_is_not_fill_what_they_say(api, form):
    body = {"components": {"country_code": "zz", "street": "Abbey Mews"}}
    filled = api.post("forms/changing/slots/home/fill", json=body)
    assert (filled.status_code, filled.json()["values"]["home_street"]) == (200, "Abbey Mews")


def test_what_was_typed_of_a_phone_stays_where_its_number_does(api, made):
    body, record = made
    body["values"]["phone"] = "+44 20 7946 0123"
    assert put(api, record, body, 1).json()["typed"] == {"phone": "020 7946 0123"}
    body["values"]["phone"] = "020 7946 0124"
    assert put(api, record, body, 2).json()["typed"] == {"phone": "020 7946 0124"}


def test_an_address_of_a_slot_that_the_form_lost_stays(api, client, form, made):
    body, record = made
    fields = [field for field in FORM["fields"] if "slot" not in field]
    bare = FormDocument.model_validate({**FORM, "fields": fields, "slots": []})
    client.forms.put_draft(bare, etag=client.forms.draft("changing")[1])
    client.forms.publish("changing")
    try:
        plain = {"values": {"name": "Ada", "where": body["values"]["where"]}}
        now = put(api, record, plain, 1).json()
        assert now["slots"]["home"]["lines"] == record["slots"]["home"]["lines"]
        assert now["values"]["home_street"] == "Abbey Mews"
    finally:
        client.forms.put_draft(
            FormDocument.model_validate(FORM), etag=client.forms.draft("changing")[1]
        )
        client.forms.publish("changing")


def test_a_record_whose_version_would_be_refused_today_is_read_with_its_history(
    api, made, stack_database
):
    """As where a release has become stricter: what was kept can always be read."""
    body, record = made
    changed = put(api, record, {**body, "values": {**body["values"], "name": "Grace"}}, 1)
    assert changed.status_code == 200, changed.text
    place = ("form", "changing", record["form_version"])

    def keep(document):
        def work(session):
            session.get(DocumentVersionRow, place).document = document

        stack_database.run(work)

    as_it_was = stack_database.run(lambda s: s.get(DocumentVersionRow, place).document)
    broken = {**as_it_was, "fields": [dict(one) for one in as_it_was["fields"]]}
    broken["fields"][0] |= {"formula": "no_such_field + 1", "left_out_since": "a release"}
    keep(broken)
    try:
        read = api.get(f"records/{record['id']}")
        assert (read.status_code, read.json()["values"]["name"]) == (200, "Grace")
        history = api.get(f"records/{record['id']}/history").json()["states"]
        assert [one["values"]["name"] for one in history] == ["Grace", "Ada"]
        assert history[1]["slots"]["home"]["address_id"] == "demo:GB0000012"
        shown = api.get(f"forms/changing/versions/{place[2]}").json()
        assert shown["document"]["fields"][0]["formula"] == "no_such_field + 1"
        assert shown["document"]["fields"][0]["left_out_since"] == "a release"
    finally:
        keep(as_it_was)
