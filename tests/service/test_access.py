"""Every endpoint has a stated rule, and refuses those whom it does not admit."""

import re

import httpx
import pytest

from anchorline.service.access import Access
from anchorline.service.app import ROUTERS

ENDPOINTS = [endpoint for router in ROUTERS for endpoint in router.endpoints]
PARTS = {
    "address_id": "demo:GB0000012", "country_code": "GB", "postcode": "QV1 1QF",
    "form": "tuning-visit", "slot": "piano", "record": "r1", "dataset": "demo", "number": "1",
    "version": "1", "field": "town",
    "job": "j1", "own_layout": "letters", "key": "nosuchkey", "target": "nowhere",
    "look": "nosuchlook",
}  # fmt: skip


def ask(http, endpoint, **headers):
    path = re.sub(r"<(?:path:)?(\w+)>", lambda m: PARTS[m.group(1)], endpoint.rule)
    body = {"json": {}} if endpoint.body else {}
    return http.request(endpoint.method, f"/api/v1{path}", headers=headers, **body)


@pytest.mark.parametrize("endpoint", ENDPOINTS, ids=lambda e: e.name)
def test_without_a_key_nothing_but_signing_in_is_open(stack, endpoint):
    with stack.http(None) as http:
        answer = ask(http, endpoint)
    if endpoint.access is Access.PUBLIC:
        assert endpoint.name == "sign_in"
        assert answer.status_code == 422
    else:
        assert answer.status_code == 401
        assert "WWW-Authenticate" in answer.headers


@pytest.mark.parametrize("endpoint", ENDPOINTS, ids=lambda e: e.name)
def test_a_browser_key_may_capture_and_nothing_else(stack, endpoint):
    with stack.http("browser_key") as http:
        status = ask(http, endpoint).status_code
    # It is for no target.
    if endpoint.access in (Access.SERVER, Access.PERSON):
        assert status == 403
    elif "<target>" in endpoint.rule:
        assert status == (422 if endpoint.body else 403)
    else:
        assert status in (200, 404, 422)


@pytest.mark.parametrize("endpoint", ENDPOINTS, ids=lambda e: e.name)
def test_a_server_key_is_not_a_person(stack, endpoint):
    if endpoint.access is Access.PERSON:
        with stack.http() as http:
            assert ask(http, endpoint).status_code == 403


def test_what_a_browser_key_may_do_is_exactly_this():
    assert {e.name for e in ENDPOINTS if e.access is Access.CAPTURE} == {
        "suggest", "get_address", "list_layouts", "get_layout", "write_address_lines",
        "check_against_layout", "get_form", "fill_form_slot", "list_link_choices", "submit_record",
        "get_nearest", "get_surroundings", "get_position", "list_dial_codes", "check_phone", "attach_target",
        "fill_target", "report_target_fault", "report_form_capture", "report_target_capture",
    }  # fmt: skip


def test_a_browser_key_is_tied_to_its_origins(stack):
    with stack.http("browser_key") as http:
        own = http.get("/api/v1/suggest?q=kiln", headers={"Origin": stack.url})
        assert own.status_code == 200
        assert own.headers["Access-Control-Allow-Origin"] == stack.url
        other = http.get("/api/v1/suggest?q=kiln", headers={"Origin": "https://evil.example"})
        assert other.status_code == 403
        assert "may not be used from https://evil.example" in other.json()["detail"]


def test_a_browser_key_is_tied_to_its_forms_and_sees_no_draft(stack):
    with stack.http("browser_key") as http:
        assert http.get("/api/v1/forms/tuning-visit").status_code == 200
        assert http.get("/api/v1/forms/supplier").status_code == 403
        assert http.get("/api/v1/forms/tuning-visit?draft=true").status_code == 403
        refused = http.post("/api/v1/forms/supplier/records", json={"values": {}})
        assert refused.status_code == 403


@pytest.mark.parametrize(
    "header",
    ["Bearer nonsense", "Bearer anl_server_x_y", "Basic dXNlcjpwYXNz", "Bearer", "Bearer " + "x" * 5000,
     "Bearer anl_page_tuning-visit.x.y"],
)  # fmt: skip
def test_an_invalid_key_is_refused(stack, header):
    with stack.http(None, Authorization=header) as http:
        assert http.get("/api/v1/suggest?q=kiln").status_code == 401


def test_a_page_may_use_its_own_form_only(stack):
    with stack.http(None) as http:
        token = re.search(r'access="([^"]+)"', http.get("/f/tuning-visit").text).group(1)
        http.headers["Authorization"] = f"Bearer {token}"
        assert http.get("/api/v1/forms/tuning-visit").status_code == 200
        assert http.get("/api/v1/forms/venue").status_code == 403
        assert http.get("/api/v1/records").status_code == 403


def test_a_preflight_is_answered_without_credentials(stack):
    answer = httpx.options(
        f"{stack.url}/api/v1/suggest",
        headers={"Origin": "https://a.example", "Access-Control-Request-Method": "GET"},
        trust_env=False,
    )
    assert answer.status_code == 204
    assert "Authorization" in answer.headers["Access-Control-Allow-Headers"]
    assert "Access-Control-Allow-Credentials" not in answer.headers
