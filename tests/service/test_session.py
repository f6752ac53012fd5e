import pytest

from tests.states import ANY_STATE


@pytest.fixture
def person(stack):
    with stack.http(None) as http:
        body = {"email": stack.access["admin_email"], "password": stack.access["admin_password"]}
        answer = http.post("/api/v1/session", json=body)
        assert answer.status_code == 200
        http.headers["X-CSRF-Token"] = answer.json()["csrf_token"]
        yield http


def test_a_person_signs_in_reads_and_signs_out(stack, person):
    assert person.get("/api/v1/session").json()["email"] == stack.access["admin_email"]
    assert person.get("/api/v1/overview").json()["forms"] >= 4
    assert person.delete("/api/v1/session").status_code == 204
    assert person.get("/api/v1/session").status_code == 401


def test_the_cookie_is_kept_from_scripts_and_other_sites(stack):
    with stack.http(None) as http:
        body = {"email": stack.access["admin_email"], "password": stack.access["admin_password"]}
        cookie = http.post("/api/v1/session", json=body).headers["Set-Cookie"]
    assert "HttpOnly" in cookie
    assert "SameSite=Strict" in cookie


@pytest.mark.parametrize("token", [None, "", "wrong"])
def test_a_change_without_the_csrf_token_is_refused(person, token):
    del person.headers["X-CSRF-Token"]
    headers = {} if token is None else {"X-CSRF-Token": token}
    answer = person.post("/api/v1/forms/tuning-visit/publish", headers=headers)
    assert answer.status_code == 403
    assert "csrf_token" in answer.json()["detail"]
    assert person.get("/api/v1/forms").status_code == 200


def test_a_change_with_the_csrf_token_is_made(person):
    assert person.post("/api/v1/forms/venue/publish", headers=ANY_STATE).status_code == 200


def test_failed_tries_are_slowed_down(scratch_stack):
    body = {"email": "somebody@example.org", "password": "not the password"}
    with scratch_stack.http(None) as http:
        answers = [http.post("/api/v1/session", json=body) for _ in range(7)]
    assert {a.status_code for a in answers} <= {401, 429}
    assert answers[-1].status_code == 429
    assert "Too many failed tries. Wait" in answers[-1].json()["detail"]
    assert int(answers[-1].headers["Retry-After"]) >= 1
