"""Targets over the API: drafts, publishing, attaching with a key for them, filling."""

from typing import get_args

import pytest

from anchorline.core.targets.pages.faults import FAULTS
from anchorline.wire.targets import FaultKind
from tests.states import ANY_STATE

DOCUMENT = {
    "key": "shop", "kind": "page", "title": "Shop", "origins": ["https://shop.example"],
    "fields": [{"key": "street", "label": "Street", "find": [{"name": "s"}]},
               {"key": "town", "label": "Town", "find": [{"name": "t"}], "max_length": 5}],
    "addresses": [{
        "key": "delivery", "label": "Delivery", "countries": ["GB"], "finder": {"at": "street"},
        "mapping": [{"lines": "street", "into": "street"},
                    {"components": ["town"], "into": "town", "changes": ["shorten"]}],
        "examples": [{"name": "Mill", "components": {"town": "Marl"}, "values": {"town": "Marl"}}],
    }],
}  # fmt: skip


@pytest.fixture
def server(stack):
    with stack.http("server_key") as http:
        http.delete("/api/v1/targets/shop")
        yield http
        http.delete("/api/v1/targets/shop")


def published(server, **changes):
    kept = server.put("/api/v1/targets/shop/draft", json={**DOCUMENT, **changes})
    assert (kept.status_code, kept.json()["problems"]) == (200, []), kept.text
    assert (
        server.post("/api/v1/targets/shop/publish", headers=ANY_STATE).json()["published_version"]
        == 1
    )


def key_for(server, *targets):
    wanted = {
        "kind": "browser", "name": "Shop", "origins": ["https://shop.example"],
        "targets": list(targets), "forms": [] if targets else ["venue"],
    }  # fmt: skip
    made = server.post("/api/v1/keys", json=wanted).json()
    return {"Authorization": f"Bearer {made['secret']}", "Origin": "https://shop.example"}


def test_a_draft_is_changed_from_its_revision_published_and_gone_back_from(server):
    published(server)
    stale = server.put("/api/v1/targets/shop/draft", json=DOCUMENT)
    assert stale.status_code == 428
    tag = server.get("/api/v1/targets/shop/draft").headers["ETag"]
    changed = DOCUMENT | {"title": "Shop on trial"}
    kept = server.put("/api/v1/targets/shop/draft", json=changed, headers={"If-Match": tag})
    assert kept.json()["summary"]["draft_differs"]
    again = server.put("/api/v1/targets/shop/draft", json=changed, headers={"If-Match": tag})
    assert again.status_code == 412
    assert (
        server.post("/api/v1/targets/shop/publish", headers=ANY_STATE).json()["published_version"]
        == 2
    )
    restored = server.post("/api/v1/targets/shop/restore", json={"version": 1}, headers=ANY_STATE)
    # A draft that was as published follows.
    assert (restored.json()["published_version"], restored.json()["draft_differs"]) == (1, False)
    assert (
        server.post(
            "/api/v1/targets/shop/restore", json={"version": 9}, headers=ANY_STATE
        ).status_code
        == 404
    )
    (listed,) = server.get("/api/v1/targets").json()["targets"]
    assert (listed["key"], listed["published_version"]) == ("shop", 1)


def test_a_page_attaches_and_fills_with_a_key_that_is_for_the_target(server, stack):
    published(server)
    headers = key_for(server, "shop")
    with stack.http(None) as http:
        seen = http.get("/api/v1/targets/shop", headers=headers).json()
        assert seen["version"] == 1
        assert "examples" not in str(seen["document"]["addresses"][0].get("examples") or "")
        url = "/api/v1/targets/shop/addresses/delivery/fill"
        filled = http.post(url, json={"address_id": "demo:GB0000012"}, headers=headers).json()
        assert filled["values"] == {"street": "16 Abbey Mews", "town": "Brack"}
        assert "shortened" in filled["warnings"][0]
        unknown = http.post(
            url.replace("delivery", "delivry"), json={"typed": "x"}, headers=headers
        )
        assert (unknown.status_code, "Did you mean delivery" in unknown.text) == (404, True)


