"""People at the running service: some type, some send forms, all the time a fault is made.

They behave as browsers do: a connection that was kept and turns out to be closed is opened anew
and the same request sent again (RFC 9110, 9.2.2); a form that was not answered is sent again with
its key. What they were told is kept, and held against what is there at the end.
"""

from __future__ import annotations

import http.client
import json
import random
import threading
import time
from contextlib import closing
from dataclasses import dataclass, field

BETWEEN_KEYS = 0.2
BETWEEN_FORMS = 0.15
LINES = (
    "kiln crescent brackwater",
    "12 abbey mews",
    "qv1 1aa",
    "griernstrasse 4",
    "rue des",
    "14 kil",
)
VALUES = {
    "contact": "Fault", "phone": "+44 20 555 0100", "visit": "tuning", "piano_number": "1",
    "piano_street": "Abbey Mews", "piano_town": "Brackwater", "piano_postcode": "QV1 1AA",
}  # fmt: skip


@dataclass
class Typed:
    """One keystroke: when, how long its answer took, and what became of it (0: nothing came)."""

    at: float
    seconds: float
    status: int


@dataclass
class People:
    """All of them; a context in which they are busy.

    Args:
        typing, sending: how many of each.
        longest_wait: seconds after which a person gives up.
    """

    address: tuple[str, int]
    token: str
    typing: int
    sending: int
    longest_wait: float
    typed: list[Typed] = field(default_factory=list)
    acknowledged: dict[str, str] = field(default_factory=dict)
    refused: list[int] = field(default_factory=list)
    _stop: threading.Event = field(default_factory=threading.Event)
    _threads: list[threading.Thread] = field(default_factory=list)

    def __enter__(self):
        jobs = [(self._type, n) for n in range(self.typing)]
        jobs += [(self._send, n) for n in range(self.sending)]
        self._threads = [threading.Thread(target=job, args=(n,), daemon=True) for job, n in jobs]
        for thread in self._threads:
            thread.start()
        return self

    def __exit__(self, *_):
        self._stop.set()
        for thread in self._threads:
            thread.join(2 * self.longest_wait)

    def failed(self, since, until=float("inf")):
        return [t for t in self.typed if since <= t.at <= until and t.status != 200]

    def answered(self, since, until=float("inf")):
        """Keystrokes that were asked and answered in that time."""
        return [
            t for t in list(self.typed)
            if since <= t.at and t.at + t.seconds <= until and t.status == 200
        ]  # fmt: skip

    def p95(self, since, until=float("inf")):
        """Of answers that were asked for in that time, in seconds."""
        times = sorted(t.seconds for t in self.typed if since <= t.at <= until)
        assert times, "nobody typed"
        return times[int(0.95 * (len(times) - 1))]

    def _type(self, number):
        with closing(_Browser(self.address, self.token, self.longest_wait)) as person:
            self._type_with(person, random.Random(number))

    def _type_with(self, person, rng):
        time.sleep(rng.random() * BETWEEN_KEYS)
        while not self._stop.is_set():
            line = rng.choice(LINES)
            for end in range(1, len(line) + 1):
                at = time.monotonic()
                query = line[:end].replace(" ", "%20")
                status, _ = person.ask("GET", f"/api/v1/suggest?q={query}")
                took = time.monotonic() - at
                self.typed.append(Typed(at, took, status))
                if self._stop.wait(max(0.0, BETWEEN_KEYS - took)):
                    return

    def _send(self, number):
        with closing(_Browser(self.address, self.token, self.longest_wait)) as person:
            self._send_with(person, number)

    def _send_with(self, person, number):
        count = 0
        while not self._stop.is_set():
            key = f"fault-{number}-{count}-{time.time_ns()}"
            slots = {"piano": {"country_code": "GB"}}
            body = json.dumps({"values": VALUES | {"note": key}, "slots": slots})
            status, answer = person.ask(
                "POST", "/api/v1/forms/tuning-visit/records", body, {"Idempotency-Key": key}
            )
            if status == 201:
                self.acknowledged[key] = json.loads(answer)["id"]
                count += 1
            else:
                self.refused.append(status)
            self._stop.wait(BETWEEN_FORMS)


class _Browser:
    """One kept connection."""

    def __init__(self, address, token, longest_wait):
        self._address, self._token, self._longest_wait = address, token, longest_wait
        self._connection = None

    def ask(self, method, path, body=None, headers=None):
        """The answer's status and body; 0 where none came."""
        kept = self._connection is not None
        try:
            return self._once(method, path, body, headers)
        except TimeoutError:
            self.close()
            return 0, b""
        except (OSError, http.client.HTTPException):
            self.close()
            if not kept:
                return 0, b""
        try:
            return self._once(method, path, body, headers)
        except (OSError, http.client.HTTPException):
            self.close()
            return 0, b""

    def _once(self, method, path, body, headers):
        if self._connection is None:
            self._connection = http.client.HTTPConnection(
                *self._address, timeout=self._longest_wait
            )
        given = {"Authorization": f"Bearer {self._token}", **(headers or {})}
        if body is not None:
            given["Content-Type"] = "application/json"
        self._connection.request(method, path, body, given)
        answer = self._connection.getresponse()
        content = answer.read()
        if answer.will_close:
            self.close()
        return answer.status, content

    def close(self):
        if self._connection is not None:
            self._connection.close()
            self._connection = None
