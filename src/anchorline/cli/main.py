"""The command group, and turning errors into text and exit codes.

Exit codes, one for each kind of error: 0 done; 1 the service failed, or what was asked does not
go now; 2 what was given is wrong; 3 nothing found; 4 not connected, or the service cannot be
reached; 5 the key is missing, wrong, or not enough.
"""

from __future__ import annotations

import json
import os
import sys
from collections.abc import Callable
from pathlib import Path
from typing import Any

import click

from anchorline.client import (
    AnchorlineError,
    Client,
    InvalidError,
    NotFoundError,
    RefusedError,
    UnreachableError,
    WrongArgumentError,
)
from anchorline.wire.words import counted

from .activity import activity, observe, quality, usage
from .data import data
from .desk import desk
from .exit_codes import FAILED, GIVEN_WRONG, NOTHING_FOUND, REFUSED, UNREACHABLE, GivenWrongError
from .finding import find, near, postcode, show
from .forms import forms
from .keys import keys
from .layouts import layouts, lines
from .mapping import mapping
from .output import note
from .records import records
from .settings import (
    Connection,
    NotConnectedError,
    read_connection,
    settings_file,
    write_connection,
)
from .targets import targets


class _Errors(click.Group):
    """A group that prints errors of the client as text and exits with their code."""

    def invoke(self, ctx: click.Context) -> Any:
        try:
            return super().invoke(ctx)
        except BrokenPipeError:
            # Who reads has seen enough; what is still to be flushed must not complain either.
            os.dup2(os.open(os.devnull, os.O_WRONLY), sys.stdout.fileno())
            sys.exit(0)
        except NotConnectedError as error:
            _fail(error, UNREACHABLE)
        except AnchorlineError as error:
            _fail(error, _code_of(error))


def _code_of(error: AnchorlineError) -> int:
    for kind, code in (
        (NotFoundError, NOTHING_FOUND),
        (UnreachableError, UNREACHABLE),
        (RefusedError, REFUSED),
        (InvalidError, GIVEN_WRONG),
        (WrongArgumentError, GIVEN_WRONG),
    ):
        if isinstance(error, kind):
            return code
    return FAILED


def _fail(error: Exception, code: int) -> None:
    click.secho(f"Error: {error}", fg="red", err=True)
    sys.exit(code)


@click.group(cls=_Errors, context_settings={"help_option_names": ["-h", "--help"]})
@click.version_option(package_name="anchorline")
@click.pass_context
def main(context: click.Context) -> None:
    """Find, write out and capture postal addresses.

    \b
    On the demo (make demo-start), tell it once where the service is:
      anchorline connect var/demo/access.json
    Then:
      anchorline find kiln cres brack
      anchorline postcode GB "QV1 1QF"
      anchorline records list

    Without a settings file it reads ANCHORLINE_URL and ANCHORLINE_KEY.
    Shell completion: eval "$(_ANCHORLINE_COMPLETE=bash_source anchorline)"
    """
    context.obj = _connected(context)


def _connected(context: click.Context) -> Callable[[], Client]:
    """Opens the client when a command asks for it, and closes it at the end."""

    def client() -> Client:
        connection = read_connection()
        opened = Client(connection.url, connection.key)
        context.call_on_close(opened.close)
        return opened

    return client


@main.command()
@click.argument("access", type=click.Path(exists=True, dir_okay=False, path_type=Path))
def connect(access: Path) -> None:
    """Remember a service: its address and server key, from an ACCESS file.

    ACCESS is a JSON file with "url" and "server_key", like the one that the demo leaves.

    \b
    Example:
      anchorline connect var/demo/access.json
    """
    try:
        given = json.loads(access.read_text("utf-8"))
        connection = Connection(given["url"], given["server_key"])
    except (OSError, ValueError, KeyError, TypeError) as error:
        raise GivenWrongError(
            f'{access} must be a JSON file with "url" and "server_key": {error!r}'
        ) from error
    with Client(connection.url, connection.key) as client:
        overview = client.overview()
    path = write_connection(connection)
    addresses = sum(edition.addresses for edition in overview.editions)
    held = f"{counted(addresses, 'address', 'addresses')}, {counted(overview.forms, 'form')}"
    click.echo(f"Connected to {connection.url}: {held}.")
    note(f"Kept in {path}")


@main.command()
@click.option("--worker", "with_worker", is_flag=True, help="Run a worker beside it.")
def serve(with_worker: bool) -> None:
    """Start the service, and its database if it is the project's own; Ctrl-C stops both.

    Settings are environment variables, ANCHORLINE_PORT for one; docs/operators.md lists them.
    """
    _become("run", *(["--worker"] if with_worker else []))


@main.command()
def worker() -> None:
    """Start a worker, which loads reference data for the service; Ctrl-C stops it.

    It reads the same settings as the service, whose database must be running. Several may run.
    """
    _become("work")


def _become(*arguments: str) -> None:
    command = [sys.executable, "-m", "anchorline.service", *arguments]
    os.execv(sys.executable, command)  # noqa: S606


_AREAS = (layouts, data, forms, mapping, records, targets, desk, keys)
for command in (find, postcode, show, near, lines, *_AREAS, usage, activity, observe, quality):
    main.add_command(command)

__all__ = ["main", "settings_file"]
