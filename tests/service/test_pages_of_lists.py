"""Every list of the API that pages: each entry once, in one order, whatever comes in meanwhile."""

import pytest

from anchorline.client import Client
from anchorline.wire.target_runs import TargetRunReport

RUN = {
    "address": "a", "version": 1, "outcome": "verified", "stop": "", "ms": 1, "detail": "",
    "machine": "", "fields": [], "log": [],
}  # fmt: skip
COUNT = 7


@pytest.fixture(scope="module")
def server(stack):
    with stack.http() as http:
        http.base_url = f"{stack.url}/api/v1/"
        yield http


@pytest.fixture(scope="module")
def client(stack):
    with Client(stack.url, stack.access["server_key"]) as opened:
        yield opened


@pytest.fixture(scope="module")
def some_keys(client):
    made = [client.keys.make("server", f"Pages {n}", scopes=["find"]).key.id for n in range(COUNT)]
    yield made
    for one in made:
        client.keys.end(one)


@pytest.fixture(scope="module")
def some_datasets(server):
    names = [f"pages-{n}" for n in range(COUNT)]
    for name in names:
        assert server.put(f"datasets/{name}/rules", json={}).status_code == 200
    yield names
    for name in names:
        server.delete(f"datasets/{name}")


@pytest.fixture(scope="module")
def some_runs(client):
    seen = [{"kind": "program", "text": "ledger"}]
    proposed = client.programs.propose("pages-of-runs", "Runs", [seen], fields=[{"label": "Town"}])
    client.targets.put_draft(proposed.document)
    for number in range(COUNT):
        report = TargetRunReport.model_validate({**RUN, "ms": number})
        client.programs.report_run("pages-of-runs", report)
    yield [str(n) for n in reversed(range(COUNT))]
    client.targets.delete("pages-of-runs")


LISTS = {
    "keys": ("some_keys", "keys", "id"),
    "datasets": ("some_datasets", "datasets", "name"),
    "targets/pages-of-runs/runs": ("some_runs", "runs", "ms"),
}


@pytest.mark.parametrize("path", LISTS)
@pytest.mark.parametrize("limit", [1, 2, COUNT, 500])
def test_all_pages_together_are_the_list_and_the_last_says_so(request, server, path, limit):
    fixture, plural, name = LISTS[path]
    ours = request.getfixturevalue(fixture)
    found, after = [], None
    while True:
        page = server.get(path, params={"limit": limit} | ({"after": after} if after else {}))
        assert page.status_code == 200, page.text
        listed = page.json()[plural]
        assert len(listed) <= limit
        found += [str(one[name]) for one in listed]
        after = page.json()["after"]
        if after is None:
            break
        assert len(listed) == limit
    assert len(found) == len(set(found))
    assert [one for one in found if one in ours] == ours


@pytest.mark.parametrize("path", LISTS)
def test_what_is_no_cursor_of_this_list_is_refused(request, server, path):
    for fixture, _plural, _name in LISTS.values():
        request.getfixturevalue(fixture)
    others = [
        server.get(other, params={"limit": 1}).json()["after"] for other in LISTS if other != path
    ]
    assert None not in others
    for after in ("x", "W10=", "W251bGwsbnVsbF0=", *others):
        answer = server.get(path, params={"after": after})
        assert answer.status_code == 422, after
        (error,) = answer.json()["errors"]
        assert error["pointer"] == "?after"
        assert "not handed out by this list" in error["detail"]
    for limit in (0, 501, "x"):
        assert server.get(path, params={"limit": limit}).status_code == 422


def test_a_cursor_of_keys_with_a_time_that_is_none_is_refused(server):
    from anchorline.store.cursors import Cursor

    for seen in ("yesterday", "0001-01-01T00:00:00+14:00", ""):
        after = Cursor("keys").after(seen, "x")
        assert server.get("keys", params={"after": after}).status_code == 422


def test_the_client_asks_for_all_pages(client, some_keys, some_datasets, monkeypatch):
    monkeypatch.setattr("anchorline.client.calls.MOST_A_PAGE", 2)
    assert [one.id for one in client.keys.list() if one.id in some_keys] == some_keys
    assert [
        one.name for one in client.datasets.list() if one.name in some_datasets
    ] == some_datasets
