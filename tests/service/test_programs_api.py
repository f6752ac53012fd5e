"""Program targets over the API: kept, filled with a desk key, looks, recognition, runs."""

import pytest

from anchorline.core.targets.fields import FIELD_TYPES
from anchorline.core.targets.options import WRITES
from anchorline.core.targets.programs.facts import FACT_KINDS
from anchorline.core.targets.programs.fields import EMPTIES, PLACES
from anchorline.core.targets.programs.hands import STOPS
from anchorline.core.targets.programs.plan import CHECKS
from anchorline.core.targets.programs.report import FIELD_STATES, OUTCOMES
from anchorline.core.targets.programs.signature import TESTS
from anchorline.core.targets.programs.ways import WAYS
from anchorline.wire import page_targets, program_targets, target_fields, target_runs
from tests.states import ANY_STATE

LOOK = [{"kind": "program", "text": "ledger"}, {"kind": "title", "text": "Contact 7 - Ada"}]
DOCUMENT = {
    "key": "ledger", "kind": "program", "title": "Ledger",
    "screens": [{"key": "contact", "conditions": [
        {"kind": "program", "test": "is", "text": "ledger"},
        {"kind": "title", "test": "begins", "text": "Contact "},
    ]}],
    "fields": [{"key": "street", "label": "Street"}, {"key": "country", "label": "Country"}],
    "addresses": [{
        "key": "home", "label": "Home", "countries": ["GB", "FR"],
        "mapping": [{"lines": "street", "into": "street"},
                    {"components": ["country"], "into": "country"}],
    }],
}  # fmt: skip
RUN = {
    "address": "home", "version": 1, "outcome": "stopped", "stop": "left", "ms": 12,
    "detail": "Another window has the focus now.", "machine": "desk-7",
    "fields": [{"field": "street", "label": "Street", "state": "partly"}],
    "log": [{"at_ms": 3, "says": "Write Street", "failed": True}],
}  # fmt: skip


@pytest.fixture
def server(stack):
    with stack.http("server_key") as http:
        http.delete("/api/v1/targets/ledger")
        yield http
        http.delete("/api/v1/targets/ledger")


def published(server, **changes):
    kept = server.put("/api/v1/targets/ledger/draft", json={**DOCUMENT, **changes})
    assert (kept.status_code, kept.json()["problems"]) == (200, []), kept.text
    assert (
        server.post("/api/v1/targets/ledger/publish", headers=ANY_STATE).json()["published_version"]
        == 1
    )


@pytest.fixture
def desk(stack, server):
    """A client with a key that may write addresses, and nothing else."""
    wanted = {"kind": "server", "name": "Desk of the office", "scopes": ["find", "desk"]}
    made = server.post("/api/v1/keys", json=wanted).json()
    with stack.http(None) as http:
        http.headers["Authorization"] = f"Bearer {made['secret']}"
        yield http
    server.delete(f"/api/v1/keys/{made['key']['id']}")


def test_the_words_of_the_api_are_those_of_the_core():
    def words(annotation):
        return set(annotation.__args__)

    assert words(program_targets.FactKindName) == set(FACT_KINDS)
    assert words(program_targets.TestName) == set(TESTS)
    assert words(program_targets.Empty) == set(EMPTIES)
    assert words(program_targets.FieldPlace) == set(PLACES)
    assert words(target_fields.FieldType) == set(FIELD_TYPES)
    writes = page_targets.PageFieldSchema.model_fields["writes"].annotation
    assert words(writes) == set(WRITES)
    plan = program_targets.WritingSchema.model_fields
    assert words(plan["by"].annotation) == set(WAYS)
    assert words(plan["check"].annotation) == set(CHECKS)
    assert words(target_runs.Outcome) == set(OUTCOMES)
    assert words(target_runs.Stop) == {"", *STOPS}
    assert words(target_runs.FieldState) == set(FIELD_STATES)


