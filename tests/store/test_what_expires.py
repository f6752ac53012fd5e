"""What has expired is deleted, at its time and no earlier; nothing else is."""

from datetime import timedelta

import pytest

from anchorline.store.activity import ActivityStore, NewCall, WantedCalls
from anchorline.store.document_editors import DocumentEditors
from anchorline.store.idempotency import IdempotencyKey, kept_for, note_key
from anchorline.store.job_model import NewJob
from anchorline.store.jobs import JobStore
from anchorline.store.looks import LOOKS_REMEMBERED, LookStore
from anchorline.store.purge import (
    EDITORS_REMEMBERED,
    JOBS_REMEMBERED,
    KEYS_REMEMBERED,
    UPLOADS_WAITED_FOR,
    purge_expired,
)
from anchorline.store.target_runs import RUNS_REMEMBERED, TargetRuns

DAYS = 14


def call(clock, subject, **more):
    return NewCall(clock().timestamp(), subject, "", "finding.suggest", "", 200, 1.25, **more)


@pytest.fixture
def purge(database):
    return lambda: purge_expired(database, DAYS)


def keep_idempotency_key(database, clock):
    key = IdempotencyKey("expiring", "order-1", b"body")
    database.run(lambda session: note_key(session, key, "made", clock()))
    return lambda: kept_for(database, key) is not None


def keep_look(database, _clock):
    looks = LookStore(database)
    look = looks.keep([{"kind": "title", "text": "T"}], "m", "me")
    return lambda: look.id in {one.id for one in looks.list()}


def keep_run(database, _clock):
    runs = TargetRuns(database)
    number = runs.keep("expiring-target", 1, {"outcome": "verified"}, "me")
    return lambda: number in {one.id for one in runs.page("expiring-target", 100).entries}


def keep_editor(database, _clock):
    editors = DocumentEditors(database)
    editors.seen("form", "expiring", "page1a", "ada")
    # Whoever comes back within the hour has been there since then.
    return lambda: editors.seen("form", "expiring", "page1a", "ada") is None


def keep_upload(database, _clock):
    jobs = JobStore(database)
    job = jobs.make(NewJob("load", "expiring", "me"), receiving=True)
    return lambda: job.id in {one.id for one in jobs.list("expiring")}


def keep_ended_job(database, _clock):
    jobs = JobStore(database)
    job = jobs.make(NewJob("rebuild", "expiring-too", "me", edition=1))
    jobs.cancel(job.id)
    return lambda: job.id in {one.id for one in jobs.list("expiring-too")}


def keep_call(database, clock):
    calls, subject = ActivityStore(database), f"expiring-{clock().timestamp()}"
    calls.keep([call(clock, subject)])
    return lambda: bool(calls.find(WantedCalls(subject=subject), 5))


@pytest.mark.parametrize(
    ("keep", "remembered"),
    [
        (keep_idempotency_key, KEYS_REMEMBERED),
        (keep_look, LOOKS_REMEMBERED),
        (keep_run, RUNS_REMEMBERED),
        (keep_upload, UPLOADS_WAITED_FOR),
        (keep_ended_job, JOBS_REMEMBERED),
        (keep_call, timedelta(days=DAYS)),
    ],
)
def test_it_goes_once_its_time_is_over_and_no_earlier(database, clock, purge, keep, remembered):
    clock.forward(days=400)  # what other tests have kept is out of the way
    purge()
    is_there = keep(database, clock)
    clock.time += remembered
    purge()
    assert is_there(), "its time is not over yet"
    clock.forward(seconds=1)
    assert purge() >= 1
    assert not is_there()
    assert purge() == 0, "there is nothing more to delete"


def test_a_page_that_was_closed_without_a_word_is_forgotten(database, clock, purge):
    clock.forward(days=800)
    purge()
    keep_editor(database, clock)
    clock.time += EDITORS_REMEMBERED
    assert purge() == 0
    clock.forward(seconds=1)
    assert purge() == 1


def test_of_very_many_calls_all_that_are_old_go(database, clock, purge):
    clock.forward(days=1200)
    purge()
    calls = ActivityStore(database)
    calls.keep([call(clock, f"many-{number % 3}") for number in range(7_000)])
    clock.forward(days=DAYS, seconds=1)
    calls.keep([call(clock, "many-new")])
    assert purge() == 7_000
    assert [one.subject for one in calls.find(WantedCalls(), 5)] == ["many-new"]


def test_calls_are_found_by_what_they_were_in_the_order_in_which_they_were_kept(database, clock):
    clock.forward(days=1600, microseconds=123_456)
    calls = ActivityStore(database)
    long = NewCall(
        clock().timestamp(), "s" * 90, "https://" + "o" * 300, "records.submit_record", "f" * 70,
        503, 12.5, "what was asked", "ä" * 70_000,
    )  # fmt: skip
    calls.keep([call(clock, "found-a"), call(clock, "found-b"), long])
    newest, second, first = calls.find(WantedCalls(since=clock()), 5)
    assert (first.subject, second.subject) == ("found-a", "found-b")
    assert first.at == clock(), "to the microsecond"
    assert (len(newest.subject), len(newest.origin), len(newest.of)) == (80, 200, 64)
    assert (newest.question, len(newest.answer), newest.ms) == ("what was asked", 70_000, 12.5)
    assert [one.id for one in calls.find(WantedCalls(after=first.id), 1)] == [second.id]
    assert [one.id for one in calls.find(WantedCalls(before=newest.id), 1)] == [second.id]
    assert [one.status for one in calls.find(WantedCalls(outcome="failed", since=clock()), 5)] == [
        503
    ]
    assert [one.id for one in calls.each(WantedCalls(since=clock()))] == [
        first.id, second.id, newest.id,
    ]  # fmt: skip
    assert calls.find(WantedCalls(since=clock() + timedelta(seconds=1)), 5) == []
