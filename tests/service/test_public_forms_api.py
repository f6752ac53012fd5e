"""What keeps programs from filling web forms, and what a form that is open to all may be asked."""

import itertools
import time

import pytest
from sqlalchemy import text

from anchorline.client import Client, FormDocument
from tests.states import ANY_STATE

FORM = {
    "key": "guarded",
    "kind": "web",
    "title": "Guarded",
    "fields": [{"key": "name", "label": "Name"}],
}


NUMBERS = itertools.count()


def publish(stack, key="guarded", slots=(), **public):
    document = {**FORM, "key": key, "slots": list(slots), **({"public": public} if public else {})}
    with Client(stack.url, stack.access["server_key"]) as client:
        there = key in {form.key for form in client.forms.list()}
        etag = client.forms.draft(key)[1] if there else None
        client.forms.put_draft(FormDocument.model_validate(document), etag=etag)
        client.forms.publish(key)


@pytest.fixture
def visitor(stack):
    """Somebody on the form's public page: what it was opened with, and how it is sent."""

    def send(key="guarded", **body):
        with stack.http(None) as http:
            page = http.get(f"/f/{key}").text
            token = page.split('access="')[1].split('"')[0]
            headers = {"Authorization": f"Bearer {token}"}
            time.sleep(body.pop("after", 0))
            return http.post(
                f"/api/v1/forms/{key}/records",
                json={"values": {"name": "x"}, **body},
                headers=headers,
            )

    return send


def test_what_comes_sooner_than_a_person_can_fill_it_is_not_kept(stack, visitor):
    publish(stack, least_seconds=4)
    soon = visitor()
    assert soon.status_code == 422
    assert "Wait 4 seconds and send it again" in soon.json()["detail"]
    assert visitor(after=4.2).status_code == 201


def test_who_fills_what_nobody_sees_is_no_person(stack, visitor):
    publish(stack, least_seconds=0)
    trapped = visitor(trap="https://spam.example")
    assert trapped.status_code == 422
    assert trapped.json()["errors"][0]["pointer"] == "/trap"
    publish(stack, least_seconds=0, without_trap=True)
    assert visitor(trap="https://spam.example").status_code == 201


def test_one_network_address_makes_so_many_records_a_minute(stack, visitor):
    publish(stack, "guarded-rate", least_seconds=0, most_per_minute=3)
    answers = [visitor("guarded-rate") for _ in range(5)]
    assert [answer.status_code for answer in answers] == [201, 201, 201, 429, 429]
    assert answers[-1].status_code == 429
    assert int(answers[-1].headers["Retry-After"]) > 0
    with stack.http() as server:
        body = {"values": {"name": "x"}}
        assert server.post("/api/v1/forms/guarded-rate/records", json=body).status_code == 201


def test_a_closed_form_says_so_and_keeps_nothing(stack, visitor):
    publish(stack)
    with stack.http(None) as http:
        token = http.get("/f/guarded").text.split('access="')[1].split('"')[0]
    publish(stack, closed=True, closed_text="Back in <b>May</b>.")
    with stack.http(None) as http:
        page = http.get("/f/guarded").text
        assert "Back in &lt;b&gt;May&lt;/b&gt;." in page
        assert "anchorline-form" not in page
        headers = {"Authorization": f"Bearer {token}"}
        late = http.post("/api/v1/forms/guarded/records", json={"values": {}}, headers=headers)
    assert (late.status_code, late.json()["detail"]) == (403, "Back in <b>May</b>.")


GUARDS = [
    ({"closed": True}, {}, 403, "This form is closed"),
    ({"closed": True, "closed_text": "Back in May."}, {}, 403, "Back in May."),
    ({}, {"trap": "x"}, 422, "The request has 1 problem"),
    ({"least_seconds": 600}, {"seconds": 5}, 422, "Wait 600 seconds"),
]


