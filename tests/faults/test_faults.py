"""Faults made on purpose while people are busy: nothing acknowledged is lost, nobody is shut out.

After each fault at most one keystroke may fail, and within five seconds typing is as quick as ever.
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

QUICK_AGAIN = 5.0 if ALONE else 20.0
# A database that hangs or cannot write is noticed within this, however busy the machine is.
NOTICED = 5.0 if ALONE else 10.0
LOOKED_AT = 5.0 if ALONE else 3.0
HANGS_FOR = 24 if ALONE else 16
MOST_P95 = 1.0


def judged(name, people, began, figures, *, most_failed=1, sent=""):
    """Holds what people met after a fault against what may be."""
    failed = people.failed(began)
    late = people.p95(began + QUICK_AGAIN, began + QUICK_AGAIN + LOOKED_AT)
    figures(
        f"{name:34} keystrokes failed {len(failed):3}   p95 after {QUICK_AGAIN:.0f} s {1000 * late:6.0f} ms   "
        f"acknowledged {len(people.acknowledged):4}, all found   sent again {len(people.refused)}{sent}"
    )
    assert len(failed) <= most_failed, [
        (round(t.at - began, 2), t.status, round(t.seconds, 2)) for t in failed
    ]
    assert late < MOST_P95


@pytest.mark.parametrize(
    "part",
    ["one that answers", "parent of those that answer", "worker", "database", "supervisor"],
)
def test_a_part_that_is_killed(service, figures, part):
    with service.people() as people:
        began = time.monotonic()
        kill(service.parts()[part][0])
        time.sleep(QUICK_AGAIN + LOOKED_AT)
    judged(f"kill -9, {part}", people, began, figures)
    parts = service.parts()
    assert len(parts["one that answers"]) == 2
    assert len(parts["worker"]) == len(parts["database"]) == 1


def test_a_database_that_hangs(service, figures):
    with service.people() as people:
        database = service.parts()["database"][0]
        began = time.monotonic()
        kill(database, signal.SIGSTOP)
        try:
            time.sleep(HANGS_FOR)
            sent = len(people.acknowledged)
        finally:
            kill(database, signal.SIGCONT)
        resumed = time.monotonic()
        time.sleep(QUICK_AGAIN + LOOKED_AT)
    judged(f"SIGSTOP of the database for {HANGS_FOR} s", people, began, figures)
    assert people.p95(began + NOTICED, resumed) < MOST_P95, "while it hung"
    assert len(people.acknowledged) > sent, "nothing was kept after it went on"
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
            while time.monotonic() - began < 25:
                again = look()
                time.sleep(0.5)
        during = people.p95(began, began + 25)
    judged("500 slow clients for 25 s", people, began, figures, sent=f"   let go and back {again}")
    assert again > 250, "nobody was let go"
    assert during < MOST_P95


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
        time.sleep(8)
        refused = load_of(service)
        kill(database[0])  # on a full disk it must not come back again and again
        time.sleep(12)
        log = (service.folder / "demo" / "service.log").read_text()
        full_until = time.monotonic()
        access = (service.folder / "mariadb" / "access.json").read_bytes()
        ballast.unlink()
        sent = len(people.acknowledged)
        deadline = time.monotonic() + 60
        while len(people.acknowledged) < sent + 8:
            assert time.monotonic() < deadline, "it did not recover by itself"
            time.sleep(0.2)
        recovered = time.monotonic() - full_until
        time.sleep(1)
    judged("full disk, database killed on it", people, began, figures,
           sent=f"   kept again after {recovered:.1f} s")  # fmt: skip
    assert people.p95(began + NOTICED, full_until) < MOST_P95, "while it was full"
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
