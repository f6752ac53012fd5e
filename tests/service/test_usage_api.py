"""Allowances over the API: counted once, refused at the end, exact whoever is killed."""

import os
import signal
import threading

import httpx
import pytest

from anchorline.client import Client, FormDocument, TooManyError
from tests.waiting import wait_until

from .test_crash import processes_of


def count_of(client, key):
    found = client.activity.usage().subjects
    return next(one for one in found if one.subject == key)


@pytest.fixture
def finding_key(client):
    made = client.keys.make("server", "Counted", scopes=["find", "records"])
    yield made
    client.keys.end(made.key.id)


@pytest.fixture
def holder(stack, finding_key):
    with Client(stack.url, finding_key.secret) as opened:
        yield opened


def test_what_is_counted_and_what_is_not(client, holder, finding_key):
    key = finding_key.key.id
    found = client.suggest("16 abbey mews").suggestions[0].id
    holder.suggest("16 abbey mews")
    assert count_of(client, key).count == 0, "searching costs nothing"
    for _ in range(3):
        holder.address(found, capture="one-page-1")
        holder.fill("tuning-visit", "piano", address_id=found, capture="one-page-1")
    holder.fill("tuning-visit", "piano", components={"country_code": "GB", "town": "Marl"})
    assert count_of(client, key).count == 1
    holder.postcode("GB", "QV1 1AA", capture="one-page-1")
    holder.postcode("GB", "QV1 1A", capture="one-page-1")
    assert count_of(client, key).count == 2, "a whole postcode, and not the list of some"
    holder.address(holder.suggest("1", country="GB", practice=True).suggestions[0].id)
    assert count_of(client, key).count == 2
    assert sum(day.count for day in count_of(client, key).days) == 2


def test_at_the_end_of_its_allowance_a_key_finds_but_fetches_no_more(client, holder, finding_key):
    key = finding_key.key.id
    addresses = [row.id for row in client.suggest("1 kiln", kinds=["address"]).suggestions][:3]
    client.keys.allow(key, 2, warn_share=0.5)
    for address in addresses[:2]:
        holder.address(address, capture="the-capture")
    assert count_of(client, key).state == "used_up"
    assert holder.suggest("kiln").suggestions
    holder.address(addresses[0], capture="the-capture")
    with pytest.raises(TooManyError, match=r"the limit is 2\. Capture by hand goes on"):
        holder.fill("tuning-visit", "piano", address_id=addresses[2], capture="the-capture")
    client.keys.allow(key, None)
    wait_until(lambda: _is_served(holder, addresses[2]), every=0.5)


def _is_served(holder, address):
    try:
        return holder.address(address).id == address
    except TooManyError:
        return False


def test_a_browser_key_is_told_at_its_end_that_typing_by_hand_goes_on(stack, client):
    origin = "https://shop.example"
    made = client.keys.make("browser", "Shop", origins=[origin], forms=["tuning-visit"])
    client.keys.allow(made.key.id, 0)
    found = client.suggest("16 abbey mews").suggestions[0].id
    headers = {"Authorization": f"Bearer {made.secret}", "Origin": origin}
    with httpx.Client(base_url=stack.url, headers=headers, trust_env=False) as http:
        path = "/api/v1/forms/tuning-visit/slots/piano/fill"
        answer = http.post(path, json={"address_id": found, "capture": "page-open-1"})
    assert answer.status_code == 429
    assert "Capture by hand goes on" in answer.json()["detail"]
    client.keys.end(made.key.id)


PART = {"key": "home_town", "component": "town"}
FORM = {
    "key": "page-allowance", "kind": "web", "title": "Page", "fields": [
        {"key": "name", "label": "Name"},
        {"key": "where", "type": "formula", "label": "Where", "formula": "LATITUDE(home)"},
    ],
    "slots": [{"key": "home", "label": "Home", "countries": ["GB"], "parts": [PART],
               "mapping": [{"components": ["town"], "into": "home_town"}]}],
}  # fmt: skip


@pytest.fixture
def visitor(stack, client):
    """Publishes a form and opens its public page: what anybody can do with its token."""
    opened = []

    def open_page(key, **public):
        document = {**FORM, "key": key, "public": {"least_seconds": 0, **public}}
        there = key in {form.key for form in client.forms.list()}
        client.forms.put_draft(
            FormDocument.model_validate(document),
            etag=client.forms.draft(key)[1] if there else None,
        )
        client.forms.publish(key)
        with stack.http(None) as http:
            token = http.get(f"/f/{key}").text.split('access="')[1].split('"')[0]
        headers = {"Authorization": f"Bearer {token}"}
        opened.append(
            httpx.Client(base_url=f"{stack.url}/api/v1/", headers=headers, trust_env=False)
        )
        return opened[-1]

    yield open_page
    for http in opened:
        http.close()


def some_addresses(client):
    """The ids of four addresses."""
    inside = client.suggest("kiln crescent", kinds=["street"]).suggestions[0]
    rows = client.suggest("", within=inside.id, limit=10).suggestions
    found = [row.id for row in rows if row.count == 1][:4]
    assert len(found) == 4
    return found


