"""The connection to MariaDB, and the one place where its errors are translated.

StoreError
├── DatabaseUnavailableError   it does not answer now; trying again later may help
├── ContendedError             others keep changing the same; nothing was changed
├── StorageFullError           there is no room to keep anything more
├── AlreadyThereError          something with this name is already kept
├── NotThereError              nothing with this name is kept
├── StaleError                 it was changed by somebody else in the meantime
└── ReusedKeyError             an idempotency key came again with another request
"""

from __future__ import annotations

import random
import socket
import threading
import time
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from datetime import UTC, datetime
from typing import Any, TypeVar

import pymysql
from sqlalchemy import URL, create_engine, event, make_url, text
from sqlalchemy import exc as sql_errors
from sqlalchemy.orm import Session, sessionmaker

from .pulse import ANSWER_SECONDS, Lifelines, Pulse

_Answer = TypeVar("_Answer")
Clock = Callable[[], datetime]
COLLATION = "utf8mb4_uca1400_ai_ci"
# MariaDB's number for a second row with a unique value.
_DUPLICATE = 1062
# A deadlock, and a lock waited for too long.
_CONTENDED = (1213, 1205)
# A full table space, a full disk, and errors of the system that name one (ENOSPC).
_FULL = (1114, 1021)
_OF_SYSTEM, _NO_SPACE = (3, 1026, 1030), ("rrcode: 28", "error 28")
# A unit of work is tried so often, each time after up to twice as long a pause, for at most these
# seconds: then whoever asked is told, and may ask again.
_TRIES, _FIRST_PAUSE_SECONDS, _MOST_SECONDS = 10, 0.01, 5.0
# Less than a query may take: who waits for others is told so, and not that nobody answers.
_LOCK_WAIT_SECONDS = 4
_CONNECT_SECONDS = 5
_QUERY_SECONDS = 20


class StoreError(Exception):
    """Root of the store's errors."""


class DatabaseUnavailableError(StoreError):
    """The database does not answer."""


class ContendedError(StoreError):
    """Other transactions were in the way each time, and this one was undone whole."""


class StorageFullError(StoreError):
    """There is no room to keep anything more; what was kept is untouched."""


class AlreadyThereError(StoreError):
    """Something with this name is already kept."""


class NotThereError(StoreError):
    """Nothing with this name is kept."""


class InUseError(StoreError):
    """It cannot be taken away while work on it is going on."""


class StaleError(StoreError):
    """It was changed in the meantime; `current` is the tag of what is kept now."""

    def __init__(self, current: str) -> None:
        self.current = current
        super().__init__("changed in the meantime")


class ReusedKeyError(StoreError):
    """An idempotency key was used before for another request."""


def utc_now() -> datetime:
    """The clock that is used outside tests."""
    return datetime.now(UTC)


