"""What people type stands in no log, whatever goes wrong with it."""

import os
import signal
import time
from pathlib import Path

import httpx
import pytest

from anchorline.service.logs import _kinds_and_places
from tests.conftest import PATIENCE
from tests.waiting import SLOWNESS, hold

MARK = "zqxmarkzqx"


def marked(name):
    return f"{MARK}{name}"


def everything_sent(http):
    """Marked values in every field of every kind of call, right and wrong ones."""
    values = {
        "contact": marked("contact"), "phone": "+44 20 555 0100", "visit": "tuning",
        "note": marked("note"), "piano_number": marked("no"), "piano_street": marked("street"),
        "piano_town": marked("town"), "piano_postcode": "QV1 1AA",
    }  # fmt: skip
    slot = {"typed": marked("typed"), "address_id": marked("id")}
    records = "/api/v1/forms/tuning-visit/records"
    key = {"Idempotency-Key": marked("key")}
    british = {"piano": {"country_code": "GB"}}
    yield http.post(records, json={"values": values, "slots": british}, headers=key)
    other = values | {"note": "other"}
    yield http.post(records, json={"values": other, "slots": british}, headers=key)
    yield http.post(records, json={"values": values, "slots": {"piano": slot}})
    yield http.post(records, json={"values": values | {marked("field"): 1}})
    yield http.post(
        records, content=f'{{"{MARK}'.encode(), headers={"Content-Type": "application/json"}
    )
    yield http.get("/api/v1/suggest", params={"q": marked("search"), "within": marked("within")})
    yield http.get(f"/api/v1/addresses/{MARK}", params={"components": marked("component")})
    yield http.get(f"/api/v1/postcodes/GB/{MARK}")
    yield http.get("/api/v1/records", params={"search": marked("words"), "after": marked("after")})
    yield http.post(
        "/api/v1/forms/tuning-visit/slots/piano/fill", json={"components": {"town": marked("t")}}
    )
    yield http.post("/api/v1/layouts/GB/check", json={"components": {"postcode": marked("p")}})
    yield http.post(
        "/api/v1/session", json={"email": f"{MARK}@x.example", "password": marked("pw")}
    )
    yield http.get("/api/v1/layouts", headers={"Authorization": f"Bearer anl_server_{MARK}_x"})
    yield http.get(f"/f/{MARK}")
    yield http.get(f"/{MARK}", headers={MARK: MARK, "Cookie": f"anchorline_session={MARK}"})
    yield http.request(MARK.upper(), f"/{MARK}")
    file = f"id,country_code,town\r\n{MARK},GB,{MARK}\r\n1,XX,{MARK}\r\n".encode()
    yield http.post(
        "/api/v1/datasets/unmarked/editions", content=file, headers={"Content-Type": "text/csv"}
    )


def written(stack):
    """All files of the service that are no data: logs, and whatever else stands there."""
    found = {}
    for path in stack.folder.rglob("*"):
        data = {"gazetteer", "data", "addresses.csv"}.intersection(path.parts)
        if path.is_file() and not data:
            found[path] = path.read_bytes()
    return found


def test_no_value_is_in_any_log_also_when_the_database_fails(scratch_stack):
    with scratch_stack.http() as http:
        statuses = [answer.status_code for answer in everything_sent(http)]
        assert {201, 409, 422, 404, 400, 401} <= set(statuses)
        database = scratch_stack.database_pid()
        os.kill(database, signal.SIGKILL)
        for _ in range(3):
            for answer in everything_sent(http):
                assert answer.status_code not in (500, 502)
        scratch_stack.until_database(other_than=database)
        metrics = http.get("/metrics").text
    assert MARK not in metrics
    for path, content in written(scratch_stack).items():
        assert MARK.encode() not in content, path
        assert MARK.upper().encode() not in content, path


def test_a_log_belongs_to_whoever_runs_the_service(stack):
    assert (stack.folder / "demo" / "service.log").stat().st_mode & 0o077 == 0
    assert (stack.folder / "mariadb" / "mariadb.log").stat().st_mode & 0o007 == 0


def test_of_an_error_its_kind_and_place_are_told_and_not_its_text():
    try:
        try:
            int(MARK)
        except ValueError as error:
            raise RuntimeError(MARK) from error
    except RuntimeError as error:
        said = "\n".join(_kinds_and_places(error))
    assert MARK not in said
    assert "builtins.RuntimeError" in said
    assert "builtins.ValueError" in said
    assert Path(__file__).name in said


@pytest.mark.parametrize("language", ["de-AT,de;q=0.9", "xx", ""])
def test_while_the_database_is_away_a_visitor_sees_a_page_that_tries_again(
    language, database, tmp_path
):
    from anchorline.service.app import create_app
    from anchorline.service.settings import read_settings
    from anchorline.store.database import Database

    away = Database("mariadb+pymysql://nobody:x@127.0.0.1:9/x")
    app = create_app(read_settings({"ANCHORLINE_VAR_DIR": str(tmp_path)}), away)
    answer = app.test_client().get("/f/tuning-visit", headers={"Accept-Language": language})
    assert (answer.status_code, answer.headers["Refresh"]) == (503, "5")
    assert answer.content_type == "text/html"
    german = language.startswith("de")
    assert ("Das Formular kann gerade nicht" in answer.text) == german
    assert f'<html lang="{"de" if german else "en"}">' in answer.text
    away.close()


def test_an_open_form_goes_on_finding_and_filling_while_the_database_hangs(scratch_stack):
    time.sleep(6)  # a form that nobody opened yet is known by then as well
    page = httpx.get(f"{scratch_stack.url}/f/tuning-visit", trust_env=False, timeout=60).text
    token = page.split('access="')[1].split('"')[0]
    with scratch_stack.http(None, Authorization=f"Bearer {token}") as http:
        database = scratch_stack.database_pid()
        hold(database)
        try:
            time.sleep(PATIENCE + 3)
            began = time.monotonic()
            assert http.get("/f/tuning-visit").status_code == 200
            assert http.get("/api/v1/forms/tuning-visit").status_code == 200
            assert http.get("/f/venue").status_code == 404, "a record form has no page"
            assert http.get("/api/v1/suggest?q=abbey").status_code == 200
            filled = http.post(
                "/api/v1/forms/tuning-visit/slots/piano/fill", json={"address_id": "demo:GB0000001"}
            )
            assert filled.status_code == 200
            assert time.monotonic() - began < 2 * SLOWNESS
            began = time.monotonic()
            kept = http.post("/api/v1/forms/tuning-visit/records", json={"slots": {"piano": {"country_code": "GB"}}, "values": {
                "contact": "A", "phone": "+44 20 555 0100", "visit": "tuning", "piano_number": "1",
                "piano_street": "S", "piano_town": "T", "piano_postcode": "QV1 1AA",
            }})  # fmt: skip
            assert (kept.status_code, kept.headers["Retry-After"]) == (503, "2")
            assert time.monotonic() - began < PATIENCE, "it was waited for"
        finally:
            os.kill(database, signal.SIGCONT)
        scratch_stack.until_database()
