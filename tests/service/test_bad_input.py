import gzip
import json
import socket

import pytest

LINES = "layouts/GB/lines"
JSON = {"Content-Type": "application/json"}


@pytest.mark.parametrize(
    ("content", "detail"),
    [
        (b"", "not JSON"),
        (b"{", "line 1, column"),
        (b'{"components": {"town": "\xff\xfe"}}', "not JSON"),
        (b"id,country_code\r\n1,GB\r\n", "not JSON"),
        (gzip.compress(b"{}", mtime=0), "not JSON"),
        (b'{"a":' * 5000 + b"1" + b"}" * 5000, "not JSON"),
        (b'{"components": NaN}', "not JSON"),
    ],
)
def test_a_body_that_is_not_json_is_a_400_that_says_where(api, content, detail):
    answer = api.post(LINES, content=content, headers=JSON)
    assert answer.status_code == 400
    assert detail in answer.json()["detail"]


@pytest.mark.parametrize("content", [b"[]", b"null", b'"text"', b"5", b"true"])
def test_json_of_another_shape_is_a_422(api, content):
    answer = api.post(LINES, content=content, headers=JSON)
    assert answer.status_code == 422
    assert answer.json()["errors"]


@pytest.mark.parametrize("kind", ["text/csv", "multipart/form-data; boundary=x", ""])
def test_a_body_of_another_kind_is_a_415(api, kind):
    answer = api.post(LINES, content=b"{}", headers={"Content-Type": kind})
    assert answer.status_code == 415
    assert "application/json" in answer.json()["detail"]


def test_a_body_over_the_limit_is_a_413(api):
    answer = api.post(LINES, content=b'{"x": "' + b"a" * 1_100_000 + b'"}', headers=JSON)
    assert answer.status_code == 413
    assert answer.headers["Content-Type"] == "application/problem+json"


@pytest.mark.parametrize("size", [4096, 4097])
def test_signing_in_takes_a_small_body_only(stack, size):
    body = b'{"email": "a@b.example", "password": "x", "z": "'
    body += b"z" * (size - len(body) - 2) + b'"}'
    with stack.http(None) as http:
        answer = http.post("/api/v1/session", content=body, headers=JSON)
    assert answer.status_code == (422 if size == 4096 else 413)


@pytest.mark.parametrize(("count", "status"), [(50_000, "not known"), (50_001, "more than 50,000")])
def test_a_body_of_very_many_values_is_refused_before_it_is_looked_at(api, count, status):
    answer = api.post(LINES, content=b'{"z": [%s]}' % b",".join([b"1"] * (count - 1)), headers=JSON)
    assert answer.status_code == 422
    assert status in answer.text
    assert len(answer.content) < 10_000


def test_more_values_than_a_form_can_have_are_refused(api):
    body = {"values": {f"k{i}": "v" for i in range(501)}}
    assert api.post("forms/tuning-visit/records", json=body).status_code == 422


@pytest.mark.parametrize("method", ["PATCH", "DELETE", "PUT"])
def test_a_method_that_an_address_does_not_take_is_a_405_that_names_those_it_takes(api, method):
    answer = api.request(method, "suggest")
    assert answer.status_code == 405
    assert "GET" in answer.headers["Allow"]
    assert answer.json()["status"] == 405


@pytest.mark.parametrize("key", ["a" * 65, "..%2f..%2fetc", "%00", "a%20b", "é", "%F0%9F%8E%B9"])
def test_strange_names_in_the_address_are_not_found(api, key):
    assert api.get(f"forms/{key}").status_code in (404, 308)


@pytest.mark.parametrize(
    ("lines", "status"),
    [
        (["GET /api/v1/suggest?q=" + "x" * 9000 + " HTTP/1.1"], 414),
        (["GET /healthz HTTP/1.1", "X: " + "y" * 9000], 431),
        (["GET /healthz HTTP/nine"], 400),
        (["nonsense"], 400),
    ],
)
def test_what_never_reaches_the_application_is_a_problem_too(stack, lines, status):
    host, port = stack.url.removeprefix("http://").split(":")
    with socket.create_connection((host, int(port)), timeout=60) as line:
        line.sendall("\r\n".join([*lines, "Host: x", "", ""]).encode())
        answer = b""
        while piece := line.recv(4096):
            answer += piece
    head, body = answer.split(b"\r\n\r\n", 1)
    assert head.startswith(f"HTTP/1.1 {status} ".encode())
    assert b"application/problem+json" in head
    assert json.loads(body)["status"] == status


