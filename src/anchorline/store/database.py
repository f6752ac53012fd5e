"""The connection to MariaDB, and the one place where its errors are translated.

StoreError
├── DatabaseUnavailableError   it does not answer now; trying again later may help
│   └── ContendedError         other transactions were in the way; trying again at once helps
├── AlreadyThereError          something with this name is already kept
├── NotThereError              nothing with this name is kept
├── StaleError                 it was changed by somebody else in the meantime
└── ReusedKeyError             an idempotency key came again with another request
"""

from __future__ import annotations

import random
import time
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from datetime import UTC, datetime
from functools import wraps
from typing import Any, ParamSpec, TypeVar

from sqlalchemy import create_engine, event, make_url, text
from sqlalchemy.exc import DBAPIError, IntegrityError, InterfaceError, OperationalError
from sqlalchemy.orm import Session, sessionmaker

_Given = ParamSpec("_Given")
_Answer = TypeVar("_Answer")
Clock = Callable[[], datetime]
COLLATION = "utf8mb4_uca1400_ai_ci"
# MariaDB's number for a second row with a unique value.
_DUPLICATE = 1062
# A deadlock, and a lock waited for too long.
_CONTENDED = ((1213,), (1205,))
_TRIES = 6


class StoreError(Exception):
    """Root of the store's errors."""


class DatabaseUnavailableError(StoreError):
    """The database does not answer."""


class ContendedError(DatabaseUnavailableError):
    """Other transactions were in the way and this one was undone whole."""


class AlreadyThereError(StoreError):
    """Something with this name is already kept."""


class NotThereError(StoreError):
    """Nothing with this name is kept."""


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


def again_if_contended(
    method: Callable[_Given, _Answer],
) -> Callable[_Given, _Answer]:
    """For methods that are one transaction: done again where others were in its way."""

    @wraps(method)
    def tried(*args: _Given.args, **kwargs: _Given.kwargs) -> _Answer:
        for _ in range(_TRIES - 1):
            try:
                return method(*args, **kwargs)
            except ContendedError:
                time.sleep(random.uniform(0.002, 0.02))  # noqa: S311
        return method(*args, **kwargs)

    return tried


class Database:
    """A pool of connections to one MariaDB database."""

    def __init__(self, url: str, clock: Clock = utc_now) -> None:
        self.now = clock
        self._engine = create_engine(
            make_url(url),
            pool_size=8,
            max_overflow=8,
            pool_pre_ping=True,
            pool_recycle=1800,
            pool_timeout=5,
            connect_args=_connect_args(url),
        )
        event.listen(self._engine, "connect", _set_collation)
        self._sessions = sessionmaker(self._engine, expire_on_commit=False)

    @contextmanager
    def transaction(self) -> Iterator[Session]:
        """A session that is committed at the end, or rolled back where something is raised.

        Raises:
            DatabaseUnavailableError: the database does not answer.
            AlreadyThereError: a unique value is already kept.
        """
        try:
            with self._sessions.begin() as session:
                yield session
        except IntegrityError as error:
            if error.orig is not None and error.orig.args[:1] == (_DUPLICATE,):
                raise AlreadyThereError(str(error.orig.args[1])) from error
            raise
        except (OperationalError, InterfaceError) as error:
            if error.orig is not None and error.orig.args[:1] in _CONTENDED:
                raise ContendedError("Other work is in the way.") from error
            raise DatabaseUnavailableError("The database does not answer.") from error
        except DBAPIError as error:
            if error.connection_invalidated:
                raise DatabaseUnavailableError("The database went away.") from error
            raise

    def ping(self) -> None:
        """Asks the database for a sign of life; DatabaseUnavailableError where there is none."""
        with self.transaction() as session:
            session.execute(text("SELECT 1"))

    def close(self) -> None:
        """Closes all connections."""
        self._engine.dispose()

    @property
    def engine(self) -> Any:
        """The engine, for migrations."""
        return self._engine


def _connect_args(url: str) -> dict[str, object]:
    host = make_url(url).host
    # On loopback a TLS handshake would cost a hundred times what the connection costs.
    local = host in ("127.0.0.1", "localhost", "::1", None)
    return {
        "charset": "utf8mb4",
        "connect_timeout": 5,
        "read_timeout": 20,
        "write_timeout": 20,
        **({"ssl_disabled": True} if local else {}),
    }


def _set_collation(connection: Any, _record: object) -> None:
    with connection.cursor() as cursor:
        cursor.execute(f"SET NAMES utf8mb4 COLLATE {COLLATION}")
        cursor.execute("SET time_zone = '+00:00'")
