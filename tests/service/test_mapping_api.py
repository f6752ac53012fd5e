"""Mappings over the API: lint, trying, examples, coverage, reading back, links that rules set."""

from concurrent.futures import ThreadPoolExecutor

import pytest

from tests.states import ANY_STATE
from tests.waiting import wait_until

PARTS = ["number", "street", "town", "postcode"]
EACH = [{"components": [name], "into": f"at_{name}"} for name in PARTS]


@pytest.fixture
def server(stack):
    with stack.http("server_key") as http:
        yield http


@pytest.fixture
def keep(server):
    """Keeps a draft whatever it was made from; forgets the forms without records at the end."""
    made = []

    def put(body):
        key = body["key"]
        made.append(key)
        known = server.get(f"/api/v1/forms/{key}/draft")
        headers = {"If-Match": known.headers["ETag"]} if known.status_code == 200 else {}
        url = f"/api/v1/forms/{key}/draft?unfinished=true"
        answer = server.put(url, json=body, headers=headers)
        assert answer.status_code == 200, answer.text

    yield put
    for key in made:
        server.delete(f"/api/v1/forms/{key}")


def document(key="mapped", mapping=EACH, fields=(), **slot):
    at = {
        "key": "at", "label": "At", "countries": ["GB"], "mapping": mapping,
        "parts": [{"key": f"at_{name}", "component": name} for name in PARTS], **slot,
    }  # fmt: skip
    return {"key": key, "kind": "record", "title": "Mapped", "fields": list(fields), "slots": [at]}


def lint(server, key="mapped", **body):
    answer = server.post(f"/api/v1/forms/{key}/lint", json=body)
    assert answer.status_code == 200, answer.text
    return answer.json()


def gb_sample(server, which="usual"):
    samples = server.get("/api/v1/forms/mapped/slots/at/samples").json()["samples"]
    return next(one for one in samples if (one["which"], one["country_code"]) == (which, "GB"))


def test_a_draft_is_linted_against_the_addresses_of_its_countries(server, keep):
    keep(document(mapping=[*EACH, {"components": ["strete"], "into": "at_street"}]))
    answer = lint(server)
    first = answer["problems"][0]
    assert (first["pointer"], first["severity"], first["offers"][0]) == (
        "/slots/0/mapping/4/components/0", "problem", "street",
    )  # fmt: skip
    assert answer["looked_at"]["GB"] >= 20
    untaken = next(one for one in answer["problems"] if one["check"] == "untaken_components")
    assert untaken["severity"] == "warning"
    assert 0 < untaken["addresses"] <= answer["looked_at"]["GB"]
    given = lint(server, document=document())
    assert all(one["severity"] == "warning" for one in given["problems"])


def test_what_is_wrong_with_a_mapping_stands_against_publishing(server, keep):
    twice = [*EACH, {"components": ["po_box"], "into": "at_street"}]
    keep(document(mapping=twice))
    refused = server.post("/api/v1/forms/mapped/publish", headers=ANY_STATE)
    assert refused.status_code == 422
    assert [e["pointer"] for e in refused.json()["errors"]] == ["/slots/0/mapping/4/if_written"]
    told = server.post("/api/v1/forms/mapped/difference", json={}).json()
    assert [p["pointer"] for p in told["problems"]] == ["/slots/0/mapping/4/if_written"]
    keep(document(mapping=[*EACH, twice[4] | {"if_written": "leave"}]))
    assert server.post("/api/v1/forms/mapped/publish", headers=ANY_STATE).status_code == 200


def test_an_example_that_fails_stands_against_publishing_with_its_difference(server, keep):
    components = {"number": "12", "street": "Mill Lane", "town": "Marl", "country_code": "GB"}
    example = {"name": "Mill", "components": components, "values": {"at_street": "MILL LANE"}}
    keep(document(examples=[example]))
    outcome = server.get("/api/v1/forms/mapped/examples").json()["examples"]
    assert outcome == [
        {"slot": "at", "name": "Mill", "passed": False,
         "differences": {"at_street": ["MILL LANE", "Mill Lane"]}}
    ]  # fmt: skip
    refused = server.post("/api/v1/forms/mapped/publish", headers=ANY_STATE)
    assert refused.status_code == 422
    (error,) = refused.json()["errors"]
    assert error["pointer"] == "/slots/0/examples/0/values/at_street"
    assert "'MILL LANE' is expected, and 'Mill Lane' stands there" in error["detail"]
    upper = [rule | {"changes": ["upper"]} if n == 1 else rule for n, rule in enumerate(EACH)]
    keep(document(mapping=upper, examples=[example]))
    assert server.post("/api/v1/forms/mapped/publish", headers=ANY_STATE).status_code == 200
    public = server.get("/api/v1/forms/mapped").json()["document"]["slots"][0]
    assert public["examples"] == [], "examples are for those who made them"


