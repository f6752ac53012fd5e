"""Running it all: the listening socket, the database if it is ours, migrations, and the processes.

This process stays in front. It holds the listening socket, so that whoever comes while a part is
started again waits for a moment and is not refused. It ends everything in order on Ctrl-C, and
brings back whatever dies.
"""

from __future__ import annotations

import os
import signal
import time
from collections.abc import Callable, Iterator
from contextlib import ExitStack, contextmanager

from sqlalchemy import make_url

from anchorline.private_files import write_whole
from anchorline.store.database import Database, DatabaseUnavailableError, StoreError
from anchorline.store.local_server import LocalServer
from anchorline.store.migrate import migrate
from anchorline.store.purge import purge_expired

from ..logs import logger, set_up_logs
from ..settings import Settings
from ..space import why_not_start
from .account import ServiceAccount
from .children import Child, SparedChild
from .keeping import Keeper, Part
from .listening import listen
from .run_error import RunError

_PURGE_SECONDS = 3600
_log = logger("running")


@contextmanager
def database_of(settings: Settings) -> Iterator[str]:
    """The URL of the database, whose server runs at least as long as the context.

    A server of ours that was running before keeps running after.
    """
    if settings.database_url is not None:
        yield settings.database_url
        return
    server = LocalServer(settings.var / "mariadb", settings.database_port)
    was_running = server.alive()
    try:
        yield server.start()
    finally:
        if not was_running:
            server.stop()


def url_of_running_database(settings: Settings) -> str:
    """The URL of a database that runs already.

    Raises:
        RunError: it does not.
    """
    if settings.database_url is not None:
        return settings.database_url
    url = LocalServer(settings.var / "mariadb", settings.database_port).running_url()
    if url is None:
        raise RunError(
            f"The database in {settings.var / 'mariadb'} does not run. Start the service first "
            "(anchorline serve), or set ANCHORLINE_DATABASE_URL."
        )
    return url


def run(settings: Settings, *, with_worker: bool = False) -> int:
    """Runs the service until it is told to stop; returns the exit status.

    Args:
        with_worker: a worker runs beside it.
    """
    set_up_logs(settings.log_level)
    stopping = _Stopping()
    account = ServiceAccount(settings)
    with listen(settings) as listener, ExitStack() as ending:
        account.prepare(settings)
        write_whole(settings.var / "instance", settings.instance().encode(), mode=0o644)
        url = settings.database_url or _start_database(settings, ending)
        _migrate(url)
        environment = environment_of(settings, url)
        parts: dict[str, Part] = {
            "the service": SparedChild(account, ["answer"], environment, listener)
        }
        if with_worker:
            parts["the worker"] = Child(account, ["work"], environment)
        for name, part in parts.items():
            keeper = Keeper(name, part)
            keeper.begin()
            ending.callback(keeper.end)
        stopping.wait(lambda: _purge(url, settings.activity_days))
    return 0


def environment_of(settings: Settings, url: str) -> dict[str, str]:
    """What the service's processes find in their environment."""
    return {
        **os.environ,
        "ANCHORLINE_DATABASE_URL": url,
        "ANCHORLINE_VAR_DIR": str(settings.var),
    }


def _start_database(settings: Settings, ending: ExitStack) -> str:
    folder = settings.var / "mariadb"
    server = LocalServer(folder, settings.database_port)
    if server.folder != folder:
        _log.warning("database kept elsewhere", folder=str(server.folder))
    keeper = Keeper("the database", server, lambda: why_not_start(server.folder))
    keeper.begin()
    ending.callback(keeper.end)
    return server.start()


class _Stopping:
    """Waits for a signal that asks to stop."""

    def __init__(self) -> None:
        self._asked = False
        for number in (signal.SIGINT, signal.SIGTERM):
            signal.signal(number, self._ask)

    def _ask(self, _number: int, _frame: object) -> None:
        self._asked = True

    def wait(self, purge: Callable[[], None]) -> None:
        """Returns once it was asked; meanwhile purges at the beginning and every hour."""
        purged = time.monotonic() - _PURGE_SECONDS
        while not self._asked:
            if time.monotonic() - purged >= _PURGE_SECONDS:
                purged = time.monotonic()
                purge()
            time.sleep(0.1)


def _migrate(url: str) -> None:
    database = Database(url)
    try:
        database.ping()
        migrate(database)
    except DatabaseUnavailableError as error:
        place = make_url(url)
        raise RunError(
            f"The database at {place.host}:{place.port or 3306} does not answer: "
            f"{error.__cause__ and error.__cause__.args[0]}. Start it, or mend "
            "ANCHORLINE_DATABASE_URL."
        ) from error
    finally:
        database.close()


def _purge(url: str, activity_days: int) -> None:
    database = Database(url)
    try:
        count = purge_expired(database, activity_days)
        _log.info("purged", rows=count)
    except StoreError as error:
        _log.warning("not purged", error=str(error))
    finally:
        database.close()
