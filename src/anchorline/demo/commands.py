"""The demo from the command line: run it, start and stop it in the background, make rows.

Everything runs as separate processes of the service; what the demo itself does to it, it does
through the client.
"""

from __future__ import annotations

import csv
import json
import os
import secrets
import signal
import subprocess
import sys
import time
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

import click
import httpx
import psutil

from anchorline.client import AnchorlineError, Client
from anchorline.core.gazetteer import ROW_COLUMNS
from anchorline.private_files import write_whole

from .scenario import describe, set_up_forms, submit_examples
from .spellings import with_spellings
from .world import COUNTRIES, make_rows

DEMO_ROWS = 30_000
DATASET = "demo"
ADMIN_EMAIL = "admin@brackwater.example"
START_SECONDS = 120
STOP_SECONDS = 40


class DemoError(click.ClickException):
    """A step of the demo failed; the message says which and what to do."""


@click.group()
def main() -> None:
    """Brackwater Piano Care: a made-up firm to try Anchorline with."""


@main.command()
@click.option("--rows", default=DEMO_ROWS, show_default=True, help="Addresses to make.")
def run(rows: int) -> None:
    """Start the demo and serve until Ctrl-C."""
    process = _spawn(sys.stderr.fileno(), tied=True)
    try:
        with _step("Starting the database and the service"):
            _wait_until_alive(process)
        _set_up(rows)
        _say_where_to_go()
        while process.poll() is None:
            time.sleep(0.2)
        raise DemoError("The service ended by itself; its last words stand above.")
    except KeyboardInterrupt:
        click.echo("\nStopping …")
    finally:
        _end(process.pid)
        process.wait()
    click.echo("Stopped; everything it kept is still there.")


@main.command()
@click.option("--rows", default=DEMO_ROWS, show_default=True, help="Addresses to make.")
def start(rows: int) -> None:
    """Start the demo in the background; returns once it answers."""
    if _running_pid() is not None and _alive():
        click.echo(f"The demo is running at {_url()}.")
        return
    folder = _folder()
    # Only for whoever runs it: a log tells how a service is used.
    descriptor = os.open(
        folder / "service.log", os.O_WRONLY | os.O_CREAT | os.O_APPEND | os.O_NOFOLLOW, 0o600
    )
    os.fchmod(descriptor, 0o600)
    with os.fdopen(descriptor, "ab") as log:
        process = _spawn(log.fileno())
    (folder / "service.pid").write_text(str(process.pid))
    try:
        with _step("Starting the database and the service"):
            _wait_until_alive(process, folder / "service.log")
        _set_up(rows)
    except BaseException:
        _end(process.pid)
        raise
    _say_where_to_go()


@main.command()
def stop() -> None:
    """Stop the demo that runs in the background."""
    pid = _running_pid()
    if pid is None:
        click.echo("The demo is not running.")
        return
    _end(pid)
    (_folder() / "service.pid").unlink(missing_ok=True)
    click.echo("The demo has stopped; everything it kept is still there.")


@main.command()
@click.argument("count", type=click.IntRange(1, 100_000_000))
@click.option("--seed", default=2470, show_default=True)
@click.option("--country", "countries", multiple=True, type=click.Choice(COUNTRIES))
@click.option("--output", type=click.Path(dir_okay=False, path_type=Path), default="-")
def rows(count: int, seed: int, countries: tuple[str, ...], output: Path) -> None:
    """Write COUNT made-up addresses as CSV, the same for the same seed.

    Those of places with two languages come in two rows.
    """
    write_rows(count, seed, countries or COUNTRIES, output)


def write_rows(count: int, seed: int, countries: tuple[str, ...], output: Path) -> None:
    """Writes made-up addresses in the form that the service loads; `-` is standard output."""
    with click.open_file(str(output), "w", encoding="utf-8") as file:
        writer = csv.DictWriter(file, ROW_COLUMNS, lineterminator="\r\n")
        writer.writeheader()
        for row in with_spellings(make_rows(count, seed, countries)):
            writer.writerow(
                {
                    "id": row.id,
                    "country_code": row.country_code,
                    "language": row.language,
                    "latitude": row.latitude,
                    "longitude": row.longitude,
                    "use": row.use,
                    **row.components,
                }
            )


def _set_up(rows: int) -> None:
    try:
        _set_up_through_the_client(rows)
    except AnchorlineError as error:
        raise DemoError(f"The service refused a step of the set-up: {error}") from error


def _set_up_through_the_client(rows: int) -> None:
    access = _access()
    with Client(access["url"], access["server_key"]) as client:
        if not client.stand().editions:
            with _step(f"Making and loading {rows:,} addresses"):
                file = _folder() / "addresses.csv"
                write_rows(rows, 2470, COUNTRIES, file)
                _load(client, file)
                time.sleep(1.2)  # processes look for a new edition once a second
                _wait_for_editions(client)
        if len(client.forms()) == 0:
            with _step("Setting up the forms and some records"):
                set_up_forms(client)
                submit_examples(client)
        for line in describe(client):
            click.echo(f"  · {line}")


def _load(client: Client, file: Path) -> None:
    job = client.datasets.load(DATASET, file, activate="always")
    ended = client.datasets.wait(job.id, every=0.1)
    if ended.state != "done":
        raise DemoError(f"The addresses were not loaded: {ended.message}")


