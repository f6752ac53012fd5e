"""What is counted is what was served: each address once within one capture, and no more."""

import errno
import os
import threading
from datetime import UTC, date, datetime, timedelta
from itertools import count

import pytest
from sqlalchemy import select

from anchorline.core.allowance import Allowance, AllowanceUsedUpError, next_month
from anchorline.store.address_uses import AddressUses
from anchorline.store.database import (
    ContendedError,
    Database,
    DatabaseUnavailableError,
    StorageFullError,
)
from anchorline.store.schema_calls import UseDayRow
from anchorline.store.use_journal import UseJournal

_NUMBERS = count()


@pytest.fixture
def key():
    return f"key{next(_NUMBERS)}"


@pytest.fixture
def journal(tmp_path):
    return UseJournal(tmp_path / "uses-waiting")


@pytest.fixture
def uses(database, journal):
    return AddressUses(database, journal)


def counted(uses, key, month):
    return sum(one.count for one in uses.list(month) if one.subject == key)


def test_an_address_counts_once_in_a_capture_and_again_in_another(uses, key, clock):
    for capture in ("first-page", "first-page", "second-page", None, None):
        uses.count(key, "demo:1", capture, Allowance())
    uses.count(key, "demo:2", "first-page", Allowance())
    assert counted(uses, key, clock().date()) == 5


def test_of_eight_who_fetch_at_once_exactly_as_many_as_may_are_let_through(uses, key, clock):
    served = []

    def fetch(number):
        for at in range(20):
            try:
                uses.count(key, f"demo:{number}-{at}", None, Allowance(100))
                served.append(at)
            except AllowanceUsedUpError:
                continue

    threads = [threading.Thread(target=fetch, args=(number,)) for number in range(8)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    assert len(served) == counted(uses, key, clock().date()) == 100


def test_what_was_counted_goes_on_within_its_capture_when_nothing_more_may_be(uses, key):
    uses.count(key, "demo:1", "a-capture", Allowance(1))
    uses.count(key, "demo:1", "a-capture", Allowance(1))
    with pytest.raises(AllowanceUsedUpError, match="the limit is 1"):
        uses.count(key, "demo:2", "a-capture", Allowance(1))


def test_a_month_begins_anew(uses, key, clock):
    uses.count(key, "demo:1", None, Allowance(1))
    before = clock().date()
    while clock().date() < next_month(before):
        clock.forward(hours=23)
    uses.count(key, "demo:2", None, Allowance(1))
    assert counted(uses, key, before) == counted(uses, key, clock().date()) == 1


def test_while_the_database_is_away_uses_wait_in_a_file_and_are_counted_once(uses, journal, key):
    away = AddressUses(Database("mariadb+pymysql://x:y@127.0.0.1:1/z"), journal)
    for capture in ("one-capture", "one-capture", "two-capture"):
        away.count(key, "demo:1", capture, Allowance())
    with pytest.raises(DatabaseUnavailableError):
        away.carry_over()
    today = datetime.now(UTC).date()
    assert counted(uses, key, today) == 0
    assert uses.carry_over() == 3
    assert uses.carry_over() == 0
    assert counted(uses, key, today) == 2


def test_a_line_that_was_broken_off_costs_no_other_one(uses, tmp_path, journal, key):
    away = AddressUses(Database("mariadb+pymysql://x:y@127.0.0.1:1/z"), journal)
    away.count(key, "demo:1", None, Allowance())
    with (tmp_path / "uses-waiting").open("a") as file:
        file.write('["broken of')
    away.count(key, "demo:2", None, Allowance())
    assert uses.carry_over() == 2


def test_on_a_full_disk_the_reserve_makes_room(tmp_path, journal, uses, key, monkeypatch):
    uses.carry_over()
    real, reserve = os.write, tmp_path / "reserve"

    def write(file, data):
        if reserve.exists():
            raise OSError(errno.ENOSPC, "full")
        return real(file, data)

    monkeypatch.setattr(os, "write", write)
    away = AddressUses(Database("mariadb+pymysql://x:y@127.0.0.1:1/z"), journal)
    away.count(key, "demo:1", None, Allowance())
    monkeypatch.undo()
    assert uses.carry_over() == 1
    assert reserve.exists(), "held again"


def test_a_file_that_cannot_be_read_is_an_error_of_the_store_and_stays(tmp_path, uses, key):
    (tmp_path / "uses-waiting").mkdir()
    with pytest.raises(StorageFullError, match="cannot be read"):
        uses.carry_over()


def test_nothing_is_served_that_cannot_be_counted(tmp_path, key):
    nowhere = UseJournal(tmp_path / "no" / "folder")
    away = AddressUses(Database("mariadb+pymysql://x:y@127.0.0.1:1/z"), nowhere)
    with pytest.raises(StorageFullError):
        away.count(key, "demo:1", None, Allowance())


def test_a_day_has_a_limit_of_its_own(database, clock, uses, key):
    allowance = Allowance(3, day_limit=2)
    for number in range(2):
        uses.count(key, f"demo:{number}", None, allowance)
    with pytest.raises(AllowanceUsedUpError, match="today: the limit is 2") as caught:
        uses.count(key, "demo:2", None, allowance)
    assert caught.value.again == database.now().date() + timedelta(days=1)
    clock.forward(days=1)
    uses.count(key, "demo:2", None, allowance)
    with pytest.raises(AllowanceUsedUpError, match="in March 2026: the limit is 3"):
        uses.count(key, "demo:3", None, allowance)
    assert counted(uses, key, database.now().date()) == 3


@pytest.mark.parametrize(
    ("of_month", "of_day", "state"),
    [(79, 7, "within"), (80, 0, "near"), (0, 8, "near"), (100, 0, "used_up"), (0, 10, "used_up"), (79, 10, "used_up")],
)  # fmt: skip
def test_the_nearer_of_two_limits_is_said(of_month, of_day, state):
    assert Allowance(100, day_limit=10).state(of_month, of_day) == state


@pytest.mark.parametrize(
    ("limit", "number", "state"),
    [(None, 10**9, "within"), (100, 79, "within"), (100, 80, "near"), (100, 100, "used_up"),
     (0, 0, "used_up")],
)  # fmt: skip
def test_how_near_a_key_is_to_its_limit(limit, number, state):
    assert Allowance(limit).state(number) == state


def test_december_is_followed_by_january():
    assert next_month(date(2026, 12, 31)) == date(2027, 1, 1)


def test_no_limit_gives_way_where_others_hold_the_count(uses, database, key, clock):
    """Whoever holds the day's row keeps an address from being served, and not from being counted."""
    uses.count(key, "demo:0", None, Allowance(2))
    held, let_go, asked = threading.Event(), threading.Event(), []

    def holding(session):
        row = select(UseDayRow).where(UseDayRow.subject == key).with_for_update()
        session.scalars(row).all()
        held.set()
        assert let_go.wait(60)

    def ask():
        assert held.wait(20)
        try:
            uses.count(key, "demo:1", None, Allowance(2))
        except Exception as error:
            asked.append(error)
        finally:
            let_go.set()

    threads = [threading.Thread(target=database.run, args=(holding,)), threading.Thread(target=ask)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join(60)
    assert [type(one) for one in asked] == [ContendedError]
    assert counted(uses, key, clock().date()) == 1
    uses.carry_over()  # nothing waits in the journal
    assert counted(uses, key, clock().date()) == 1
