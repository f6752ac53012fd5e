import pytest

from tests.states import ANY_STATE

FORM = "forms/tuning-visit/records"


@pytest.fixture
def filled(api):
    values = api.post(
        "forms/tuning-visit/slots/piano/fill", json={"address_id": "demo:GB0000012"}
    ).json()["values"]
    return {
        "values": {
            "contact": "Ada Brindle", "phone": "+44 20 555 0123", "visit": "tuning",
            **{key: text for key, text in values.items() if text},
        },
        "slots": {
            "piano": {"country_code": "GB", "address_id": "demo:GB0000012", "typed": "abbey"}
        },
    }  # fmt: skip


def test_a_submitted_form_becomes_a_record_that_can_be_read_and_found(api, filled):
    filled["values"]["contact"] = "Zenobia Quill"
    answer = api.post(FORM, json=filled)
    assert answer.status_code == 201
    record = answer.json()
    assert answer.headers["Location"] == f"/api/v1/records/{record['id']}"
    kept = api.get(f"records/{record['id']}").json()
    assert kept == record
    address = kept["slots"]["piano"]
    assert address["lines"] == ["16 Abbey Mews", "BRACKWATER", "QV1 1AA"]
    assert (address["edition"], address["typed"], address["changed"]) == ("demo@1", "abbey", [])
    assert kept["label"] == "Zenobia Quill · 16 Abbey Mews, Brackwater, QV1 1AA"
    found = api.get("records", params={"search": "zenobia QV1", "form": "tuning-visit"}).json()
    assert [r["id"] for r in found["records"]] == [record["id"]]
    assert api.get(FORM, params={"limit": 1}).json()["records"][0]["id"] == record["id"]


def test_what_was_changed_by_hand_is_named(api, filled):
    filled["values"]["piano_number"] = "16b"
    address = api.post(FORM, json=filled).json()["slots"]["piano"]
    assert address["changed"] == ["piano_number"]
    assert address["components"]["number"] == "16b"


def test_formulas_and_markup_are_kept_as_given(api, filled):
    for text in ("=HYPERLINK(1)", "<img src=x onerror=alert(1)>", "'; DROP TABLE record; --"):
        filled["values"]["note"] = text
        assert api.post(FORM, json=filled).json()["values"]["note"] == text


def test_the_same_submit_twice_with_one_key_makes_one_record(api, filled):
    headers = {"Idempotency-Key": "once-and-only-once"}
    first = api.post(FORM, json=filled, headers=headers)
    again = api.post(FORM, json=filled, headers=headers)
    assert (first.status_code, again.status_code) == (201, 201)
    assert first.json() == again.json()
    filled["values"]["note"] = "another"
    other = api.post(FORM, json=filled, headers=headers)
    assert other.status_code == 409
    assert "take a new one" in other.json()["detail"]


def test_a_submit_that_fails_names_every_problem_and_keeps_nothing(api, filled):
    before = api.get(FORM).json()["total"]
    filled["values"] |= {"phone": "1", "visit": "tuening", "piano_postcode": "XYZ", "nme": "x"}
    filled["slots"]["pian"] = {}
    problem = api.post(FORM, json=filled).json()
    places = {e["pointer"]: e["detail"] for e in problem["errors"]}
    assert set(places) == {
        "/values/phone", "/values/visit", "/values/piano_postcode", "/values/nme", "/slots/pian",
    }  # fmt: skip
    assert places["/values/visit"] == "There is no choice 'tuening'. Did you mean tuning?"
    assert api.get(FORM).json()["total"] == before


def test_a_dry_run_says_what_would_be_kept_and_keeps_nothing(api, filled):
    before = api.get(FORM).json()["total"]
    answer = api.post("forms/tuning-visit/dry-run", json=filled).json()
    assert answer["slots"]["piano"]["components"]["street"] == "Abbey Mews"
    assert api.get(FORM).json()["total"] == before


def test_an_address_of_a_hidden_slot_is_not_captured(api, filled):
    filled["values"]["destination_street"] = "Nowhere"
    filled["slots"]["destination"] = {"country_code": "GB"}
    record = api.post(FORM, json=filled).json()
    assert list(record["slots"]) == ["piano"]
    assert "destination_street" not in record["values"]


@pytest.mark.parametrize(
    ("query", "pointer"),
    [({"after": "zzz"}, "?after"), ({"sort": "best"}, "?sort"), ({"limit": "0"}, "?limit")],
)
def test_a_faulty_list_query_is_refused(api, query, pointer):
    answer = api.get("records", params=query)
    assert answer.status_code == 422
    assert answer.json()["errors"][0]["pointer"] == pointer


def test_two_programs_may_count_their_orders_alike(stack, client):
    made = [client.keys.make("server", f"Program {n}", scopes=["records"]) for n in range(2)]
    sent = []
    for number, key in enumerate(made):
        with stack.http(None, Authorization=f"Bearer {key.secret}") as http:
            body = {"values": {"name": f"Hall of order {number}"}}
            answer = http.post(
                "/api/v1/forms/halls-of-orders/records",
                json=body,
                headers={"Idempotency-Key": "order-1"},
            )
        assert answer.status_code == 201, answer.text
        sent.append(answer.json()["id"])
        client.keys.end(key.key.id)
    assert len(set(sent)) == 2


@pytest.fixture(autouse=True, scope="module")
def halls(stack):
    with stack.http() as http:
        document = {"key": "halls-of-orders", "kind": "record", "title": "Halls",
                    "fields": [{"key": "name", "label": "Name"}]}  # fmt: skip
        http.put("/api/v1/forms/halls-of-orders/draft", json=document)
        http.post("/api/v1/forms/halls-of-orders/publish", headers=ANY_STATE).raise_for_status()
