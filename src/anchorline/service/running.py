"""Running it all: the database if it is ours, migrations, gunicorn, and their supervision.

This process stays in front. It ends gunicorn and then the database on Ctrl-C, and brings the
database back should it die; gunicorn brings back its own workers.
"""

from __future__ import annotations

import os
import shutil
import signal
import socket
import subprocess
import sys
import time
from collections.abc import Iterator
from contextlib import contextmanager

from sqlalchemy import make_url

from anchorline.store.database import Database, DatabaseUnavailableError, StoreError
from anchorline.store.local_server import LocalServer
from anchorline.store.migrate import migrate
from anchorline.store.tidy import tidy

from .logs import logger, set_up_logs
from .settings import Settings

_STOP_SECONDS = 25
_PORT_SECONDS = 12
_TIDY_SECONDS = 3600
_WORKER_PAUSE_SECONDS = 0.5
_log = logger("running")


class RunError(Exception):
    """The service cannot be started; the message says what to do."""


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
        with_worker: a worker runs beside it, and is started again should it die.
    """
    set_up_logs(settings.log_level)
    _require_free_port(settings)
    stopping = _Stopping()
    server: LocalServer | None = None
    url = settings.database_url
    try:
        if url is None:
            server = LocalServer(settings.var / "mariadb", settings.database_port)
            if server.folder != settings.var / "mariadb":
                _log.warning("database kept elsewhere", folder=str(server.folder))
            url = server.start()
        _migrate(url)
        return _serve(settings, url, server, stopping, with_worker=with_worker)
    finally:
        if server is not None:
            server.stop()


class _Stopping:
    """Whether a signal has asked to stop."""

    def __init__(self) -> None:
        self.asked = False
        for number in (signal.SIGINT, signal.SIGTERM):
            signal.signal(number, self._ask)

    def _ask(self, _number: int, _frame: object) -> None:
        self.asked = True


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


def _require_free_port(settings: Settings) -> None:
    """Waits for the port as long as an earlier service may take to end."""
    deadline = time.monotonic() + _PORT_SECONDS
    while True:
        with socket.socket() as probe:
            probe.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
            try:
                probe.bind((settings.host, settings.port))
            except OSError as error:
                if time.monotonic() < deadline:
                    time.sleep(0.2)
                    continue
                raise RunError(
                    f"Port {settings.port} on {settings.host} cannot be used ({error.strerror}). "
                    "Stop what listens there, or set ANCHORLINE_PORT to another one."
                ) from error
            return


def _serve(
    settings: Settings,
    url: str,
    server: LocalServer | None,
    stopping: _Stopping,
    *,
    with_worker: bool,
) -> int:
    metrics = settings.var / "metrics"
    shutil.rmtree(metrics, ignore_errors=True)
    metrics.mkdir(parents=True)
    environment = {
        **os.environ,
        "ANCHORLINE_DATABASE_URL": url,
        "ANCHORLINE_VAR_DIR": str(settings.var),
        "PROMETHEUS_MULTIPROC_DIR": str(metrics),
    }
    process = _spawn(_gunicorn_command(settings), environment)
    worker = _spawn(_WORKER_COMMAND, environment) if with_worker else None
    tidied = time.monotonic() - _TIDY_SECONDS
    try:
        while process.poll() is None and not stopping.asked:
            time.sleep(0.1)
            if time.monotonic() - tidied >= _TIDY_SECONDS:
                tidied = time.monotonic()
                _tidy(url)
            if server is not None and not server.alive():
                _log.error("database died; starting it again")
                if server.start() != url:
                    raise RunError("The database came back on another port; start again.")
            if worker is not None and worker.poll() is not None:
                _log.error("worker died; starting it again", status=worker.returncode)
                time.sleep(_WORKER_PAUSE_SECONDS)
                worker = _spawn(_WORKER_COMMAND, environment)
    finally:
        if worker is not None:
            _end(worker)
        _end(process)
    return 0 if stopping.asked else 1


_WORKER_COMMAND = [sys.executable, "-m", "anchorline.service", "work"]


def _spawn(command: list[str], environment: dict[str, str]) -> subprocess.Popen[bytes]:
    """A process of its own session, which is told to end should this one die."""
    return subprocess.Popen(
        ["setpriv", "--pdeathsig", "TERM", "--", *command],
        env=environment,
        start_new_session=True,
    )


def _tidy(url: str) -> None:
    database = Database(url)
    try:
        count = tidy(database)
        _log.info("tidied", rows=count)
    except StoreError as error:
        _log.warning("not tidied", error=str(error))
    finally:
        database.close()


def _gunicorn_command(settings: Settings) -> list[str]:
    bind = f"{settings.host}:{settings.port}"
    return [
        sys.executable, "-m", "gunicorn", "--no-control-socket",
        "--worker-class", "anchorline.service.problem_worker.ProblemWorker", "--preload",
        "--workers", str(settings.workers),
        "--threads", str(settings.threads),
        "--bind", bind,
        "--timeout", "60", "--graceful-timeout", "5", "--keep-alive", "15",
        "--limit-request-line", "8190", "--limit-request-field_size", "8190",
        "--log-level", "warning",
        "--config", "python:anchorline.service.worker_hooks",
        "anchorline.service.wsgi:application()",
    ]  # fmt: skip


def _end(process: subprocess.Popen[bytes]) -> None:
    if process.poll() is None:
        process.terminate()
        try:
            process.wait(_STOP_SECONDS)
        except subprocess.TimeoutExpired:
            process.kill()
            process.wait()
