"""Faults made on purpose while people are busy: nothing acknowledged is lost, nobody is shut out.

After each fault at most one keystroke may fail. Where the faults have the machine for themselves,
typing is as quick as ever within five seconds; beside other tests, some time.
"""

from __future__ import annotations

import os
import signal
import socket
import subprocess
import tempfile
import time
from contextlib import contextmanager, suppress
from pathlib import Path

import pytest

from tests.faults.conftest import ALONE, kill, service_in
from tests.waiting import hold, wait_until

QUICK_AGAIN = LOOKED_AT = NOTICED = 5.0
HANGS_FOR = 24 if ALONE else 12
FULL_FOR = (8, 12) if ALONE else (2, 5)
SLOW_FOR = 25 if ALONE else 0
MOST_P95 = 1.0


def await_quick_typing(people):
    """Until typing is quick again; times are looked at where nothing else keeps the machine."""
    if ALONE:
        time.sleep(QUICK_AGAIN + LOOKED_AT)
        return
    began = time.monotonic()
    wait_until(
        lambda: (
            len([t for t in people.answered(began) if t.seconds < MOST_P95]) > 3 * people.typing
        ),
        120,
        "typing did not become quick again",
    )


def hold_typing(people, since, until):
    """Typing goes on in that time: quickly, or at all."""
    if ALONE:
        assert people.p95(since, until) < MOST_P95
    else:
        assert people.answered(since, until)


def judged(name, people, began, figures, *, most_failed=1, sent=""):
    """Holds what people met after a fault against what may be."""
    failed = people.failed(began)
    late = ""
    if ALONE:
        p95 = people.p95(began + QUICK_AGAIN, began + QUICK_AGAIN + LOOKED_AT)
        late = f"p95 after {QUICK_AGAIN:.0f} s {1000 * p95:6.0f} ms   "
        assert p95 < MOST_P95
    figures(
        f"{name:34} keystrokes failed {len(failed):3}   {late}"
        f"acknowledged {len(people.acknowledged):4}, all found   sent again {len(people.refused)}{sent}"
    )
    assert len(failed) <= most_failed, [
        (round(t.at - began, 2), t.status, round(t.seconds, 2)) for t in failed
    ]


@pytest.mark.parametrize(
    "part",
    ["one that answers", "parent of those that answer", "worker", "database", "supervisor"],
)
def test_a_part_that_is_killed(service, figures, part):
    with service.people() as people:
        began = time.monotonic()
        kill(service.parts()[part][0])
        await_quick_typing(people)
        wait_until(lambda: all_there(service.parts()), 60, "a part did not come back")
    judged(f"kill -9, {part}", people, began, figures)


def all_there(parts):
    numbers = {part: len(processes) for part, processes in parts.items() if part != "job"}
    return numbers == {
        "supervisor": 1, "parent of those that answer": 1, "spare": 1, "one that answers": 2,
        "worker": 1, "database": 1,
    }  # fmt: skip


def test_a_database_that_hangs(service, figures):
    with service.people() as people:
        database = service.parts()["database"][0]
        began = time.monotonic()
        hold(database)
        try:
            time.sleep(HANGS_FOR)
            sent = len(people.acknowledged)
        finally:
            kill(database, signal.SIGCONT)
        resumed = time.monotonic()
        await_quick_typing(people)
        wait_until(lambda: len(people.acknowledged) > sent, 60, "nothing was kept after it went on")
    judged(f"SIGSTOP of the database for {HANGS_FOR} s", people, began, figures)
    hold_typing(people, began + NOTICED, resumed)
    assert set(people.refused) <= {503, 0}


SLOW_HEADS = (
    b"",
    b"GET /healthz HTTP/1.1\r\nHo",
    b"POST /api/v1/session HTTP/1.1\r\nHost: h\r\nContent-Type: application/json\r\nContent-Length: 60\r\n\r\n",
    b"GET /healthz HTTP/1.1\r\nHost: h\r\nContent-Length: 9\r\n\r\n",
)