def test_an_overlong_idempotency_key_is_refused(api):
    answer = api.post(
        "forms/tuning-visit/records",
        json={
            "values": {
                "contact": "A", "phone": "+44 20 7946 0123", "visit": "tuning", "piano_street": "S",
                "piano_town": "T", "piano_postcode": "QV1 1AA",
            }
        },
        headers={"Idempotency-Key": "k" * 201},
    )  # fmt: skip
    assert answer.status_code == 422
    assert "1 to 200 characters" in answer.json()["errors"][0]["detail"]


@pytest.mark.parametrize("value", ["", "é", '"' + "x" * 199 + '"'])
@pytest.mark.parametrize("path", ["suggest?q=kiln", "layouts/GB"])
def test_a_declared_header_that_is_not_as_described_is_refused(api, path, value):
    answer = api.get(path, headers={"If-None-Match": value.encode()})
    described = api.get("openapi.json").json()["paths"]
    parameters = described["/api/v1/" + path.partition("?")[0].replace("GB", "{country_code}")]
    declared = any(p["name"] == "If-None-Match" for p in parameters["get"]["parameters"])
    assert answer.status_code == (422 if declared else 200)


def test_what_any_address_may_answer_is_described(api):
    for path, operations in api.get("openapi.json").json()["paths"].items():
        for method, operation in operations.items():
            general = {"400", "408", "413", "414", "431", "500", "503"}
            assert general <= set(operation["responses"]), (method, path)
            assert ("507" in operation["responses"]) == (method != "get")


@pytest.mark.parametrize(
    ("method", "path", "body", "pointer"),
    [
        ("POST", "formulas/try", {"formula": "a", "values": {"a": []}}, "/values/a"),
        ("POST", "formulas/try", {"formula": "a", "values": {"a": {"str": 1}}}, "/values/a"),
        ("POST", "formulas/try", {"formula": "a", "values": {"": 1}}, "/values/"),
        ("PUT", "forms/odd/draft", {"key": "odd", "kind": "web", "title": "O", "fields": [{"key": 1}]},
         "/fields/0/key"),
        ("PUT", "forms/odd/draft", {"key": "odd", "kind": "web", "title": "O", "fields": [{}]},
         "/fields/0/key"),
        ("POST", "forms/venue/records", {"values": {"name": {"a": 1}}}, "/values/name"),
        ("POST", "forms/venue/records", {"slots": {"venue": {"position": {"latitude": "x"}}}},
         "/slots/venue/position/latitude"),
        ("POST", "layouts/GB/lines", {"components": {"town": "a\x00b"}}, "/components/town"),
        ("POST", "layouts/GB/lines", {"components": {"town": 5}}, "/components/town"),
    ],
)  # fmt: skip
def test_a_pointer_leads_through_what_was_sent_and_names_no_validator(
    api, method, path, body, pointer
):
    answer = api.request(method, path, json=body)
    assert answer.status_code == 422
    pointers = [one["pointer"] for one in answer.json()["errors"]]
    assert pointer in pointers
    for one in pointers:
        assert not any(
            name in one for name in ("function", "constrained", "Schema", "str", "[", "lax")
        )


@pytest.mark.parametrize(
    ("path", "body"),
    [
        ("layouts/GB/lines", {"components": {"z" * 100_000: "x"}}),
        ("layouts/GB/lines", {"z" * 100_000: "x"}),
        ("forms/venue/records", {"values": {"z" * 50_000: "x"}}),
        ("forms/venue/records", {"slots": {"z" * 50_000: {}}}),
        ("formulas/try", {"formula": "z" * 3000}),
        ("keys", {"kind": "server", "name": "x", "scopes": ["z" * 60]}),
    ],
)
def test_an_unknown_name_is_answered_cut_short(api, path, body):
    answer = api.post(path, json=body)
    assert answer.status_code == 422
    assert len(answer.content) < 6000
    assert all(
        len(step) <= 81 for one in answer.json()["errors"] for step in one["pointer"].split("/")
    )
