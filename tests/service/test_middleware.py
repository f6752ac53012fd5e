"""What every request meets before the application, and every answer after it."""

import httpx
import pytest
from werkzeug.test import Client

from anchorline.service.middleware import ARRIVED, Middleware

ELSEWHERE = {"Origin": "https://shop.example"}
ASKING = {**ELSEWHERE, "Access-Control-Request-Method": "POST"}


@pytest.mark.parametrize(
    ("path", "status"),
    [("/api/v1/suggest?q=kiln", 200), ("/api/v1/suggest?q=kiln&limit=0", 422), ("/api/v1/nope", 404),
     ("/f/tuning-visit", 200), ("/f/nope", 404), ("/healthz", 200), ("/", 302)],
)  # fmt: skip
def test_every_answer_forbids_guessing_its_type_and_telling_where_one_came_from(
    stack, path, status
):
    with stack.http() as http:
        answer = http.get(path)
    assert answer.status_code == status
    assert answer.headers["X-Content-Type-Options"] == "nosniff"
    assert answer.headers["Referrer-Policy"] == "same-origin"


@pytest.mark.parametrize("path", ["/api/v1/suggest?q=kiln", "/api/v1/nope", "/api/v1/layouts"])
def test_other_origins_may_read_answers_of_the_api_but_send_no_cookies(stack, path):
    with stack.http() as http:
        answer = http.get(path, headers=ELSEWHERE)
    assert answer.headers["Access-Control-Allow-Origin"] == ELSEWHERE["Origin"]
    assert "ETag" in answer.headers["Access-Control-Expose-Headers"]
    assert "Origin" in answer.headers["Vary"]
    assert "Access-Control-Allow-Credentials" not in answer.headers


@pytest.mark.parametrize("path", ["/f/tuning-visit", "/healthz", "/apiv1/suggest"])
def test_other_origins_may_read_no_page(stack, path):
    with stack.http() as http:
        assert "Access-Control-Allow-Origin" not in http.get(path, headers=ELSEWHERE).headers


def test_browsers_may_ask_about_calls_of_the_api_alone(stack):
    def ask(path, headers):
        return httpx.options(stack.url + path, headers=headers, trust_env=False)

    answer = ask("/api/v1/forms/tuning-visit/records", ASKING)
    assert (answer.status_code, answer.content) == (204, b"")
    assert "Idempotency-Key" in answer.headers["Access-Control-Allow-Headers"]
    assert answer.headers["Access-Control-Allow-Origin"] == ELSEWHERE["Origin"]
    assert ask("/api/v1/forms/tuning-visit/records", ELSEWHERE).status_code == 405
    assert ask("/f/tuning-visit", ASKING).status_code != 204


def test_the_application_is_told_when_a_request_came_and_a_failure_stays_one():
    seen = []

    def application(environ, start_response):
        seen.append(environ[ARRIVED])
        if environ["PATH_INFO"] == "/broken":
            raise RuntimeError("broken")
        start_response("200 OK", [("Content-Type", "text/plain")])
        return [b"here"]

    client = Client(Middleware(application))
    assert client.get("/").data == b"here"
    with pytest.raises(RuntimeError, match="broken"):
        client.get("/broken")
    assert 0 < seen[0] < seen[1]