def test_a_key_for_something_else_a_wrong_origin_and_a_wrong_name_are_told_apart(server, stack):
    published(server)
    with stack.http(None) as http:
        other = http.get("/api/v1/targets/shop", headers=key_for(server))
        assert (other.status_code, "may not be used for the target" in other.text) == (403, True)
        headers = key_for(server, "shop")
        misspelt = http.get("/api/v1/targets/shp", headers=headers)
        assert "Did you mean shop?" in misspelt.json()["detail"]
        tag = server.get("/api/v1/targets/shop/draft").headers["ETag"]
        moved = DOCUMENT | {"origins": ["https://other.example"]}
        server.put("/api/v1/targets/shop/draft", json=moved, headers={"If-Match": tag})
        server.post("/api/v1/targets/shop/publish", headers=ANY_STATE)
        wrong = http.get("/api/v1/targets/shop", headers=headers)
        assert "is for https://other.example. Add the origin" in wrong.json()["detail"]
        server.post("/api/v1/targets/shop/restore", json={"version": 0}, headers=ANY_STATE)
        gone = http.get("/api/v1/targets/shop", headers=headers)
        assert (gone.status_code, "has not been published" in gone.text) == (404, True)


def test_mistakes_that_pages_report_are_counted_up_to_a_bound(server, stack):
    published(server)
    headers = key_for(server, "shop")
    report = {"kind": "field_missing", "subject": "town", "detail": "is not on this page"}
    with stack.http(None) as http:
        url = "/api/v1/targets/shop/faults"
        for _ in range(3):
            told = {**headers, "User-Agent": "Odd Browser"}
            assert http.post(url, json=report, headers=told).status_code == 204
        for number in range(205):
            server.post(url, json=report | {"subject": f"n{number}"})
        assert http.get(url, headers=headers).status_code == 403
        unknown = http.post(url, json=report | {"kind": "typed"}, headers=headers)
        assert unknown.status_code == 422
    faults = server.get(url).json()["faults"]
    assert len(faults) == 200
    town = next(one for one in faults if one["subject"] == "town")
    assert (town["count"], town["browser"]) == (3, "Odd Browser")


def test_the_kinds_of_mistakes_are_those_of_the_core():
    assert set(get_args(FaultKind)) == FAULTS.keys()


def test_what_stands_against_publishing_is_said_with_the_draft(server):
    lacks = server.put("/api/v1/targets/shop/draft", json=DOCUMENT).json()["warnings"]
    assert any("postcode" in one["detail"] for one in lacks), "what no rule takes"
    server.delete("/api/v1/targets/shop")
    failing = [{"name": "Mill", "components": {"town": "Marl"}, "values": {"town": "Mill"}}]
    address = {**DOCUMENT["addresses"][0], "examples": failing}
    kept = server.put("/api/v1/targets/shop/draft", json={**DOCUMENT, "addresses": [address]})
    (problem,) = kept.json()["problems"]
    assert problem["pointer"] == "/addresses/0/examples/0/values/town"
    refused = server.post("/api/v1/targets/shop/publish", headers=ANY_STATE)
    assert (refused.status_code, refused.json()["errors"][0]["pointer"]) == (
        422, "/addresses/0/examples/0/values/town",
    )  # fmt: skip


def test_a_draft_is_tried_with_a_practice_address_before_anything_is_kept(server):
    tried = server.post("/api/v1/target-trials", json={"document": DOCUMENT})
    assert tried.status_code == 200, tried.text
    assert "Lantern Row" in tried.json()["fill"]["values"]["street"]
    assert "Lantern Row" in tried.json()["label"]
    assert server.get("/api/v1/targets/shop/draft").status_code == 404
    unknown = server.post("/api/v1/target-trials", json={"document": DOCUMENT, "address": "home"})
    assert unknown.status_code == 422
    assert "delivery" in unknown.json()["errors"][0]["detail"]
