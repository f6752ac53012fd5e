"""The demo from the command line: run it, start and stop it in the background, make rows.

Everything runs as separate processes of the service; what the demo itself does to it, it does
through the client.
"""

from __future__ import annotations

import csv
import json
import os
import secrets
import subprocess
import sys
import time
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

import click

from anchorline.client import AnchorlineError, Client
from anchorline.core.gazetteer import ROW_COLUMNS
from anchorline.private_files import write_whole

from .alternate_names import with_alternate_names
from .desk import run_desktop
from .process import DemoError, alive, end, folder, listens, running_pid, spawn, url
from .scenario import apply_forms, describe, submit_examples
from .shop.opening import open_shop, running_shop, shop_url
from .world import COUNTRIES, make_rows

DEMO_ROWS = 30_000
DATASET = "demo"
ADMIN_EMAIL = "admin@brackwater.example"
START_SECONDS = 120


@click.group()
def main() -> None:
    """Brackwater Piano Care: a made-up firm to try Anchorline with."""


@main.command()
@click.option("--rows", default=DEMO_ROWS, show_default=True, help="Addresses to make.")
@click.option("--shop/--no-shop", default=True, help="Open a made-up shop beside it.")
def run(rows: int, shop: bool) -> None:
    """Start the demo and serve until Ctrl-C."""
    process = spawn(sys.stderr.fileno(), tied=True)
    try:
        with _step("Starting the database and the service"):
            _wait_until_alive(process)
        _set_up(rows)
        if shop:
            _open_shop(tied=True)
        _say_where_to_go()
        while process.poll() is None:
            time.sleep(0.2)
        raise DemoError("The service ended by itself; its last words stand above.")
    except KeyboardInterrupt:
        click.echo("\nStopping …")
    finally:
        _close_shop()
        end(process.pid)
        process.wait()
    click.echo("Stopped; everything it kept is still there.")


@main.command()
@click.option("--rows", default=DEMO_ROWS, show_default=True, help="Addresses to make.")
@click.option("--shop/--no-shop", default=True, help="Open a made-up shop beside it.")
def start(rows: int, shop: bool) -> None:
    """Start the demo in the background; returns once it answers."""
    if running_pid() is not None and alive():
        click.echo(f"The demo is running at {url()}.")
        return
    place = folder()
    # Only for whoever runs it: a log tells how a service is used.
    descriptor = os.open(
        place / "service.log", os.O_WRONLY | os.O_CREAT | os.O_APPEND | os.O_NOFOLLOW, 0o600
    )
    os.fchmod(descriptor, 0o600)
    with os.fdopen(descriptor, "ab") as log:
        process = spawn(log.fileno())
    (place / "service.pid").write_text(str(process.pid))
    try:
        with _step("Starting the database and the service"):
            _wait_until_alive(process, place / "service.log")
        _set_up(rows)
        if shop:
            _open_shop()
    except BaseException:
        end(process.pid)
        raise
    _say_where_to_go()


@main.command()
def stop() -> None:
    """Stop the demo that runs in the background."""
    _close_shop()
    pid = running_pid()
    if pid is None:
        click.echo("The demo is not running.")
        return
    end(pid)
    (folder() / "service.pid").unlink(missing_ok=True)
    click.echo("The demo has stopped; everything it kept is still there.")


@main.command()
def desk() -> None:
    """Show made-up programs and run the desktop agent, until Ctrl-C."""
    run_desktop()


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
        for row in with_alternate_names(make_rows(count, seed, countries)):
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
    except subprocess.CalledProcessError as error:
        raise DemoError(f"The forms could not be set up: {error.stderr}") from error


def _set_up_through_the_client(rows: int) -> None:
    access = _access()
    with Client(access["url"], access["server_key"]) as client:
        if not client.overview().editions:
            with _step(f"Making and loading {rows:,} addresses"):
                file = folder() / "addresses.csv"
                write_rows(rows, 2470, COUNTRIES, file)
                _load(client, file)
                time.sleep(1.2)  # processes look for a new edition once a second
                _wait_for_editions(client)
        if len(client.forms.list()) == 0:
            with _step("Setting up the forms and some records"):
                apply_forms(access["url"], access["server_key"])
                submit_examples(client)
        for line in describe(client):
            click.echo(f"  · {line}")


def _open_shop(*, tied: bool = False) -> None:
    access = _access()
    with _step("Opening the shop"), Client(access["url"], access["server_key"]) as client:
        try:
            open_shop(client, access["url"], tied=tied)
        except AnchorlineError as error:
            raise DemoError(f"The shop could not be opened: {error}") from error


def _close_shop() -> None:
    pid = running_shop()
    if pid is not None:
        end(pid)


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
    path = folder() / "access.json"
    if path.exists():
        kept: dict[str, str] = json.loads(path.read_text())
        if kept["url"] == url():
            return kept
        made = {**kept, "url": url()}
    else:
        with _step("Making an administrator and keys"):
            password = secrets.token_urlsafe(12)
            keys = _service(
                "provision", ADMIN_EMAIL, "Robin Arkley", "--origin", url(),
                "--form", "tuning-visit", text=password,
            )  # fmt: skip
            made = {
                "url": url(),
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


def _wait_until_alive(process: subprocess.Popen[bytes], log: Path | None = None) -> None:
    """Until it answers, and nobody else in its place: it will be sent a key."""
    deadline = time.monotonic() + START_SECONDS
    while process.poll() is not None or not (listens(process.pid) and alive()):
        if process.poll() is not None:
            tail = "" if log is None else "\n" + "\n".join(log.read_text().splitlines()[-5:])
            raise DemoError(f"The service ended with status {process.returncode}.{tail}")
        if time.monotonic() > deadline:
            end(process.pid)
            raise DemoError(f"The service did not answer within {START_SECONDS} s.")
        time.sleep(0.1)


def _say_where_to_go() -> None:
    access = _access()
    shop = f"\n  A shop       {shop_url()}/checkout" if running_shop() is not None else ""
    click.echo(f"""
  The form     {access["url"]}/f/tuning-visit{shop}
  The console  {access["url"]}/
               {access["admin_email"]}
               {access["admin_password"]}
  The keys     {folder() / "access.json"}
""")


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
