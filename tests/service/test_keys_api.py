"""Keys over the API: made with no more than they need, rotated with an overlap, ended."""

import re
from datetime import UTC, datetime, timedelta

import pytest

from anchorline.core.keys import SCOPES
from anchorline.service.access import Access
from anchorline.service.app import ROUTERS
from tests.service.test_access import ask
from tests.waiting import wait_until

ENDPOINTS = [endpoint for router in ROUTERS for endpoint in router.endpoints]
FOR_KEYS = [e for e in ENDPOINTS if e.access in (Access.CAPTURE, Access.SERVER)]


@pytest.fixture(scope="module")
def server(stack):
    with stack.http("server_key") as http:
        yield http


@pytest.fixture(scope="module")
def make(server):
    """Makes keys; ends them afterwards."""
    made = []

    def made_key(**wanted):
        answer = server.post("/api/v1/keys", json={"name": "Test", **wanted})
        assert answer.status_code == 201, answer.text
        made.append(answer.json()["key"]["id"])
        return answer.json()

    yield made_key
    for identifier in made:
        server.post(f"/api/v1/keys/{identifier}/end")


@pytest.fixture(scope="module")
def narrow(make):
    """One key for each scope, with that one alone."""
    return {name: make(kind="server", scopes=[name])["secret"] for name in SCOPES}


def as_key(secret, **headers):
    return {"Authorization": f"Bearer {secret}", **headers}


def test_every_endpoint_for_keys_names_a_scope_that_there_is():
    assert [e.name for e in FOR_KEYS if not set(e.scopes) or set(e.scopes) - SCOPES.keys()] == []


@pytest.mark.parametrize("endpoint", FOR_KEYS, ids=lambda e: e.name)
def test_a_server_key_opens_what_its_scope_names_and_nothing_else(stack, narrow, endpoint):
    with stack.http(None) as http:
        for scope, secret in narrow.items():
            answer = ask(http, endpoint, **as_key(secret))
            if scope in endpoint.scopes and endpoint.name != "make_key":
                assert answer.status_code != 403, (scope, answer.text)
            elif scope not in endpoint.scopes:
                assert answer.status_code == 403, scope
                wanted = " or ".join(endpoint.scopes)
                assert f"with the scope {wanted}; this one has {scope}" in answer.json()["detail"]


def test_a_key_that_only_fills_forms_sees_no_draft(stack, narrow):
    with stack.http(None) as http:
        headers = as_key(narrow["records"])
        assert http.get("/api/v1/forms/venue", headers=headers).status_code == 200
        refused = http.get("/api/v1/forms/venue?draft=true", headers=headers)
        assert (refused.status_code, "scope forms" in refused.json()["detail"]) == (403, True)


@pytest.mark.parametrize("endpoint", FOR_KEYS, ids=lambda e: e.name)
def test_a_server_key_from_a_page_is_refused_with_the_reason(stack, endpoint):
    with stack.http("server_key") as http:
        answer = ask(http, endpoint, Origin="https://shop.example")
    assert answer.status_code == 403
    assert "came from a page of https://shop.example" in answer.json()["detail"]
    assert "browser key" in answer.json()["detail"]


@pytest.mark.parametrize(
    ("wanted", "pointer", "detail"),
    [
        ({"kind": "server"}, "/scopes", "find, desk, forms, records, data, administer, observe"),
        ({"kind": "server", "scopes": ["fnd"]}, "/scopes/0", "Did you mean find"),
        ({"kind": "server", "scopes": ["find"], "forms": ["venue"]}, "/forms", "make a browser key"),
        ({"kind": "server", "scopes": ["find"], "name": " "}, "/name", "Say what"),
        ({"kind": "server", "scopes": ["find"], "expires_at": "2020-01-01T00:00:00Z"},
         "/expires_at", "over already"),
        ({"kind": "server", "scopes": ["find"], "expires_at": "2020-01-01T00:00:00"},
         "/expires_at", "timezone"),
        ({"kind": "browser", "forms": ["venue"]}, "/origins", "needs the web origins"),
        ({"kind": "browser", "origins": ["https://a.example"]}, "/forms", "needs the forms or targets"),
        ({"kind": "browser", "origins": ["a.example"], "forms": ["venue"]}, "/origins/0",
         "no web origin"),
        ({"kind": "browser", "origins": ["https://a.example/x"], "forms": ["venue"]}, "/origins/0",
         "write https://a.example"),
        ({"kind": "browser", "origins": ["https://a.example"], "forms": ["venus"]}, "/forms/0",
         "Did you mean venue"),
        ({"kind": "browser", "origins": ["https://a.example"], "forms": ["venue"],
          "scopes": ["find"]}, "/scopes", "has no scopes"),
        ({"kind": "root"}, "/kind", "server"),
    ],
)  # fmt: skip
def test_a_key_that_could_not_work_is_not_made(server, wanted, pointer, detail):
    before = len(server.get("/api/v1/keys").json()["keys"])
    answer = server.post("/api/v1/keys", json={"name": "Test", **wanted})
    assert answer.status_code == 422
    (place,) = [one for one in answer.json()["errors"] if one["pointer"] == pointer]
    assert detail in place["detail"]
    assert len(server.get("/api/v1/keys").json()["keys"]) == before


