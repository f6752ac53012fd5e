"""A service of its own, run as systemd would run it, and what each fault came to at the end."""

from __future__ import annotations

import os
import shutil
import signal
import socket
import subprocess
import sys
import threading
import time
from collections import Counter
from contextlib import contextmanager

import pytest

from tests.conftest import FIGURES, PROJECT, Stack, free_port, new_folder, processes_of
from tests.faults.people import People
from tests.states import ANY_STATE

# `make test-faults` has the machine for itself and times; beside other tests times say nothing.
ALONE = bool(os.environ.get("FAULTS_ALONE"))
TYPING, SENDING, LONGEST_WAIT = (20, 4, 10.0) if ALONE else (6, 2, 60.0)
START_SECONDS = 120


class Service(Stack):
    """The service on a folder, with its listening socket held outside: as systemd does it."""

    def __init__(self, folder, environment):
        super().__init__(folder, environment)
        self.port = int(environment["ANCHORLINE_PORT"])
        self.process = self.listener = None
        self._watching = threading.Event()

    def prepare(self):
        """Makes the demo's data and forms."""
        self.demo("start", "--rows", "3000" if ALONE else "500")
        self.demo("stop")
        self.listener = socket.create_server(("127.0.0.1", self.port), backlog=1024)
        self._start()
        threading.Thread(target=self._bring_back, daemon=True).start()
        self.wait_until_ready()

    def end(self):
        self._watching.set()
        if self.process is not None:
            self.process.terminate()
            self.process.wait(40)
        if self.listener is not None:
            self.listener.close()

    def _start(self):
        command = 'exec 3<&"$1"; export LISTEN_FDS=1 LISTEN_PID=$$; exec "$0" -m anchorline.service run --worker'
        log = (self.folder / "demo" / "service.log").open("ab")
        with log:
            self.process = subprocess.Popen(
                ["bash", "-c", command, sys.executable, str(self.listener.fileno())],
                env=self.environment, pass_fds=[self.listener.fileno()], stdin=subprocess.DEVNULL,
                stdout=log, stderr=log, start_new_session=True, cwd=PROJECT,
            )  # fmt: skip

    def _bring_back(self):
        """`Restart=always`."""
        while not self._watching.wait(0.1):
            if self.process.poll() is not None:
                self._start()

    def wait_until_ready(self):
        deadline = time.monotonic() + START_SECONDS
        with self.http() as http:
            while True:
                try:
                    ready = http.get("/readyz").json()
                    # Whether there are editions is not asked: noise may remove them.
                    if ready["database"] and ready["migrations"]:
                        return
                except Exception as error:
                    last = error
                else:
                    last = None
                assert time.monotonic() < deadline, last
                time.sleep(0.1)

    def parts(self):
        """Process ids by what they are."""
        front = self.process.pid
        parts = {"supervisor": [front]}
        for child, command, parent in processes_of(front):
            if not command:
                continue  # one that is just ending
            if "mariadbd" in command[0]:
                name = "database"
            elif "work" in command:
                name = "worker" if parent == front else "job"
            elif parent == front:
                name = "parent of those that answer" if child.children() else "spare"
            else:
                name = "one that answers"
            parts.setdefault(name, []).append(child.pid)
        return parts

    def open_wide(self):
        """The form is open to many people at one address, and to those who fill it at once."""
        with self.http() as http:
            draft = http.get("/api/v1/forms/tuning-visit/draft")
            document = draft.json()["document"]
            document["public"] = {"least_seconds": 0, "most_per_minute": 10_000}
            headers = {"If-Match": draft.headers["ETag"]}
            http.put(
                "/api/v1/forms/tuning-visit/draft", json=document, headers=headers
            ).raise_for_status()
            http.post("/api/v1/forms/tuning-visit/publish", headers=ANY_STATE).raise_for_status()

    def token(self):
        with self.http(None) as http:
            return http.get("/f/tuning-visit").text.split('access="')[1].split('"')[0]

    @contextmanager
    def people(self):
        """People who are busy; what they were told is held against what is there after."""
        people = People(("127.0.0.1", self.port), self.token(), TYPING, SENDING, LONGEST_WAIT)
        with people:
            time.sleep(2)
            yield people
        self.wait_until_ready()
        self.hold(people)

    def hold(self, people):
        """Every record that was acknowledged is there, once."""
        with self.http() as http:
            kept = Counter()
            for key, record in people.acknowledged.items():
                answer = http.get(f"/api/v1/records/{record}")
                assert answer.status_code == 200, f"{key} was acknowledged and is gone"
                kept[answer.json()["values"]["note"]] += 1
            total = http.get("/api/v1/records", params={"search": "fault"}).json()["total"]
        assert len(people.acknowledged) > 0
        assert set(kept) == set(people.acknowledged)
        assert set(kept.values()) <= {1}
        assert total >= len(people.acknowledged)


@contextmanager
def service_in(folder, **environment):
    service = Service(
        folder,
        {
            **{k: v for k, v in os.environ.items() if not k.startswith("ANCHORLINE_")},
            "ANCHORLINE_VAR_DIR": str(folder),
            "ANCHORLINE_PORT": str(free_port()),
            "ANCHORLINE_DATABASE_PORT": str(free_port()),
            # Twenty people and more behind one address.
            "ANCHORLINE_ADDRESS_SEARCHES": "5000",
            "ANCHORLINE_ADDRESS_CALLS": "5000",
            **environment,
        },
    )
    try:
        service.prepare()
        service.open_wide()
        yield service
    finally:
        service.end()


@pytest.fixture(scope="session")
def service():
    folder = new_folder("faults")
    with service_in(folder) as running:
        yield running
    shutil.rmtree(folder)


@pytest.fixture
def figures():
    """Takes what is to be said of a fault when all tests are done."""
    return FIGURES.append


def kill(pid, number=signal.SIGKILL):
    os.kill(pid, number)
