"""Carrying calls over: in parts that a database takes, whatever becomes of one of them."""

import time

from anchorline.service.activity import Activity
from anchorline.service.middleware import ARRIVED
from anchorline.store.activity import Observation
from anchorline.store.database import DatabaseUnavailableError
from tests.waiting import wait_until


class Kept:
    """A store that keeps calls in memory, and is away, or fails, as often as it is told to."""

    def __init__(self, *failures):
        self.failures, self.batches = list(failures), []

    def keep(self, calls):
        if self.failures:
            raise self.failures.pop(0)
        self.batches.append(list(calls))

    def observations(self):
        return [Observation("form", "venue", None, "steward")]


def noted(activity, number, **environ):
    asked = {"REQUEST_METHOD": "GET", "PATH_INFO": "/x", ARRIVED: time.perf_counter(), **environ}
    for _ in range(number):
        activity.note(asked, "finding.suggest", 200, 1.0, lambda: b"a" * 60_000)


def test_what_is_observed_goes_to_the_database_in_parts_that_it_takes():
    store = Kept()
    activity = Activity(store)
    activity.learn()
    noted(activity, 100, **{"anchorline.about": "venue"})
    activity.carry_over()
    assert sum(map(len, store.batches)) == 100
    assert max(sum(len(one.answer) for one in batch) for batch in store.batches) < 4_000_000


def test_calls_wait_while_the_database_is_away_and_one_failure_ends_nothing():
    store = Kept(DatabaseUnavailableError("away"), RuntimeError("some other"))
    activity = Activity(store)
    noted(activity, 3)
    activity.begin()
    wait_until(lambda: not store.failures)
    noted(activity, 2)
    wait_until(lambda: sum(map(len, store.batches)) == 2)


def test_calls_that_come_while_others_are_kept_wait_for_the_next_time():
    class Busy(Kept):
        """While it keeps calls, more of them come; a hundred at most."""

        def keep(self, calls):
            super().keep(calls)
            if len(self.batches) < 50:
                noted(activity, 2)

    store = Busy()
    activity = Activity(store)
    noted(activity, 5)
    activity.carry_over()
    activity.carry_over()
    assert [len(batch) for batch in store.batches] == [5, 2]