def test_a_secret_is_told_once_and_a_use_is_noted(stack, server, make):
    made = make(kind="server", scopes=["find"])
    secret, key = made["secret"], made["key"]
    assert re.fullmatch(rf"anl_server_{key['id']}_[\w-]+", secret)
    assert (key["state"], key["used_at"]) == ("in_use", None)
    with stack.http(None) as http:
        assert http.get("/api/v1/suggest?q=kiln", headers=as_key(secret)).status_code == 200
    listed = server.get("/api/v1/keys")
    assert secret.split("_")[3] not in listed.text
    (there,) = [one for one in listed.json()["keys"] if one["id"] == key["id"]]
    assert there["used_at"] is not None


def test_after_a_rotation_both_secrets_work_and_a_third_ends_the_first(stack, server, make):
    made = make(kind="browser", origins=["https://A.example:443/"], forms=["venue"])
    identifier, secrets = made["key"]["id"], [made["secret"]]
    assert made["key"]["origins"] == ["https://a.example"]
    for hours in (24, 1):
        answer = server.post(f"/api/v1/keys/{identifier}/rotate", json={"overlap_hours": hours})
        assert answer.json()["key"]["earlier_until"] is not None
        secrets.append(answer.json()["secret"])
    with stack.http(None) as http:

        def works(secret):
            headers = as_key(secret, Origin="https://a.example")
            return http.get("/api/v1/forms/venue", headers=headers).status_code == 200

        assert [works(secret) for secret in secrets] == [False, True, True]
        at_once = server.post(f"/api/v1/keys/{identifier}/rotate", json={"overlap_hours": 0})
        assert at_once.json()["key"]["earlier_until"] is None
        wait_until(lambda: not works(secrets[2]), why="the secret before still works")
        assert works(at_once.json()["secret"])


def test_an_ended_key_is_refused_and_cannot_be_rotated(stack, server, make):
    made = make(kind="server", scopes=["find"])
    identifier = made["key"]["id"]
    assert server.post(f"/api/v1/keys/{identifier}/end").json()["state"] == "ended"
    with stack.http(None) as http:
        answer = http.get("/api/v1/suggest?q=kiln", headers=as_key(made["secret"]))
    assert (answer.status_code, "ended" in answer.json()["detail"]) == (401, True)
    refused = server.post(f"/api/v1/keys/{identifier}/rotate", json={})
    assert (refused.status_code, "make another one" in refused.json()["detail"]) == (409, True)
    assert server.post("/api/v1/keys/nosuchkey/end").status_code == 404


def test_a_key_ends_when_it_expires(stack, server, make):
    soon = (datetime.now(UTC) + timedelta(seconds=2)).isoformat()
    made = make(kind="server", scopes=["find"], expires_at=soon)
    with stack.http(None) as http:
        wait_until(
            lambda: http.get("/api/v1/layouts", headers=as_key(made["secret"])).status_code == 401,
            why="an expired key still works",
        )
    (there,) = [
        one for one in server.get("/api/v1/keys").json()["keys"] if one["id"] == made["key"]["id"]
    ]
    assert there["state"] == "expired"