def test_a_mapping_is_tried_on_usual_and_odd_addresses_step_by_step(server, keep):
    keep(document())
    samples = server.get("/api/v1/forms/mapped/slots/at/samples").json()["samples"]
    assert {"usual", "longest", "most_parts"} <= {one["which"] for one in samples}
    assert len({one["id"] for one in samples}) == len(samples)
    usual = gb_sample(server)
    body = {"address_id": usual["id"], "values": {"at_town": "Before"}}
    tried = server.post("/api/v1/forms/mapped/slots/at/try", json=body).json()
    assert tried["values"]["at_street"] in usual["label"]
    kinds = [(step["kind"], step["rule"]) for step in tried["trace"]]
    assert kinds[0] == ("cleared", None)
    assert [(kind, rule) for kind, rule in kinds if kind == "wrote"] == [
        ("wrote", n) for n in range(4)
    ]
    typed = {"components": {"street": "Mill Lane"}, "document": document(
        mapping=[{"components": ["street"], "into": "at_street", "changes": ["upper"]}]
    )}  # fmt: skip
    unsaved = server.post("/api/v1/forms/mapped/slots/at/try", json=typed).json()
    assert unsaved["values"] == {"at_street": "MILL LANE"}
    wrong = server.post("/api/v1/forms/mapped/slots/at/try", json={"address_id": "demo:none"})
    assert wrong.status_code == 422
    other = server.post(
        "/api/v1/forms/mapped/slots/at/try", json={"components": {}, "country_code": "FR"}
    )
    assert other.status_code == 404


def test_the_address_in_the_fields_is_read_back(server, keep):
    rules = [{"fit": {"into": ["a", "b"], "width": 40}, "changes": ["upper"]}]
    keep(document(mapping=rules, fields=[{"key": "a", "label": "A"}, {"key": "b", "label": "B"}]))
    body = {"values": {"a": "12 MILL LANE, MARL", "b": "QV1 4AB"}}
    found = server.post("/api/v1/forms/mapped/slots/at/components", json=body).json()
    assert found["components"] == {
        "number": "12", "street": "MILL LANE", "town": "MARL", "postcode": "QV1 4AB",
    }  # fmt: skip
    assert found["lines"] == ["12 MILL LANE", "MARL", "QV1 4AB"]


def cover(server, **body):
    answer = server.post("/api/v1/forms/mapped/slots/at/coverage", json=body)
    assert answer.status_code == 202, answer.text
    place = answer.headers["Location"]
    wait_until(lambda: server.get(place).json()["state"] in ("done", "failed"))
    job = server.get(place).json()
    assert job["state"] == "done", job["message"]
    return job, server.get("/api/v1/forms/mapped/slots/at/coverage").json()["runs"]


def test_a_draft_is_run_over_samples_and_compared_with_the_run_before(server, keep):
    keep(document())
    job, runs = cover(server, per_country=200)
    run = runs[0]
    assert run["addresses"] == {"GB": 200}
    assert job["rows_done"] == 200
    assert "200 addresses: 0 lost, 0 wrong" in job["message"]
    assert (run["version"], run["source"]) == (None, "reference")
    assert [field["key"] for field in run["fields"]] == [f"at_{name}" for name in PARTS]
    assert sum(run["fields"][1]["cells"]["GB"].values()) == 200
    short = [
        *EACH[:3],
        {"components": ["postcode"], "into": "at_postcode", "changes": [{"shorten": 2}]},
    ]
    keep(document(mapping=short))
    assert server.post("/api/v1/forms/mapped/publish", headers=ANY_STATE).status_code == 200
    _job, runs = cover(server, per_country=50)
    assert [one["totals"]["lost"] for one in runs[:2]] == [50, 0]
    assert runs[0]["version"] == 1
    worst = runs[0]["examples"][0]
    assert (worst["field"], worst["state"], worst["country_code"]) == ("at_postcode", "lost", "GB")
    rows = [{"street": "Mill Lane", "country_code": "GB"}, {"street": "S", "country_code": "XX"}]
    _job, runs = cover(server, source="rows", rows=rows)
    assert (runs[0]["addresses"], runs[0]["left_out"]) == ({"GB": 1}, 1)
    _job, runs = cover(server, source="rows", table="Street;City;Country code\nMill Lane;Marl;GB\n")
    assert runs[0]["fields"][2]["cells"]["GB"]["filled"] == 1, "a city is a town"
    url = "/api/v1/forms/mapped/slots/at/coverage"
    for wrong, why in (
        ("Name\nAda\n", "No column"),
        ("Town\n", "no rows"),
        ("Town\n" + "x\n" * 5001, "5,001"),
    ):
        refused = server.post(url, json={"source": "rows", "table": wrong})
        assert why in refused.json()["errors"][0]["detail"]
    _job, runs = cover(server, source="records")
    assert runs[0]["addresses"] == {}