class Database:
    """A pool of connections to one MariaDB database.

    Args:
        room: says, before much is kept, whether there is room for it.
    """

    def __init__(
        self, url: str, clock: Clock = utc_now, *, room: Callable[[], bool] = lambda: True
    ) -> None:
        self.now = clock
        self._url, self._room = make_url(url), room
        self._lifelines = Lifelines()
        self._pulse: Pulse | None = None
        self._patience: int = ANSWER_SECONDS
        self._engine = create_engine(
            self._url,
            hide_parameters=True,  # what people typed stands in no error's text
            pool_size=8,
            max_overflow=8,
            pool_pre_ping=True,
            pool_recycle=1800,
            pool_timeout=5,
            connect_args=_connect_args(self._url, _QUERY_SECONDS),
        )
        event.listen(self._engine, "do_connect", self._connect)
        event.listen(self._engine, "connect", _set_collation)
        event.listen(self._engine, "close", self._closed)
        self._sessions = sessionmaker(self._engine, expire_on_commit=False)
        self._within = threading.local()

    def run(self, work: Callable[[Session], _Answer]) -> _Answer:
        """Does a unit of work: a transaction that is kept whole, or not at all where it raises.

        Where other transactions were in its way (a deadlock, a lock that was waited for, a
        certification that was lost), all of it is done again. Units of work that are begun within
        one, by the same thread, are a part of it: `run(lambda _: (forms.publish(…), notes.add(…)))`
        keeps both or neither.

        Args:
            work: is given the session and may be called more than once, so it changes nothing
                but what is in the database.

        Raises:
            DatabaseUnavailableError: the database does not answer.
            ContendedError: others were in the way each time.
            StorageFullError: there is no room for what was to be kept.
            AlreadyThereError: a unique value is already kept.
        """
        outer: Session | None = getattr(self._within, "session", None)
        if outer is not None:
            with _errors_translated(), outer.begin_nested():
                return work(outer)
        until = time.monotonic() + _MOST_SECONDS
        for pause in (_FIRST_PAUSE_SECONDS * 2**n for n in range(_TRIES - 1)):
            try:
                return self._once(work)
            except ContendedError:
                if time.monotonic() + pause > until:
                    raise
                time.sleep(random.uniform(0.2, 1.0) * pause)  # noqa: S311
        return self._once(work)

    def _once(self, work: Callable[[Session], _Answer]) -> _Answer:
        if self._pulse is not None and self._pulse.away:
            raise DatabaseUnavailableError("The database does not answer.")
        try:
            with _errors_translated(), self._sessions.begin() as session:
                self._within.session = session
                return work(session)
        finally:
            self._within.session = None

    def watch(
        self,
        say: Callable[[bool], None] = lambda _answers: None,
        *,
        patience: int = ANSWER_SECONDS,
    ) -> None:
        """Has a thread watch from now on whether the database answers.

        Where it does not, nobody waits for it any more: transactions fail at once.

        Args:
            say: told when it stops and begins to answer.
            patience: seconds that it may need for a sign of life.
        """
        self._patience = patience
        self._pulse = Pulse(self._open_pulse, self._lifelines, say)

    def require_room(self) -> None:
        """StorageFullError where there is no room to keep much more."""
        if not self._room():
            raise StorageFullError("Little room is left on the disk.")

    def ping(self) -> None:
        """Asks the database for a sign of life; DatabaseUnavailableError where there is none."""
        self.run(lambda session: session.execute(text("SELECT 1")))

    def close(self) -> None:
        """Closes all connections."""
        if self._pulse is not None:
            self._pulse.stop()
        self._engine.dispose()

    def forget_connections(self) -> None:
        """In a process that was forked: leaves the connections to the one that it came from."""
        self._engine.dispose(close=False)

    @property
    def engine(self) -> Any:
        """The engine, for migrations."""
        return self._engine

    def _connect(self, _dialect: Any, record: Any, _args: Any, options: dict[str, Any]) -> Any:
        """A connection through a socket of which a handle is kept; None: in the usual way."""
        if self._pulse is not None and self._pulse.away:
            raise pymysql.OperationalError(2003, "no sign of life")
        if "unix_socket" in options:
            return None
        place = (options.get("host", "127.0.0.1"), options.get("port", 3306))
        seconds = self._patience if self._pulse is not None else _CONNECT_SECONDS
        try:
            connected = socket.create_connection(place, timeout=seconds)
        except OSError as error:
            raise pymysql.OperationalError(2003, f"no connection ({error.strerror})") from error
        line = self._lifelines.hold(connected)
        try:
            connection = pymysql.Connection(**options, defer_connect=True)
            connection.connect(connected)
        except BaseException:
            self._lifelines.let_go(line)
            connected.close()
            raise
        record.info["lifeline"] = line
        return connection

    def _closed(self, _connection: Any, record: Any) -> None:
        line = record.info.pop("lifeline", None)
        if line is not None:
            self._lifelines.let_go(line)

    def _open_pulse(self) -> Any:
        _args, options = self._engine.dialect.create_connect_args(self._url)
        return pymysql.Connection(**{**options, **_connect_args(self._url, self._patience)})


@contextmanager
def _errors_translated() -> Iterator[None]:
    try:
        yield
    except (sql_errors.DBAPIError, sql_errors.TimeoutError) as error:
        translated = _translated(error)
        if translated is None:
            raise
        raise translated from error


def _translated(error: sql_errors.SQLAlchemyError) -> StoreError | None:
    """The store's own error in place of the database's; None where it is a mistake of ours."""
    original = getattr(error, "orig", None)
    code, said = [*(original.args if original is not None else ()), None, None][:2]
    if code == _DUPLICATE:
        return AlreadyThereError("This is kept already.")
    if code in _CONTENDED:
        return ContendedError("Other work is in the way.")
    if code in _FULL or (code in _OF_SYSTEM and any(text in str(said) for text in _NO_SPACE)):
        return StorageFullError("There is no room left on the database's disk.")
    if isinstance(error, sql_errors.TimeoutError):
        return DatabaseUnavailableError("All connections to the database are in use.")
    away = isinstance(error, sql_errors.OperationalError | sql_errors.InterfaceError)
    if away or (isinstance(error, sql_errors.DBAPIError) and error.connection_invalidated):
        return DatabaseUnavailableError(f"The database does not answer (error {code}).")
    return None


def _connect_args(url: URL, seconds: int) -> dict[str, object]:
    # On loopback a TLS handshake would cost a hundred times what the connection costs.
    local = url.host in ("127.0.0.1", "localhost", "::1", None)
    return {
        "charset": "utf8mb4",
        "connect_timeout": min(seconds, _CONNECT_SECONDS),
        "read_timeout": seconds,
        "write_timeout": seconds,
        **({"ssl_disabled": True} if local else {}),
    }


def _set_collation(connection: Any, _record: object) -> None:
    with connection.cursor() as cursor:
        cursor.execute(f"SET NAMES utf8mb4 COLLATE {COLLATION}")
        cursor.execute("SET time_zone = '+00:00'")
        cursor.execute(f"SET innodb_lock_wait_timeout = {_LOCK_WAIT_SECONDS}")