def test_a_desk_key_reads_fills_and_reports_and_changes_nothing(server, desk):
    published(server)
    (found,) = [
        one for one in desk.get("/api/v1/program-targets").json()["targets"]
        if one["document"]["key"] == "ledger"
    ]  # fmt: skip
    assert found["version"] == 1
    body = {"components": {"number": "4", "street": "Kiln Row", "country_code": "GB"}}
    fill = desk.post("/api/v1/targets/ledger/addresses/home/fill", json=body).json()
    assert fill["values"] == {"street": "4 Kiln Row", "country": "United Kingdom"}
    assert desk.post("/api/v1/targets/ledger/runs", json=RUN).status_code == 204
    for method, path, sent in (
        ("PUT", "targets/ledger/draft", DOCUMENT), ("POST", "targets/ledger/publish", None),
        ("GET", "targets/ledger/runs", None), ("GET", "looks", None), ("GET", "records/x", None),
        ("POST", "program-proposals", {}), ("DELETE", "targets/ledger", None),
    ):  # fmt: skip
        answer = desk.request(method, f"/api/v1/{path}", json=sent)
        assert answer.status_code == 403, path
    (run,) = server.get("/api/v1/targets/ledger/runs").json()["runs"]
    assert (run["outcome"], run["stop"], run["key"]) == ("stopped", "left", "Desk of the office")
    server.delete("/api/v1/targets/ledger")
    published(server)
    assert server.get("/api/v1/targets/ledger/runs").json()["runs"] == []


def test_a_browser_key_cannot_fill_a_program(stack, server):
    published(server)
    wanted = {
        "kind": "browser", "name": "Page", "origins": [stack.url], "targets": ["ledger"],
        "forms": [], "scopes": [],
    }  # fmt: skip
    made = server.post("/api/v1/keys", json=wanted).json()
    headers = {"Authorization": f"Bearer {made['secret']}", "Origin": stack.url}
    with stack.http(None) as http:
        body = {"components": {"street": "Kiln Row"}}
        path = "/api/v1/targets/ledger/addresses/home/fill"
        assert http.post(path, json=body, headers=headers).status_code == 403
        assert http.get("/api/v1/targets/ledger", headers=headers).status_code == 403
    assert server.get("/api/v1/targets/ledger").status_code == 404


def test_wording_holds_for_every_rule(server):
    published(server, wording={"capitals": True, "country_as": "alpha_3", "home_country": "GB"})

    def filled(code):
        body = {"components": {"number": "4", "street": "Kiln Row", "country_code": code}}
        return server.post("/api/v1/targets/ledger/addresses/home/fill", json=body).json()["values"]

    assert filled("FR") == {"street": "4 KILN ROW", "country": "FRA"}
    assert filled("GB") == {"street": "4 KILN ROW", "country": ""}


def test_looks_are_kept_compared_and_recognised(server, desk):
    published(server)
    other = [{"kind": "program", "text": "ledger"}, {"kind": "title", "text": "Contact 9 - Bo"}]
    first, second = (
        desk.post("/api/v1/looks", json={"facts": facts, "machine": "desk-7"}).json()
        for facts in (LOOK, other)
    )
    listed = {one["id"]: one for one in server.get("/api/v1/looks").json()["looks"]}
    title = listed[second["id"]]["facts"][1]
    assert [(piece["text"], piece["steady"]) for piece in title["pieces"]] == [
        ("Contact ", True), ("9 - Bo", False),
    ]  # fmt: skip
    found = desk.post("/api/v1/recognitions", json={"facts": LOOK}).json()
    assert found["targets"] == ["ledger"]
    assert found["trace"][0]["because"].startswith("2 of 2 conditions hold")
    proposed = server.post("/api/v1/signature-proposals", json={"looks": [LOOK, other]}).json()
    assert [one["condition"]["text"] for one in proposed["conditions"]] == ["ledger", "Contact "]
    for look in (first, second):
        assert server.delete(f"/api/v1/looks/{look['id']}").status_code == 204
    assert server.delete(f"/api/v1/looks/{first['id']}").status_code == 404


