"""Allowances over the API: counted once, refused at the end, exact whoever is killed."""

import os
import signal
import threading

import httpx
import pytest

from anchorline.client import Client, TooManyError
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
    with pytest.raises(TooManyError, match=r"its limit is 2\. Capture by hand goes on"):
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
    (database,) = [pid for pid, command in commands.items() if "--datadir" in command]
    os.kill(database, signal.SIGKILL)
    for thread in threads:
        thread.join()
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