def _wait_for_editions(client: Client) -> None:
    """Until every worker process answers with the new edition."""
    deadline, in_a_row = time.monotonic() + START_SECONDS, 0
    while in_a_row < 8:
        in_a_row = in_a_row + 1 if client.suggest("a").edition else 0
        if time.monotonic() > deadline:
            raise DemoError("The service does not open the loaded edition; see its log.")
        time.sleep(0.05)


def _access() -> dict[str, str]:
    """The addresses, people and keys of the demo, made at the first start."""
    path = _folder() / "access.json"
    if path.exists():
        kept: dict[str, str] = json.loads(path.read_text())
        if kept["url"] == _url():
            return kept
        made = {**kept, "url": _url()}
    else:
        with _step("Making an administrator and keys"):
            password = secrets.token_urlsafe(12)
            keys = _service(
                "provision", ADMIN_EMAIL, "Robin Arkley", "--origin", _url(),
                "--form", "tuning-visit", text=password,
            )  # fmt: skip
            made = {
                "url": _url(),
                "admin_email": ADMIN_EMAIL,
                "admin_password": password,
                **json.loads(keys),
            }
    write_whole(path, json.dumps(made, indent=2).encode())
    return made


def _service(*arguments: str, text: str = "") -> str:
    """Runs one of the service's own commands and returns what it printed."""
    done = subprocess.run(
        [sys.executable, "-m", "anchorline.service", *arguments],
        input=text + "\n",
        capture_output=True,
        text=True,
        check=False,
    )
    if done.returncode != 0:
        raise DemoError(f"`{' '.join(arguments[:2])}` failed: {done.stderr.strip()}")
    return done.stdout.strip()


def _spawn(errors: int, *, tied: bool = False) -> subprocess.Popen[bytes]:
    """The service as a process; `tied` ends it when this process ends, however that comes."""
    tie = ["setpriv", "--pdeathsig", "TERM", "--"] if tied else []
    return subprocess.Popen(
        [*tie, sys.executable, "-m", "anchorline.service", "run", "--worker"],
        # On the terminal only what went wrong; the background's log has everything.
        env={"ANCHORLINE_LOG_LEVEL": "warning", **os.environ} if tied else None,
        stdin=subprocess.DEVNULL,
        stdout=errors,
        stderr=errors,
        start_new_session=True,
    )


def _wait_until_alive(process: subprocess.Popen[bytes], log: Path | None = None) -> None:
    """Until it answers, and nobody else in its place: it will be sent a key."""
    deadline = time.monotonic() + START_SECONDS
    while process.poll() is not None or not (_listens(process.pid) and _alive()):
        if process.poll() is not None:
            tail = "" if log is None else "\n" + "\n".join(log.read_text().splitlines()[-5:])
            raise DemoError(f"The service ended with status {process.returncode}.{tail}")
        if time.monotonic() > deadline:
            _end(process.pid)
            raise DemoError(f"The service did not answer within {START_SECONDS} s.")
        time.sleep(0.1)


def _listens(pid: int) -> bool:
    """Whether it is this process that listens at the service's port."""
    port = int(os.environ.get("ANCHORLINE_PORT") or "8470")
    try:
        held = psutil.Process(pid).net_connections("tcp")
    except psutil.Error:
        return False
    return any(c.status == psutil.CONN_LISTEN and c.laddr[1:2] == (port,) for c in held)


def _alive() -> bool:
    """Whether the service of this folder answers at the address."""
    try:
        answer = httpx.get(f"{_url()}/healthz", timeout=2, trust_env=False)
        return bool(answer.json()["instance"] == (_folder().parent / "instance").read_text())
    except (httpx.TransportError, OSError, ValueError, KeyError):
        return False


def _running_pid() -> int | None:
    try:
        pid = int((_folder() / "service.pid").read_text())
        command = Path(f"/proc/{pid}/cmdline").read_bytes()
    except (OSError, ValueError):
        return None
    return pid if b"anchorline.service" in command else None


def _end(pid: int) -> None:
    try:
        os.kill(pid, signal.SIGTERM)
    except ProcessLookupError:
        return
    deadline = time.monotonic() + STOP_SECONDS
    while time.monotonic() < deadline:
        try:
            if os.waitpid(pid, os.WNOHANG)[0]:
                return
        except ChildProcessError:
            if not Path(f"/proc/{pid}").exists():
                return
        time.sleep(0.05)
    raise DemoError(f"The service (process {pid}) does not stop; look at its log.")


def _say_where_to_go() -> None:
    access = _access()
    click.echo(f"""
  The form     {access["url"]}/f/tuning-visit
  The console  {access["url"]}/
               {access["admin_email"]}
               {access["admin_password"]}
  The keys     {_folder() / "access.json"}
""")


def _url() -> str:
    host = os.environ.get("ANCHORLINE_HOST") or "127.0.0.1"
    return f"http://{host}:{os.environ.get('ANCHORLINE_PORT') or '8470'}"


def _folder() -> Path:
    """`demo` in the service's own folder."""
    project = Path(__file__).resolve().parents[3]
    folder = Path(os.environ.get("ANCHORLINE_VAR_DIR") or project / "var") / "demo"
    folder.mkdir(parents=True, exist_ok=True)
    return folder


@contextmanager
def _step(title: str) -> Iterator[None]:
    began = time.monotonic()
    click.echo(f"  … {title}", nl=False)
    try:
        yield
    except BaseException:
        click.echo(f"\r  ✗ {title}")
        raise
    click.echo(f"\r  ✓ {title} ({time.monotonic() - began:.1f} s)")