def test_an_address_of_no_country_is_named_wherever_its_mapping_is_asked_for(server, keep):
    """Every way to a mapping of a draft says the same; none of them fails."""
    keep(document("mapped", countries=["ZZ"]))
    place = "/api/v1/forms/mapped/slots/at"
    asked = [
        server.get("/api/v1/forms/mapped/examples"),
        server.get(f"{place}/samples"),
        server.post(f"{place}/proposals", json={}),
        server.post(f"{place}/try", json={"components": {"town": "Marl"}}),
        server.post(f"{place}/components", json={"values": {}}),
        server.post(f"{place}/coverage", json={}),
    ]
    assert [one.status_code for one in asked] == [422] * 6
    assert "ZZ" in asked[0].json()["errors"][0]["detail"]
    assert lint(server)["problems"][0]["check"] == "document"


TOWNS = {
    "key": "mapped-town", "kind": "record", "title": "Towns",
    "fields": [{"key": "name", "label": "Town", "max_length": 30}, {"key": "postal", "label": "P"}],
}  # fmt: skip
LINK = {
    "link": {
        "form": "mapped-town", "creates": True,
        "find": [{"components": ["town"], "into": "name"}],
        "more": [{"components": ["postcode"], "into": "postal"}],
    },
    "into": "town_link",
}  # fmt: skip
TOWN_FIELD = {
    "key": "town_link", "type": "link", "label": "Town", "form": "mapped-town", "required": True,
}  # fmt: skip


@pytest.fixture
def linked(server, keep):
    keep(TOWNS)
    assert server.post("/api/v1/forms/mapped-town/publish", headers=ANY_STATE).status_code == 200
    keep(document("mapped-visit", mapping=[*EACH, LINK], fields=[TOWN_FIELD]))
    assert server.post("/api/v1/forms/mapped-visit/publish", headers=ANY_STATE).status_code == 200


def submit(server, town):
    values = {"at_number": "1", "at_street": "Mill Lane", "at_town": town, "at_postcode": "QV1 4AB"}
    return server.post("/api/v1/forms/mapped-visit/records", json={"values": values})


def town_records(server, named):
    found = server.get("/api/v1/forms/mapped-town/records", params={"search": named}).json()
    return found["records"]


def test_fifty_people_who_name_the_same_new_town_at_once_make_one_record(server, linked):
    with ThreadPoolExecutor(50) as people:
        answers = list(people.map(lambda _: submit(server, "Newmarling"), range(50)))
    assert {answer.status_code for answer in answers} == {201}
    (town,) = town_records(server, "Newmarling")
    assert {answer.json()["values"]["town_link"] for answer in answers} == {town["id"]}
    kept = server.get(f"/api/v1/records/{town['id']}").json()
    assert kept["values"] == {"name": "Newmarling", "postal": "QV1 4AB"}


def test_a_record_is_found_exactly_then_folded_and_shown_while_filling(server, linked):
    first = submit(server, "Öberfold").json()["values"]["town_link"]
    assert submit(server, "OBERFOLD").json()["values"]["town_link"] == first
    url = "/api/v1/forms/mapped-visit/slots/at/fill"
    there = server.post(url, json={"components": {"town": "oberfold"}}).json()
    assert there["values"]["town_link"] == first
    assert there["labels"] == {"town_link": "Öberfold"}
    new = server.post(url, json={"components": {"town": "Nowhere yet"}}).json()
    assert new["values"]["town_link"] == ""
    assert any(step["kind"] == "made" for step in new["trace"])


def test_a_town_that_cannot_be_made_is_said_at_the_link_and_nothing_is_kept(server, linked):
    name = "A town of more than thirty characters"
    refused = submit(server, name)
    assert refused.status_code == 422
    assert refused.json()["errors"][0]["pointer"] == "/values/town_link"
    assert "37 characters long" in refused.json()["errors"][0]["detail"]
    assert town_records(server, name) == []


def test_whoever_fills_a_public_form_learns_nothing_of_records_that_are_not_open(
    server, stack, keep, linked
):
    web = document("mapped-web", mapping=[*EACH, LINK], fields=[TOWN_FIELD]) | {"kind": "web"}
    web["fields"] = [TOWN_FIELD | {"open_to_all": False, "required": False}]
    problems = lint(server, "mapped-visit", document=web | {"key": "mapped-visit"})["problems"]
    assert all(one["severity"] == "warning" for one in problems)
    submit(server, "Secretham")
    keep(web)
    body = {"components": {"town": "Secretham"}}
    draft = server.post("/api/v1/forms/mapped-web/slots/at/fill?draft=true", json=body).json()
    assert draft["labels"] == {"town_link": "Secretham"}, "staff see it"


def test_changes_of_texts_are_listed_with_their_settings(server):
    changes = {one["name"]: one for one in server.get("/api/v1/mapping-changes").json()["changes"]}
    assert changes["upper"]["settings"] == []
    assert changes["country"]["settings"][0]["options"]["alpha_3"] == "three letters (GBR)"
    assert changes["first"]["settings"][0]["default"] is None