def test_a_public_page_fetches_as_many_as_its_form_says_whoever_opens_it(client, visitor):
    found = some_addresses(client)
    first = visitor("page-month", addresses_per_month=4, addresses_per_day=2)
    path = "forms/page-month/slots/home/fill"
    assert first.post(path, json={"address_id": found[0]}).status_code == 200
    assert count_of(client, "page page-month").state == "within"
    assert first.get(f"addresses/{found[1]}").status_code == 200
    assert count_of(client, "page page-month").state == "used_up"
    assert "public page of page-month" in {one.name for one in client.overview().allowances}
    second = visitor("page-month", addresses_per_month=4, addresses_per_day=2)
    refused = second.post(path, json={"address_id": found[2]})
    assert refused.status_code == 429
    assert "today: the limit is 2. Capture by hand goes on" in refused.json()["detail"]
    assert second.get("suggest?q=kiln").status_code == 200, "searching goes on"
    more = visitor("page-month", addresses_per_month=3, addresses_per_day=100)
    assert more.post(path, json={"address_id": found[2]}).status_code == 200
    assert "the limit is 3" in more.post(path, json={"address_id": found[3]}).json()["detail"]
    assert count_of(client, "page page-month").day_limit == 100


def test_an_administrator_is_told_before_a_page_has_used_up_its_allowance(client, visitor):
    found = some_addresses(client)
    page = visitor("page-near", addresses_per_month=5)
    for number, address in enumerate(found):
        told = {one.name: one.state for one in client.overview().allowances}
        assert ("public page of page-near" in told) == (number > 3)
        page.get(f"addresses/{address}")
    told = {one.name: one.state for one in client.overview().allowances}
    assert told["public page of page-near"] == "near"


def test_a_submit_answers_nothing_of_an_address_that_was_not_fetched(client, visitor):
    page = visitor("page-receipt")
    address = client.suggest("16 abbey mews").suggestions[0].id
    body = {
        "values": {"name": "x", "home_town": "Lyre"},
        "slots": {"home": {"address_id": address, "country_code": "GB"}},
    }
    sent = page.post("forms/page-receipt/records", json=body)
    assert sent.status_code == 201, sent.text
    assert set(sent.json()) == {"id", "form", "form_version", "made_at", "language", "values"}
    assert sent.json()["values"] == body["values"]
    for said in ("51.5", "-2.8", "Abbey", "Brackwater", "QV1", "residential"):
        assert said not in sent.text
    kept = client.record(sent.json()["id"])
    assert kept.slots["home"].facts.latitude == kept.values["where"] == 51.535459
    assert not [
        one for one in client.activity.usage().subjects if one.subject == "page page-receipt"
    ]


def test_a_key_with_an_allowance_is_told_no_facts_by_a_submit(stack, client, visitor, finding_key):
    visitor("limited-receipt")
    address = client.suggest("16 abbey mews").suggestions[0].id
    slots = {"home": {"address_id": address, "country_code": "GB"}}
    headers = {"Authorization": f"Bearer {finding_key.secret}"}

    def told():
        with httpx.Client(base_url=stack.url, headers=headers, trust_env=False) as http:
            body = {"values": {"name": "x", "home_town": "Lyre"}, "slots": slots}
            sent = http.post("/api/v1/forms/limited-receipt/records", json=body)
        assert sent.status_code == 201
        return sent.json()["slots"]["home"]["facts"]["latitude"]

    assert told() == 51.535459
    client.keys.allow(finding_key.key.id, 0)
    wait_until(lambda: told() is None, every=0.5)


def test_what_is_near_has_no_place_and_a_place_of_one_address_counts(client, visitor):
    page = visitor("page-places")
    near = page.get("nearest?latitude=51.535459&longitude=-2.880898&limit=2").json()["addresses"]
    assert set(near[0]) == {"id", "label", "distance_m", "country_code"}
    subject = "page page-places"
    assert subject not in {one.subject for one in client.activity.usage().subjects}
    around = page.get("surroundings?latitude=51.535459&longitude=-2.880898").json()["places"]
    assert around
    for place in around:
        assert round(place["latitude"] / 0.0002, 6).is_integer()
        assert abs(place["latitude"] - 51.535459) < 0.01
    page.get("position?q=QV1&country=GB")
    assert subject not in {one.subject for one in client.activity.usage().subjects}
    for _ in range(2):
        exact = page.get("position?q=16+abbey+mews+brackwater&country=GB&capture=one-page-9")
        assert exact.json()["count"] == 1
    assert count_of(client, subject).count == 1


@pytest.mark.ruins
def test_counted_is_what_was_served_whatever_is_killed(scratch_stack):
    """Eight threads, two processes that answer; one of those and the database die meanwhile."""
    with Client(scratch_stack.url, scratch_stack.access["server_key"]) as client:
        made = client.keys.make("server", "Exact", scopes=["find"])
        address = client.suggest("1", kinds=["address"]).suggestions[0].id
    served = []

    def capture(thread):
        headers = {"Authorization": f"Bearer {made.secret}"}
        with httpx.Client(base_url=scratch_stack.url, headers=headers, trust_env=False) as http:
            for number in range(25):
                name = f"capture-{thread}-{number}"
                wait_until(lambda name=name: _fetched(http, address, name), every=0.02)
                served.append(name)

    threads = [threading.Thread(target=capture, args=(number,)) for number in range(8)]
    for thread in threads:
        thread.start()
    wait_until(lambda: len(served) > 40)
    commands = processes_of(scratch_stack)
    answering = sorted(pid for pid, command in commands.items() if "service answer" in command)
    os.kill(answering[-1], signal.SIGKILL)
    database = scratch_stack.database_pid()
    os.kill(database, signal.SIGKILL)
    for thread in threads:
        thread.join()
    scratch_stack.until_database(other_than=database)
    assert len(served) == 200
    with Client(scratch_stack.url, scratch_stack.access["server_key"]) as client:
        wait_until(lambda: count_of(client, made.key.id).count >= 200, every=0.5)
        assert count_of(client, made.key.id).count == 200


def _fetched(http, address, capture):
    try:
        answer = http.get(f"/api/v1/addresses/{address}", params={"capture": capture}, timeout=20)
    except httpx.TransportError:
        return False
    return answer.status_code == 200
