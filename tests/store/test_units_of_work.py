"""A unit of work is kept whole or not at all, and done again where others were in its way."""

import itertools
import threading
import time

import pytest
from sqlalchemy import text

from anchorline.store.database import (
    AlreadyThereError,
    ContendedError,
    DatabaseUnavailableError,
)

MAKE = "CREATE TABLE unit_test (name VARCHAR(20) PRIMARY KEY, n INT NOT NULL)"


@pytest.fixture
def table(database):
    execute(database, MAKE)
    execute(database, "INSERT INTO unit_test VALUES ('a', 0), ('b', 0)")
    yield database
    # Other tests look at every table that there is.
    execute(database, "DROP TABLE unit_test")


def execute(database, statement):
    return database.run(lambda session: session.execute(text(statement)).rowcount)


def add_to(name):
    return text(f"UPDATE unit_test SET n = n + 1 WHERE name = '{name}'")


def counts(database):
    asking = text("SELECT name, n FROM unit_test ORDER BY name")
    return dict(database.run(lambda session: [(*row,) for row in session.execute(asking)]))


def both_at_once(first, second):
    """Runs two functions beside each other; what each of them gave or raised."""
    came = {}

    def noting(name, function):
        try:
            came[name] = function()
        except Exception as error:
            came[name] = error

    threads = [
        threading.Thread(target=noting, args=one) for one in (("first", first), ("second", second))
    ]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join(60)
    return came["first"], came["second"]


def test_two_that_take_the_same_in_another_order_are_both_kept_whole(table):
    meet, tries = threading.Barrier(2), []

    def crossing(one, other):
        def work(session):
            tries.append(one)
            session.execute(add_to(one))
            if len(tries) <= 2:
                meet.wait(20)  # now each holds what the other wants
            session.execute(add_to(other))
            return one

        return lambda: table.run(work)

    assert both_at_once(crossing("a", "b"), crossing("b", "a")) == ("a", "b")
    assert len(tries) == 3, "one of the two was undone, and done again as a whole"
    assert counts(table) == {"a": 2, "b": 2}


def test_what_is_always_in_the_way_is_said_after_a_while_and_is_no_outage(table):
    tries = []

    def work(_session):
        tries.append(time.monotonic())
        raise ContendedError("in the way")

    with pytest.raises(ContendedError) as raised:
        table.run(work)
    assert not isinstance(raised.value, DatabaseUnavailableError)
    assert 5 <= len(tries) <= 10
    assert tries[-1] - tries[0] < 6
    pauses = [after - before for before, after in itertools.pairwise(tries)]
    assert len({round(pause, 4) for pause in pauses}) > 3, "two that wait alike meet again"


def test_a_lock_that_is_held_for_long_is_said_to_be_in_the_way(table):
    held, let_go = threading.Event(), threading.Event()

    def holding(session):
        session.execute(add_to("a"))
        held.set()
        assert let_go.wait(60)

    def asking():
        assert held.wait(20)
        try:
            return table.run(lambda session: session.execute(add_to("a")).rowcount)
        finally:
            let_go.set()

    _held, asked = both_at_once(lambda: table.run(holding), asking)
    assert isinstance(asked, ContendedError)
    assert counts(table)["a"] == 1


def test_units_within_a_unit_are_kept_with_it_or_not_at_all(table):
    def unfinished(_session):
        table.run(lambda session: session.execute(add_to("a")))
        table.run(lambda session: session.execute(add_to("b")))
        raise ValueError("no more")

    with pytest.raises(ValueError, match="no more"):
        table.run(unfinished)
    assert counts(table) == {"a": 0, "b": 0}

    def finished(_session):
        return [
            execute(table, f"UPDATE unit_test SET n = n + 1 WHERE name = '{one}'") for one in "ab"
        ]

    assert table.run(finished) == [1, 1]
    assert counts(table) == {"a": 1, "b": 1}


def test_one_that_fails_within_a_unit_leaves_the_rest_of_it(table):
    def work(_session):
        table.run(lambda session: session.execute(add_to("a")))
        with pytest.raises(AlreadyThereError):
            execute(table, "INSERT INTO unit_test VALUES ('b', 7)")
        return "went on"

    assert table.run(work) == "went on"
    assert counts(table) == {"a": 1, "b": 0}


def test_a_thread_that_raised_begins_its_next_unit_anew(table):
    with pytest.raises(ZeroDivisionError):
        table.run(lambda _session: 1 // 0)
    assert execute(table, "UPDATE unit_test SET n = 5 WHERE name = 'a'") == 1
    other = []
    thread = threading.Thread(target=lambda: other.append(counts(table)))
    thread.start()
    thread.join(20)
    assert other == [{"a": 5, "b": 0}], "kept at once, not at the end of something outer"