def test_a_target_is_proposed_from_fields_and_from_every_ready_made_one(server):
    labels = ["Company", "Street and number", "Fax", "Town"]
    fields = [{"label": label} for label in labels]
    body = {"key": "ledger", "title": "Ledger", "looks": [LOOK], "fields": fields}
    made = server.post("/api/v1/program-proposals", json=body).json()
    assert made["left"] == ["Fax"]
    listed = [(one["key"], one["name"], one["where"]) for one in made["document"]["fields"]]
    assert listed == [
        ("company", "Company", "screen"),
        ("street-and-number", "Street and number", "screen"),
        ("fax", "Fax", "screen"),
        ("town", "Town", "screen"),
        ("rest", "", "offered"),
    ]
    trial = server.post("/api/v1/target-trials", json={"document": made["document"]}).json()
    assert "Go 2 fields on" in [one["says"] for one in trial["steps"]], "over the fax"
    for ready in server.get("/api/v1/ready-made-targets").json()["targets"]:
        made = server.post("/api/v1/program-proposals", json=body | {"like": ready["name"]}).json()
        kept = server.put("/api/v1/targets/ledger/draft", json=made["document"])
        assert kept.json()["problems"] == [], ready["name"]
        server.delete("/api/v1/targets/ledger")
    wrong = server.post("/api/v1/program-proposals", json=body | {"like": "web-ordr"})
    assert "or web-order or" in wrong.json()["errors"][0]["detail"]


def test_what_is_wrong_with_a_program_is_said_at_its_place(server):
    changed = DOCUMENT | {"screens": []}
    own = {"steps": [{"do": "write", "field": "stret"}]}
    changed["addresses"] = [{**DOCUMENT["addresses"][0], "writing": own}]
    kept = server.put("/api/v1/targets/ledger/draft", json=changed).json()
    assert [one["pointer"] for one in kept["problems"]] == [
        "/screens",
        "/addresses/0/writing/steps/0/field",
    ]
    assert server.post("/api/v1/targets/ledger/publish", headers=ANY_STATE).status_code == 422
    bad = {**DOCUMENT["addresses"][0], "writing": {"steps": [{"do": "wirte", "field": "street"}]}}
    answer = server.put("/api/v1/targets/ledger/draft", json=DOCUMENT | {"addresses": [bad]})
    assert answer.json()["errors"][0]["pointer"] == "/addresses/0/writing/steps/0"
    bad["writing"] = {"steps": [{"do": "write", "feild": "street"}]}
    answer = server.put("/api/v1/targets/ledger/draft", json=DOCUMENT | {"addresses": [bad]})
    (error,) = answer.json()["errors"]
    assert error["pointer"] == "/addresses/0/writing/steps/0/feild"
    assert "'feild' is not known here. Did you mean field" in error["detail"]


def test_a_trial_says_the_steps_and_a_draft_is_taken_back(server):
    published(server)
    trial = server.post("/api/v1/target-trials", json={"document": DOCUMENT}).json()
    assert [one["says"] for one in trial["steps"]] == [
        "Empty the field", "Write Street", "Read the field back", "Go one field on",
        "Empty the field", "Write Country", "Read the field back",
    ]  # fmt: skip
    steps = [one["step"] for one in trial["steps"]]
    address = {**DOCUMENT["addresses"][0], "writing": {"steps": steps}}
    tag = server.get("/api/v1/targets/ledger/draft").headers["ETag"]
    changed = DOCUMENT | {"addresses": [address]}
    kept = server.put("/api/v1/targets/ledger/draft", json=changed, headers={"If-Match": tag})
    assert (kept.status_code, kept.json()["problems"]) == (200, [])
    assert kept.json()["summary"]["draft_differs"]
    assert not server.post("/api/v1/targets/ledger/take-back", headers=ANY_STATE).json()[
        "draft_differs"
    ]
    document = server.get("/api/v1/targets/ledger/draft").json()["document"]
    assert document["addresses"][0]["writing"]["steps"] == []
