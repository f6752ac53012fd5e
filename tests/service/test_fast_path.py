"""A call of every keystroke takes the fast path, and is answered as by the application."""

import itertools
from urllib.parse import urlencode

import pytest
from flask import Flask
from hypothesis import given, settings
from hypothesis import strategies as st
from werkzeug.test import Client

from anchorline.service.app import ROUTERS, create_app, metrics_of, services_of
from anchorline.service.fast_path import FastPath
from anchorline.service.middleware import Middleware
from anchorline.service.settings import read_settings
from anchorline.store.database import Database

PATH = "/api/v1/suggest"


class Usual:
    """The application without the fast path; counts what is handed to it."""

    def __init__(self, app):
        self.app, self.handed = app, 0

    def __call__(self, environ, start_response):
        self.handed += 1
        return Flask.wsgi_app(self.app, environ, start_response)


class Ways:
    """The same application with and without the fast path before it."""

    def __init__(self, app, key):
        self.behind = Usual(app)
        self.short = Client(
            Middleware(FastPath(self.behind, ROUTERS, services_of(app), metrics_of(app)))
        )
        self.usual = Client(Middleware(Usual(app)))
        self.key = {"Authorization": f"Bearer {key}"}

    def ask(self, query="q=kiln", *, method="GET", path=PATH, headers=None):
        """The answer, the same by both, and whether the fast path handed it on."""
        before = self.behind.handed
        headers = self.key if headers is None else headers
        answers = [
            way.open(path, query_string=query, method=method, headers=headers)
            for way in (self.short, self.usual)
        ]
        short, usual = answers
        assert (short.status, short.data) == (usual.status, usual.data)
        assert sorted(short.headers) == sorted(usual.headers)
        return short, self.behind.handed > before


@pytest.fixture(scope="module")
def app(stack):
    quiet = {**stack.environment, "ANCHORLINE_LOG_LEVEL": "error"}
    database = Database(stack.database_url)
    yield create_app(read_settings(quiet), database)
    database.close()


@pytest.fixture(scope="module")
def ways(app, stack):
    return Ways(app, stack.access["server_key"])


@pytest.mark.parametrize(
    "query",
    ["q=kiln", "q=kiln+cres+12&country=GB,FR&limit=3", "q=%C3%A9pinoy&kinds=town", "q=&trace=true",
     "q=kiln&q=abbey", "q=99+abbey+mews&near=51.5,-2.9", "q=\u672c\u753a&language=ja-Latn", "q=%ff", ""],
)  # fmt: skip
def test_a_plain_search_takes_the_short_way(ways, query):
    answer, handed_on = ways.ask(query)
    assert answer.status_code == 200
    assert answer.json["edition"] == "demo@1"
    assert not handed_on


@settings(max_examples=60)
@given(
    q=st.text(st.characters(exclude_categories=["Cs"]), max_size=30),
    country=st.sampled_from(["", "GB", "FR,DE", "XX"]),
    limit=st.sampled_from(["1", "8", "0", "x"]),
)
def test_any_search_is_answered_alike_by_both_ways(ways, q, country, limit):
    ways.ask(urlencode({"q": q, "country": country, "limit": limit}))


def test_a_search_that_is_known_already_is_not_sent_again(ways):
    tag = ways.ask()[0].headers["ETag"]
    answer, handed_on = ways.ask(headers={**ways.key, "If-None-Match": tag})
    assert (answer.status_code, answer.data, handed_on) == (304, b"", False)
    assert "Content-Type" not in answer.headers


def test_pages_of_other_origins_may_read_the_answer(ways, stack):
    browser = {
        "Authorization": f"Bearer {stack.access['browser_key']}", "Origin": stack.url,
    }  # fmt: skip
    answer, handed_on = ways.ask(headers={**browser, "Origin": stack.url})
    assert answer.headers["Access-Control-Allow-Origin"] == stack.url
    assert not handed_on
    refused, handed_on = ways.ask(headers={**browser, "Origin": "https://evil.example"})
    assert (refused.status_code, handed_on) == (403, False)


@pytest.mark.parametrize(
    ("status", "given"),
    [
        (401, {"headers": {}}),
        (401, {"headers": {"Authorization": "Bearer anl_server_x_y"}}),
        (422, {"query": "contry=GB"}),
        (422, {"query": "q=kiln&limit=many"}),
        (404, {"query": "within=demo:~1"}),
        (422, {"headers": {"If-None-Match": "x" * 201}}),
    ],
)
def test_what_is_refused_is_refused_at_once_with_the_same_problem(ways, status, given):
    if status == 422:
        given = {**given, "headers": {**ways.key, **given.get("headers", {})}}
    answer, handed_on = ways.ask(**given)
    assert answer.status_code == status
    assert answer.headers["Content-Type"] == "application/problem+json"
    assert not handed_on


@pytest.mark.parametrize(
    ("status", "given"),
    [
        (405, {"method": "POST"}),
        (404, {"path": f"{PATH}/"}),
        (200, {"method": "HEAD"}),
        (200, {"path": "/api/v1/layouts", "query": ""}),
    ],
)
def test_other_addresses_and_methods_are_handed_on(ways, status, given):
    answer, handed_on = ways.ask(**given)
    assert answer.status_code == status
    assert handed_on


def test_a_failure_is_answered_as_by_the_application(ways, app, monkeypatch):
    def fail():
        raise RuntimeError("broken")

    monkeypatch.setattr(services_of(app).gazetteer, "current", fail)
    answer, handed_on = ways.ask()
    assert (answer.status_code, handed_on) == (500, False)
    assert answer.headers["Content-Type"] == "application/problem+json"


@pytest.mark.parametrize("query", ["q=kiln", "q=kiln&limit=many", "within=demo:~1"])
def test_a_call_counts_once_whatever_becomes_of_it(ways, app, stack, monkeypatch, query):
    services, metrics = services_of(app), metrics_of(app)
    taken, counted = [], []
    monkeypatch.setattr(type(services.gate._allowed.rates), "take", lambda *a: taken.append(a) or 0)
    monkeypatch.setattr(type(metrics), "count", lambda *a: counted.append(a))
    key = {"Authorization": f"Bearer {stack.access['browser_key']}", "Origin": stack.url}
    ways.short.get(PATH, query_string=query, headers=key)
    assert len(taken) == 2, "of its address, and of its key"
    assert len(counted) == 1


def test_only_what_has_no_parts_in_its_path_and_changes_nothing_is_asked_at_every_key():
    endpoints = itertools.chain.from_iterable(router.endpoints for router in ROUTERS)
    (only,) = (endpoint for endpoint in endpoints if endpoint.fast)
    assert (only.method, only.rule, only.body) == ("GET", "/suggest", None)
