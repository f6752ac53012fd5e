"""Noting what is called: in memory while a request is answered, in the database a moment later.

A keystroke costs no more for it than a tuple that is laid aside. A thread of each process carries
the calls over; where the database is away they wait, and of very many the oldest go, which is said.
"""

from __future__ import annotations

import threading
import time
from collections import deque
from collections.abc import Callable, Sequence
from typing import TYPE_CHECKING

from anchorline.store.activity import ActivityStore, NewCall
from anchorline.store.database import StoreError

from .logs import logger

if TYPE_CHECKING:
    from _typeshed.wsgi import WSGIEnvironment

# What a request's environment says of who calls, and of the form or target that it is about.
SUBJECT, ABOUT = "anchorline.subject", "anchorline.about"
_CARRIED_EVERY = 0.5
_MOST_WAITING = 20_000
_BATCH = 2_000
_BATCH_CHARACTERS = 2_000_000
_MOST_OBSERVED = 65_536
# Their questions and answers hold what nobody may read later.
_SECRET = ("keys.", "session.")
_log = logger("activity")


class Activity:
    """The calls of one process.

    Attributes:
        endpoints: the names of all that can be called.
    """

    def __init__(self, store: ActivityStore) -> None:
        self.endpoints: Sequence[str] = ()
        self._store = store
        self._waiting: deque[NewCall] = deque(maxlen=_MOST_WAITING)
        self._lost = 0
        self._observed: frozenset[tuple[str, str]] = frozenset()

    def begin(self) -> None:
        """Carries calls over from now on."""
        threading.Thread(target=self._carry_on, daemon=True).start()

    def learn(self) -> None:
        """Gets to know what is observed."""
        self._observed = frozenset((one.kind, one.name) for one in self._store.observations())

    def is_observed(self, kind: str, name: str) -> bool:
        """Whether question and answer are kept: of a `key`, a `target` or a `form`."""
        return (kind, name) in self._observed

    def note(
        self,
        environ: WSGIEnvironment,
        endpoint: str,
        status: int,
        ms: float,
        body: Callable[[], bytes],
    ) -> None:
        """Notes a call.

        Args:
            endpoint: its router's name and its own.
            body: reads that of the answer.
        """
        subject: str = environ.get(SUBJECT, "")
        origin: str = environ.get("HTTP_ORIGIN", "")
        of: str = environ.get(ABOUT, "")
        question = answer = None
        observed = self._observed
        is_observed = observed and not observed.isdisjoint(
            (("key", subject), ("target", of), ("form", of))
        )
        if is_observed and not endpoint.startswith(_SECRET):
            question, answer = _question(environ), _text(body())
        at = time.time() - ms / 1000
        if len(self._waiting) == _MOST_WAITING:
            self._lost += 1
        self._waiting.append(
            NewCall(at, subject, origin, endpoint, of, status, round(ms, 2), question, answer)
        )

    def carry_over(self) -> None:
        """Keeps what waits now; StoreError leaves it waiting.

        What comes meanwhile waits for the next time: kept at once, calls that never pause would go
        to the database one by one.
        """
        left = len(self._waiting)
        while left > 0 and self._waiting:
            batch = self._next_batch(left)
            left -= len(batch)
            try:
                self._store.keep(batch)
            except StoreError:
                room = max(0, _MOST_WAITING - len(self._waiting))
                self._waiting.extendleft(reversed(batch[len(batch) - room :]))
                self._lost += len(batch) - min(room, len(batch))
                raise

    def _next_batch(self, most: int) -> list[NewCall]:
        """As many as go to the database at once: what is observed can be long."""
        batch: list[NewCall] = []
        size = 0
        most = min(most, _BATCH, len(self._waiting))
        while len(batch) < most and size < _BATCH_CHARACTERS:
            one = self._waiting.popleft()
            size += len(one.question or "") + len(one.answer or "")
            batch.append(one)
        return batch

    def _carry_on(self) -> None:
        while True:
            time.sleep(_CARRIED_EVERY)
            try:
                self.carry_over()
            except StoreError:
                continue
            except Exception as error:  # whatever it is, the calls after these are kept
                _log.error("some calls could not be kept", kind=type(error).__name__)
            if self._lost:
                _log.warning("activity is not whole: calls are missing", calls=self._lost)
                self._lost = 0


def _question(environ: WSGIEnvironment) -> str:
    request = environ.get("werkzeug.request")
    body = request.get_data() if request is not None else b""
    asked = f"{environ['REQUEST_METHOD']} {environ['PATH_INFO']}"
    if environ.get("QUERY_STRING"):
        asked += f"?{environ['QUERY_STRING']}"
    return asked + (f"\n{_text(body)}" if body else "")


def _text(data: bytes) -> str:
    return data[:_MOST_OBSERVED].decode("utf-8", "replace")