@pytest.mark.parametrize("as_whom", ["page", "browser"])
@pytest.mark.parametrize(("now", "body", "status", "detail"), GUARDS)
def test_who_names_an_earlier_version_is_guarded_as_the_one_in_force_says(
    stack, earlier, as_whom, now, body, status, detail
):
    key, send = earlier(as_whom, least_seconds=0, without_trap=True)
    assert send().status_code == 201
    publish(stack, key, **now)
    refused = send(**body)
    assert (refused.status_code, detail in refused.json()["detail"]) == (status, True)


def test_an_earlier_version_has_no_more_records_a_minute_than_the_one_in_force(stack, earlier):
    key, send = earlier("page", least_seconds=0, most_per_minute=50)
    publish(stack, key, least_seconds=0, most_per_minute=2)
    assert [send().status_code for _ in range(4)] == [201, 201, 429, 429]


def test_a_country_that_is_not_served_any_more_is_refused_on_an_earlier_version_too(stack, earlier):
    parts = [{"key": "town", "component": "town"}, {"key": "code", "component": "postcode"}]
    home = {"key": "home", "label": "Home", "countries": ["GB", "FR"], "parts": parts}
    home["mapping"] = [{"components": [part["component"]], "into": part["key"]} for part in parts]
    key, send = earlier("page", least_seconds=0, slots=[home])
    publish(stack, key, least_seconds=0, slots=[{**home, "countries": ["GB"]}])
    there = {"values": {"name": "x", "town": "Lyre"}, "slots": {"home": {"country_code": "FR"}}}
    refused = send(**there)
    assert refused.status_code == 422
    assert refused.json()["errors"][0]["pointer"] == "/slots/home/country_code"


def test_what_was_kept_before_a_form_was_closed_is_not_said_to_be_lost(stack, earlier):
    key, send = earlier("page", least_seconds=0)
    again = {"Idempotency-Key": "before-it-was-closed"}
    kept = send(headers=again)
    publish(stack, key, closed=True)
    assert send(headers=again).json()["id"] == kept.json()["id"]
    assert send(headers={"Idempotency-Key": "after-it-was-closed"}).status_code == 403
    assert send(headers=again, values={"name": "y"}).status_code == 403


@pytest.fixture
def earlier(stack):
    """Publishes a form, opens it, and sends what it was opened with, whatever is published since."""

    def opened(as_whom, **public):
        key = f"earlier-{next(NUMBERS)}"
        publish(stack, key, **public)
        with stack.http(None) as http:
            token = http.get(f"/f/{key}").text.split('access="')[1].split('"')[0]
        headers = {"Authorization": f"Bearer {token}"}
        if as_whom == "browser":
            made = {
                "kind": "browser",
                "name": key,
                "origins": ["https://shop.example"],
                "forms": [key],
            }
            with stack.http(None) as http:
                http.cookies = stack.session()
                csrf = {"X-CSRF-Token": http.get("/api/v1/session").json()["csrf_token"]}
                shown = http.post("/api/v1/keys", json=made, headers=csrf).json()
            headers = {
                "Authorization": f"Bearer {shown['secret']}",
                "Origin": "https://shop.example",
            }
        with stack.http(None) as http:
            version = http.get(f"/api/v1/forms/{key}", headers=headers).json()["version"]

        def send(headers_=headers, **body):
            more = body.pop("headers", {})
            with stack.http(None) as http:
                return http.post(
                    f"/api/v1/forms/{key}/records",
                    json={"values": {"name": "x"}, "version": version, **body},
                    headers={**headers_, **more},
                )

        return key, send

    return opened


def test_its_page_stands_in_frames_of_the_named_sites_alone(stack):
    publish(stack, sites=["https://shop.example", "http://127.0.0.1:9999"])
    with stack.http(None) as http:
        policy = http.get("/f/guarded").headers["Content-Security-Policy"]
    assert "frame-ancestors https://shop.example http://127.0.0.1:9999" in policy
    publish(stack)
    with stack.http(None) as http:
        assert "frame-ancestors 'none'" in http.get("/f/guarded").headers["Content-Security-Policy"]