@contextmanager
def slow_clients(port, count):
    """So many connections of all slow kinds; whoever is let go comes again."""
    held = []

    def open_one(kind):
        connection = socket.create_connection(("127.0.0.1", port), timeout=5)
        connection.sendall(SLOW_HEADS[kind % len(SLOW_HEADS)])
        connection.setblocking(False)
        return connection

    held = [open_one(kind) for kind in range(count)]
    again = 0

    def look():
        nonlocal again
        for place, connection in enumerate(held):
            try:
                if place % len(SLOW_HEADS) == 1:
                    connection.send(b"x")  # a byte now and then
                gone = connection.recv(4096) == b""
            except BlockingIOError:
                continue
            except OSError:
                gone = True
            if gone:
                connection.close()
                held[place] = open_one(place)
                again += 1
        return again

    try:
        yield look
    finally:
        for connection in held:
            with suppress(OSError):
                connection.close()


def test_five_hundred_slow_clients(service, figures):
    with service.people() as people:
        began = time.monotonic()
        with slow_clients(service.port, 500) as look:
            wait_until(
                lambda: look() > 250 and time.monotonic() > began + SLOW_FOR,
                120, "nobody was let go", every=0.5,
            )  # fmt: skip
            ended = time.monotonic()
            again = look()
    judged(
        f"500 slow clients for {SLOW_FOR} s and more", people, began, figures,
        sent=f"   let go and back {again}",
    )  # fmt: skip
    hold_typing(people, began, ended)


@pytest.mark.skipif(os.geteuid() != 0, reason="only root mounts a small disk")
def test_a_full_disk(figures):
    folder = Path(tempfile.mkdtemp(prefix="anchorline-small-", dir="/tmp"))
    subprocess.run(
        ["mount", "-t", "tmpfs", "-o", "size=420m,mode=755", "tmpfs", str(folder)], check=True
    )
    try:
        with service_in(folder, ANCHORLINE_RESERVED_SPACE="33554432") as service:
            fill_up(service, figures)
    finally:
        subprocess.run(["umount", "-l", str(folder)], check=True)
        folder.rmdir()


def fill_up(service, figures):
    ballast = service.folder / "ballast"
    with service.people() as people:
        database = service.parts()["database"]
        began = time.monotonic()
        use_all(ballast)
        time.sleep(FULL_FOR[0])
        refused = load_of(service)
        kill(database[0])  # on a full disk it must not come back again and again
        time.sleep(FULL_FOR[1])
        log = (service.folder / "demo" / "service.log").read_text()
        full_until = time.monotonic()
        access = (service.folder / "mariadb" / "access.json").read_bytes()
        ballast.unlink()
        sent = len(people.acknowledged)
        wait_until(
            lambda: len(people.acknowledged) >= sent + 8, 120, "it did not recover by itself"
        )
        recovered = time.monotonic() - full_until
        time.sleep(1)
    judged("full disk, database killed on it", people, began, figures,
           sent=f"   kept again after {recovered:.1f} s")  # fmt: skip
    hold_typing(people, began + min(NOTICED, FULL_FOR[0]), full_until)
    assert refused in (503, 507)
    assert set(people.refused) <= {503, 507, 0}
    assert log.count("the database died; starting it again") <= 6
    assert access.startswith(b'{"port": ')


def use_all(ballast):
    """Writes until nothing more goes onto the disk."""
    with ballast.open("wb", buffering=0) as file:
        for size in (1 << 20, 1 << 12, 1):
            with suppress(OSError):
                while True:
                    file.write(b"\0" * size)


def load_of(service):
    with service.http() as http:
        return http.post(
            "/api/v1/datasets/small/editions", content=b"id,country_code,town\r\n1,GB,Marl\r\n",
            headers={"Content-Type": "text/csv"},
        ).status_code  # fmt: skip