def test_no_key_makes_or_rotates_one_that_may_do_more_than_itself(stack, make, narrow):
    stronger = make(kind="server", scopes=["data"])["key"]["id"]
    with stack.http(None) as http:
        headers = as_key(narrow["administer"])
        for path, body in (
            ("keys", {"kind": "server", "name": "x", "scopes": ["data"]}),
            ("keys", {"kind": "browser", "name": "x", "origins": ["https://a.example"],
                      "forms": ["venue"]}),
            (f"keys/{stronger}/rotate", {}),
        ):  # fmt: skip
            refused = http.post(f"/api/v1/{path}", json=body, headers=headers)
            assert (refused.status_code, "lacks the scope" in refused.text) == (403, True), path


def test_who_only_administers_observes_nobody(stack, make, narrow):
    observing = make(kind="server", scopes=["administer", "observe"])["secret"]
    watched = make(kind="server", scopes=["find", "records"])
    wanted = {"kind": "key", "name": watched["key"]["id"], "hours": 1}
    with stack.http(None, **as_key(narrow["administer"])) as http:
        refused = http.put("/api/v1/observations", json=wanted)
        assert (refused.status_code, "scope observe" in refused.text) == (403, True)
        made = http.post(
            "/api/v1/keys", json={"kind": "server", "name": "x", "scopes": ["observe"]}
        )
        assert (made.status_code, "lacks the scope" in made.text) == (403, True)
    with stack.http(None, **as_key(observing)) as http:
        assert http.put("/api/v1/observations", json=wanted).status_code == 200

    def is_shown():
        with stack.http(None, **as_key(watched["secret"])) as http:
            http.get("/api/v1/suggest?q=observed+mews")
        return any(shown(observing)[0])

    def shown(secret):
        with stack.http(None, **as_key(secret)) as http:
            calls = http.get(f"/api/v1/activity?subject={watched['key']['id']}").json()["calls"]
            lines = http.get(f"/api/v1/activity-lines?subject={watched['key']['id']}").text
        return [
            one["question"] for one in calls
        ], "observed+mews" in lines or "observed mews" in lines

    wait_until(is_shown, every=0.5)  # each process gets to know within seconds what is observed
    assert shown(observing)[1]
    questions, is_in_lines = shown(narrow["administer"])
    # How many there are by now is not asked: calls are kept a little later.
    assert (set(questions), is_in_lines) == ({None}, False)
    with stack.http(None, **as_key(observing)) as http:
        http.put("/api/v1/observations", json={**wanted, "hours": 0})


def test_no_key_changes_its_own_allowance_or_gives_away_more_than_it_has(stack, server, make):
    own = make(kind="server", scopes=["administer", "find"])
    other = make(kind="server", scopes=["find"])["key"]["id"]
    path = f"/api/v1/keys/{own['key']['id']}/allowance"
    with stack.http(None, **as_key(own["secret"])) as http:
        refused = http.put(path, json={"monthly_limit": 5})
        assert (refused.status_code, "its own allowance" in refused.text) == (403, True)
        assert (
            http.put(f"/api/v1/keys/{other}/allowance", json={"monthly_limit": 9}).status_code
            == 200
        )
    assert server.put(path, json={"monthly_limit": 100}).status_code == 200
    with stack.http(None, **as_key(own["secret"])) as http:
        wait_until(lambda: _limited(http, other), every=0.5)
        assert (
            http.put(f"/api/v1/keys/{other}/allowance", json={"monthly_limit": 100}).status_code
            == 200
        )
        for more in (101, None):
            refused = http.put(f"/api/v1/keys/{other}/allowance", json={"monthly_limit": more})
            assert (refused.status_code, "100 a month itself" in refused.text) == (403, True)
        made = http.post("/api/v1/keys", json={"kind": "server", "name": "x", "scopes": ["find"]})
        assert (made.status_code, "would have none" in made.text) == (403, True)
        rotated = http.post(f"/api/v1/keys/{other}/rotate", json={"overlap_hours": 0})
        assert rotated.status_code == 403


def _limited(http, other):
    """Whether the key's own limit is known by now: it is looked up every few seconds."""
    return (
        http.put(f"/api/v1/keys/{other}/allowance", json={"monthly_limit": 101}).status_code == 403
    )