@pytest.mark.parametrize(
    "site",
    [
        "shop.example",
        "https://shop.example/path",
        "https://a; script-src *",
        "javascript:x",
        "https://*",
        "https://*.shop.example",
        "http://*:*",
        "https://",
    ],
)
def test_what_is_no_origin_is_refused(stack, site):
    with stack.http() as http:
        document = {**FORM, "key": "no-origin", "public": {"sites": [site]}}
        answer = http.put("/api/v1/forms/no-origin/draft", json=document)
    assert answer.status_code == 422
    assert answer.json()["errors"][0]["pointer"] == "/public/sites/0"


def test_a_site_that_an_earlier_release_took_for_all_sites_frames_nothing(stack, stack_database):
    publish(stack, "earlier-site", sites=["https://shop.example"])

    def work(session):
        for table, column, key in (
            ("document", "draft", "`key`"),
            ("document_version", "document", "document_key"),
        ):
            session.execute(
                text(f"UPDATE {table} SET {column} = REPLACE({column}, 'https://shop.example', "
                     f"'https://*') WHERE kind = 'form' AND {key} = 'earlier-site'")
            )  # fmt: skip

    stack_database.run(work)
    with stack.http(None) as http:
        page = http.get("/f/earlier-site")
        assert "frame-ancestors 'none'" in page.headers["Content-Security-Policy"]
        token = page.text.split('access="')[1].split('"')[0]
        headers = {"Authorization": f"Bearer {token}"}
        assert http.get("/api/v1/forms/earlier-site", headers=headers).status_code == 200


def test_a_page_finds_what_is_near_and_where_something_is(stack):
    publish(stack)
    with stack.http(None) as http:
        token = http.get("/f/guarded").text.split('access="')[1].split('"')[0]
        headers = {"Authorization": f"Bearer {token}"}
        near = http.get(
            "/api/v1/nearest?latitude=51.535459&longitude=-2.880898&limit=2", headers=headers
        )
        assert [one["country_code"] for one in near.json()["addresses"]] == ["GB", "GB"]
        exact = http.get(
            "/api/v1/position?q=16+abbey+mews+brackwater&country=GB", headers=headers
        ).json()
        assert (exact["count"], exact["latitude"], exact["longitude"]) == (1, 51.535459, -2.880898)
        part = http.get("/api/v1/position?q=QV1&country=GB", headers=headers).json()
        assert (part["label"], part["count"] > 1) == ("QV1", True)
        assert http.get("/api/v1/position?q=zzzzzz", headers=headers).status_code == 404
        assert http.get("/api/v1/position?q=x&datasets=dmeo", headers=headers).status_code == 422


def test_searches_keep_to_their_datasets(stack):
    with stack.http() as http:
        assert http.get("/api/v1/suggest?q=abbey&datasets=demo").json()["suggestions"]
        wrong = http.get("/api/v1/suggest?q=abbey&datasets=dmeo")
    assert "Did you mean demo" in wrong.json()["errors"][0]["detail"]


def test_dial_codes_and_numbers_are_answered(stack):
    with stack.http() as http:
        assert http.get("/api/v1/dial-codes").json()["dial_codes"]["GB"] == 44
        ask = {"number": "020 7946 0123", "country_code": "GB"}
        assert http.post("/api/v1/phone-checks", json=ask).json() == {
            "e164": "+442079460123", "country_code": "GB",
            "national": "020 7946 0123", "international": "+44 20 7946 0123",
        }  # fmt: skip
        assert http.post("/api/v1/phone-checks", json={"number": "12"}).json()["e164"] is None


def test_a_dataset_that_there_is_not_stands_against_publishing(stack):
    slot = {"key": "home", "label": "Home", "datasets": ["dmeo"]}
    document = {**FORM, "key": "no-dataset", "slots": [slot]}
    with stack.http() as http:
        kept = http.put("/api/v1/forms/no-dataset/draft?unfinished=true", json=document).json()
        assert kept["problems"][0]["pointer"] == "/slots/0/datasets/0"
        refused = http.post("/api/v1/forms/no-dataset/publish", headers=ANY_STATE)
    assert refused.status_code == 422
    assert "Did you mean demo" in refused.json()["errors"][0]["detail"]
