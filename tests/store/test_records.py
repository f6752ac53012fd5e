import base64
import json
import threading
import zlib
from datetime import timedelta

import pytest

from anchorline.application.documents import FORMS
from anchorline.core.address import Facts
from anchorline.core.forms import Captured
from anchorline.store.cursors import BadCursorError
from anchorline.store.database import (
    Database,
    DatabaseUnavailableError,
    NotThereError,
    ReusedKeyError,
)
from anchorline.store.documents import DocumentStore
from anchorline.store.purge import purge_expired
from anchorline.store.record_model import NewRecord
from anchorline.store.records import IdempotencyKey, RecordStore

WEEK = timedelta(days=7)
ADDRESS = Captured(
    "home", "GB", {"street": "Abbey Lane", "town": "Märl", "country_code": "GB"},
    Facts(52.5, -1.5, "public", ("en",)), "d:1", "d@1", "abb", ("home_street",),
)  # fmt: skip


def new(form, label="Ada · Abbey Lane", **values):
    return NewRecord(form, 1, label, values, [ADDRESS], "page visit")


@pytest.fixture
def form(database, request):
    key = f"f-{zlib.crc32(request.node.name.encode())}"
    DocumentStore(database, FORMS.stored).put_draft(
        key, {"key": key, "kind": "web", "title": key}, None
    )
    return key


@pytest.fixture
def records(database):
    return RecordStore(database)


def test_a_record_comes_back_as_it_was_kept(records, form, clock):
    made, _ = records.add(new(form, text="=SUM(A1) <b> 桜 🎹", number=12.5, yes=True))
    kept = records.get(made.id)
    assert kept == made
    assert kept.values == {"text": "=SUM(A1) <b> 桜 🎹", "number": 12.5, "yes": True}
    assert list(kept.addresses) == [ADDRESS]
    assert kept.made_at == clock()


def test_one_key_makes_one_record_and_another_request_is_refused(records, form):
    once = IdempotencyKey("page/x" + form, "key-1", b"body")
    first, made = records.add(new(form), once)
    again, made_again = records.add(new(form), once)
    assert (first.id, made, made_again) == (again.id, True, False)
    with pytest.raises(ReusedKeyError):
        records.add(new(form), IdempotencyKey(once.scope, "key-1", b"other"))
    assert records.page(form=form).total == 1


def test_the_same_key_at_the_same_time_makes_one_record(records, form):
    once = IdempotencyKey("page/y" + form, "key-2", b"body")
    ids = []
    threads = [
        threading.Thread(target=lambda: ids.append(records.add(new(form), once)[0].id))
        for _ in range(6)
    ]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    assert len(ids) == 6
    assert len(set(ids)) == 1
    assert records.page(form=form).total == 1


@pytest.mark.parametrize("sort", ["newest", "oldest", "label", "-label"])
def test_pages_hold_every_record_once_and_in_order(records, form, clock, sort):
    for number in range(7):
        if number % 3:
            clock.forward(seconds=1)
        records.add(new(form, label=f"L{number % 4}"))
    whole = records.page(form=form, sort=sort, limit=50).records
    paged, after = [], None
    while True:
        page = records.page(form=form, sort=sort, limit=3, after=after)
        paged += page.records
        after = page.after
        if after is None:
            break
    assert paged == list(whole)
    assert len({r.id for r in paged}) == 7
    key = (lambda r: r.label) if "label" in sort else (lambda r: r.made_at)
    values = [key(r) for r in paged]
    assert values == sorted(values, reverse=sort in ("newest", "-label"))


@pytest.mark.parametrize("search", ["marl", "MÄRL abbey", "brindle lane", "50%"])
def test_search_finds_folded_words_anywhere(records, form, search):
    records.add(new(form, label="x", who="Ada Brindle 50%"))
    assert records.page(form=form, search=search).total == 1
    assert records.page(form=form, search=search + " zzz").total == 0


@pytest.mark.parametrize("cursor", ["", "x", "bm90IGpzb24=", "WyJvbGRlc3QiLDEsMl0="])
def test_a_cursor_of_elsewhere_is_refused(records, cursor):
    with pytest.raises(BadCursorError):
        records.page(after=cursor)


@pytest.mark.parametrize(
    "time",
    ["0001-01-01T00:00:00+05:00", "9999-12-31T23:59:59-05:00", "2026-13-01", "1e9", ""],
)
def test_a_cursor_with_a_time_that_cannot_be_is_refused(records, time):
    cursor = base64.urlsafe_b64encode(json.dumps(["newest", time, "r1"]).encode()).decode()
    with pytest.raises(BadCursorError):
        records.page(after=cursor)


@pytest.mark.parametrize("time", ["0001-01-01T00:00:00+00:00", "9999-12-31T23:59:59+00:00"])
def test_a_cursor_at_the_ends_of_the_calendar_is_one(records, time):
    cursor = base64.urlsafe_b64encode(json.dumps(["newest", time, "r1"]).encode()).decode()
    assert records.page(after=cursor).total >= 0


def test_what_is_not_there_is_said(records):
    with pytest.raises(NotThereError, match="no record 'nope'"):
        records.get("nope")


def test_capture_counts_tell_picked_from_typed_and_changed(records, form):
    before = records.capture_counts(WEEK)
    records.add(new(form))
    after = records.capture_counts(WEEK)
    assert after.records == before.records + 1
    assert after.picked == before.picked + 1
    assert after.unchanged == before.unchanged


def test_a_database_that_does_not_answer_is_one_error():
    silent = Database("mariadb+pymysql://u:p@127.0.0.1:9/x")
    with pytest.raises(DatabaseUnavailableError):
        silent.ping()
    silent.close()


def test_purging_forgets_keys_and_sessions_after_their_time_and_no_record(
    database, records, form, clock
):
    once = IdempotencyKey("page/t" + form, "key-3", b"body")
    first, _ = records.add(new(form), once)
    clock.forward(days=6)
    purge_expired(database, 14)
    assert records.add(new(form), once)[0].id == first.id
    clock.forward(days=2)
    assert purge_expired(database, 14) >= 1
    again, made_now = records.add(new(form), once)
    assert made_now
    assert again.id != first.id
    assert records.get(first.id) == first
