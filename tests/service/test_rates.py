"""Callers whom anybody can be have a rate by key and by address."""

import random
import time
from contextlib import suppress

import pytest
from hypothesis import given
from hypothesis import strategies as st

from anchorline.service.allowed import Allowed
from anchorline.service.problems import ProblemError
from anchorline.service.rates import Rate, Rates


class Now:
    time = 1000.0

    def __call__(self):
        return self.time


@pytest.fixture
def now():
    return Now()


@pytest.fixture
def rates(now):
    return Rates(now)


def taken(rates, subject, rate, count):
    return sum(rates.take(subject, rate) == 0 for _ in range(count))


@pytest.mark.parametrize(("each", "burst"), [(1, 1), (10, 200), (50, 1000), (0.5, 3)])
def test_exactly_a_burst_comes_at_once_and_then_as_many_as_time_allows(rates, now, each, burst):
    rate, subject = Rate(each, burst), ("calls", "a")
    assert taken(rates, subject, rate, burst + 50) == burst
    now.time += 10 / each
    assert taken(rates, subject, rate, burst + 50) == min(10, burst)


def test_a_refusal_says_when_the_next_may_come(rates, now):
    rate, subject = Rate(0.1, 1), ("calls", "a")
    assert rates.take(subject, rate) == 0
    assert rates.take(subject, rate) == 10
    now.time += 9.99
    assert rates.take(subject, rate) == 1
    now.time += 0.02
    assert rates.take(subject, rate) == 0


@given(st.lists(st.tuples(st.floats(0, 3), st.integers(0, 3)), max_size=200))
def test_no_order_of_calls_gets_more_through_than_the_rate_allows(steps):
    now = Now()
    rates, rate, through = Rates(now), Rate(2, 4), {}
    for pause, who in steps:
        now.time += pause
        if rates.take(("calls", str(who)), rate) == 0:
            through.setdefault(who, []).append(now.time)
    for times in through.values():
        for first in range(len(times)):
            for last in range(first, len(times)):
                assert last - first + 1 <= 4 + 2 * (times[last] - times[first]) + 1e-6


def test_very_many_others_take_nothing_away_from_somebody(rates):
    rate = Rate(1, 20)
    for number in random.Random(1).sample(range(10**9), 5000):
        rates.take(("calls", f"other {number}"), rate)
    mine = [taken(rates, ("calls", f"mine {n}"), rate, 30) for n in range(200)]
    assert min(mine) >= 18


@pytest.fixture
def allowed():
    return Allowed((Rate(1, 3), Rate(1, 5)), (Rate(1, 6), Rate(1, 50)))


def count(allowed, key, address, *, often=False, tries=20):
    """How many tries come through before the first that is refused."""
    for number in range(tries):
        with suppress(ProblemError):
            allowed.take(key, address, often=often)
            continue
        return number
    return tries


def test_a_refusal_is_a_429_with_a_pause(allowed):
    count(allowed, "one", "10.0.0.1")
    with pytest.raises(ProblemError, match="Too many calls in a short time") as refused:
        allowed.take("one", "10.0.0.1", often=False)
    assert (refused.value.status, refused.value.headers["Retry-After"]) == (429, "1")


def test_an_address_has_its_rate_whatever_keys_it_presents(allowed):
    assert count(allowed, "one", "10.0.0.1") == 3
    assert count(allowed, "two", "10.0.0.1") == 0
    assert count(allowed, "two", "10.0.0.2") == 3


def test_a_key_has_its_rate_from_however_many_addresses(allowed):
    through = sum(count(allowed, "one", f"10.0.1.{n}", tries=2) for n in range(10))
    assert through == 6


def test_searches_are_counted_apart_from_other_calls(allowed):
    assert count(allowed, "one", "10.0.0.1") == 3
    assert count(allowed, "one", "10.0.0.1", often=True) == 5


def test_a_browser_key_that_takes_addresses_in_bulk_is_slowed_down(scratch_stack):
    began = time.monotonic()
    taken = 0
    with scratch_stack.http("browser_key") as http:
        while (refused := http.get("/api/v1/addresses/demo:GB0000001")).status_code == 200:
            taken += 1
            assert taken <= 200 + 10 * (time.monotonic() - began), "more than its rate lets through"
    assert refused.status_code == 429
    assert int(refused.headers["Retry-After"]) >= 1
    assert "Too many calls" in refused.json()["detail"]
    with scratch_stack.http() as trusted:
        assert {
            trusted.get("/api/v1/addresses/demo:GB0000001").status_code for _ in range(320)
        } == {200}


def test_wrong_keys_are_slowed_down(scratch_stack):
    statuses = []
    with scratch_stack.http(None) as http:
        while 429 not in statuses:
            wrong = {"Authorization": f"Bearer anl_server_{len(statuses)}_x"}
            statuses.append(http.get("/api/v1/layouts", headers=wrong).status_code)
            assert len(statuses) < 5000
    assert set(statuses) == {401, 429}


@pytest.mark.parametrize(
    ("headers", "status"),
    [
        ({}, 403),
        ({"Origin": "https://elsewhere.example"}, 403),
        ({"Origin": "null"}, 403),
        ({"Origin": ""}, 403),
        ({"Origin": "OWN"}, 200),
        ({"Sec-Fetch-Site": "same-origin"}, 200),
        ({"Sec-Fetch-Site": "cross-site"}, 403),
        ({"Sec-Fetch-Site": "same-origin", "Origin": "https://elsewhere.example"}, 403),
    ],
)
def test_a_browser_key_is_good_on_pages_of_its_origins_only(stack, headers, status):
    given = {name: stack.url if value == "OWN" else value for name, value in headers.items()}
    with stack.http(None, Authorization=f"Bearer {stack.access['browser_key']}", **given) as http:
        assert http.get("/api/v1/suggest?q=kiln").status_code == status
        assert http.get("/api/v1/addresses/demo:GB0000001").status_code == status
