"""A MariaDB of the project's own: on loopback, unprivileged, in a folder of its own.

As root it runs under the account that Debian's package makes for it, else under the account
that starts it. Its folder holds the data, the socket, the log, and `access.json` (mode 600)
with the port and the generated password of the one database account.
"""

from __future__ import annotations

import shutil
import socket
import subprocess
import time
from pathlib import Path

from anchorline.child_processes import end_processes
from anchorline.private_files import UnsafeFolderError

from .database import COLLATION, Database, DatabaseUnavailableError
from .server_folder import LocalServerError, ServerAccess, ServerFolder, as_account

__all__ = ["LocalServer", "LocalServerError"]

START_SECONDS = 60
STOP_SECONDS = 30


class LocalServer:
    """One server in one folder; `start` is idempotent and recovers what a crash left."""

    def __init__(self, folder: Path, preferred_port: int) -> None:
        self._folder = ServerFolder(folder)
        self._preferred_port = preferred_port
        self._process: subprocess.Popen[bytes] | None = None
        self._given: str | None = None  # the URL that `start` returned first

    @property
    def folder(self) -> Path:
        """Where it keeps everything."""
        return self._folder.path

    @property
    def log(self) -> Path:
        """Its own log."""
        return self._folder.log

    def start(self) -> str:
        """Starts the server, or finds it running, and returns the database's URL.

        Called again, it brings a server that died back under the same URL.

        Raises:
            LocalServerError: a program or the password is missing, or the server did not come up.
        """
        self._given = self._start()
        return self._given

    def _start(self) -> str:
        if shutil.which("mariadbd") is None:
            raise LocalServerError(
                "mariadbd is not installed. Install Debian's mariadb-server, or set "
                "ANCHORLINE_DATABASE_URL to a MariaDB of your own."
            )
        try:
            kept = self._folder.prepare()
            running = self._running_pid()
            if running is not None:
                if _answers(kept.url):
                    return kept.url
                end_processes([running], STOP_SECONDS)
            access = ServerAccess(self._port(kept.port), kept.password)
            if access != kept:
                self._folder.write_access(access)
        except (OSError, UnsafeFolderError) as error:
            raise LocalServerError(f"The database's folder cannot be used: {error}") from error
        self._process = subprocess.Popen(
            [*as_account(), "mariadbd", *self._options(access.port)],
            cwd=self._folder.data,
            stdin=subprocess.DEVNULL,
            stdout=subprocess.DEVNULL,
            stderr=subprocess.DEVNULL,
            start_new_session=True,  # Ctrl-C is for the service; it stops the server in order
        )
        self._wait_until_it_answers(access.url)
        return access.url

    def running_url(self) -> str | None:
        """The database's URL where the server runs and answers, else None."""
        access = self._folder.read_access()
        if access is None or self._running_pid() is None or not _answers(access.url):
            return None
        return access.url

    def alive(self) -> bool:
        """Whether the server that this object started or found still runs."""
        if self._process is not None:
            return self._process.poll() is None
        return self._running_pid() is not None

    def stop(self) -> None:
        """Stops the server in order; does nothing where it does not run."""
        running = self._process or self._running_pid()
        if running is not None:
            end_processes([running], STOP_SECONDS)
        self._process = None

    def renew_password(self) -> None:
        """Makes a new password for the data that is there; the next start takes it.

        Raises:
            LocalServerError: there is no data, or the server runs.
        """
        if not self._folder.has_data():
            raise LocalServerError(f"There is no database in {self._folder.path} yet.")
        if self._running_pid() is not None:
            raise LocalServerError(
                f"The database in {self._folder.path} runs. Stop the service first, then run "
                "this again."
            )
        kept = self._folder.read_access()
        self._folder.keep_password(kept.port if kept else 0)

    def _options(self, port: int) -> list[str]:
        first_start = self._folder.first_start
        return [
            "--no-defaults",
            f"--datadir={self._folder.data}",
            f"--tmpdir={self._folder.temporary}",
            "--socket=mariadb.sock",
            f"--pid-file={self._folder.data / 'mariadb.pid'}",
            f"--log-error={self._folder.log}",
            "--bind-address=127.0.0.1",
            f"--port={port}",
            "--character-set-server=utf8mb4",
            f"--collation-server={COLLATION}",
            "--skip-name-resolve",
            "--local-infile=OFF",
            "--innodb-buffer-pool-size=64M",
            "--innodb-flush-log-at-trx-commit=1",
            "--performance-schema=OFF",
            "--max-connections=100",
            *([f"--init-file={first_start}"] if first_start.exists() else []),
        ]

    def _wait_until_it_answers(self, url: str) -> None:
        deadline = time.monotonic() + START_SECONDS
        while time.monotonic() < deadline:
            if _answers(url):
                self._folder.first_start.unlink(missing_ok=True)
                return
            if not self.alive():
                break
            time.sleep(0.05)
        tail = "\n".join(self._folder.log.read_text("utf-8", "replace").splitlines()[-8:])
        raise LocalServerError(
            f"The database did not come up. Its log, {self._folder.log}, ends:\n{tail}"
        )

    def _running_pid(self) -> int | None:
        try:
            pid = int((self._folder.data / "mariadb.pid").read_text())
            command = Path(f"/proc/{pid}/cmdline").read_bytes()
        except (OSError, ValueError):
            return None
        return pid if str(self._folder.data).encode() in command else None

    def _port(self, kept: int) -> int:
        """The preferred port, or where that is taken the kept or any other one.

        Raises:
            LocalServerError: this server was given out on a port that is not free again.
        """
        if self._given is not None:
            if not _is_free(kept):
                raise LocalServerError(f"Another program holds the database's port {kept}.")
            return kept
        for port in (self._preferred_port, kept):
            if port and _is_free(port):
                return port
        with socket.socket() as any_free:
            any_free.bind(("127.0.0.1", 0))
            return int(any_free.getsockname()[1])


def _is_free(port: int) -> bool:
    with socket.socket() as probe:
        probe.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        try:
            probe.bind(("127.0.0.1", port))
        except OSError:
            return False
    return True


def _answers(url: str) -> bool:
    database = Database(url)
    try:
        database.ping()
    except DatabaseUnavailableError:
        return False
    finally:
        database.close()
    return True
