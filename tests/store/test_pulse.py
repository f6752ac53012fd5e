"""A database that hangs lets everybody go within three seconds, and is noticed when it is back."""

import os
import signal
import threading
import time
from pathlib import Path

import pytest
from sqlalchemy import text

from anchorline.store.database import (
    Database,
    DatabaseUnavailableError,
    StorageFullError,
    _translated,
)
from tests.waiting import hold, wait_until


@pytest.fixture
def watched(database_url):
    opened = Database(database_url)
    opened.ping()
    said = []
    opened.watch(said.append)
    opened.said = said
    yield opened
    opened.close()


@pytest.fixture
def server_pid(local_server, database_url):
    pid = int((local_server.folder / "data" / "mariadb.pid").read_text())
    yield pid
    os.kill(pid, signal.SIGCONT)
    wait_until(lambda: local_server.running_url() is not None)


def seconds_to_fail(database):
    began = time.monotonic()
    with pytest.raises(DatabaseUnavailableError):
        database.ping()
    return time.monotonic() - began


def test_whoever_asks_a_hanging_database_is_let_go_and_told_so_at_once_after(watched, server_pid):
    hold(server_pid)
    waiting = []
    threads = [
        threading.Thread(target=lambda: waiting.append(seconds_to_fail(watched))) for _ in range(6)
    ]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    assert max(waiting) < 15, "they waited as long as a query may take"
    assert seconds_to_fail(watched) < 1.5, "it was asked again"
    os.kill(server_pid, signal.SIGCONT)
    wait_until(lambda: watched.said == [False, True])
    watched.ping()


def test_a_service_may_be_more_patient_with_its_database(watched, server_pid, database_url):
    patient, said = Database(database_url), []
    patient.watch(said.append, patience=60)
    patient.ping()
    hold(server_pid)
    wait_until(lambda: watched.said == [False])
    time.sleep(2)
    os.kill(server_pid, signal.SIGCONT)
    wait_until(lambda: watched.said == [False, True])
    assert said == []
    patient.close()


def test_a_long_query_of_a_database_that_lives_goes_on(watched):
    slept = watched.run(lambda session: session.execute(text("SELECT SLEEP(4)")).scalar())
    assert slept == 0


def test_no_socket_is_left_when_the_pool_is_closed(database_url):
    before = len(list(Path("/proc/self/fd").iterdir()))
    for _ in range(3):
        opened = Database(database_url)
        opened.watch()
        opened.ping()
        opened.close()
    assert len(list(Path("/proc/self/fd").iterdir())) <= before


@pytest.mark.parametrize(
    ("code", "said", "kind"),
    [
        (1114, "The table 'record' is full", StorageFullError),
        (1021, "Disk full (/tmp/x); waiting for someone to free some space", StorageFullError),
        (
            1026,
            "Error writing file 'x' (Errcode: 28 \"No space left on device\")",
            StorageFullError,
        ),
        (1030, 'Got error 28 "No space left on device" from storage engine', StorageFullError),
        (1030, "Got error 122 from storage engine", DatabaseUnavailableError),
        (2013, "Lost connection", DatabaseUnavailableError),
    ],
)
def test_errors_of_the_database_are_told_apart(code, said, kind):
    from pymysql import OperationalError as Original
    from sqlalchemy.exc import OperationalError

    assert type(_translated(OperationalError("x", {}, Original(code, said)))) is kind
