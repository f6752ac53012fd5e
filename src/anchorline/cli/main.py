"""The command group, and turning errors into text and exit codes.

Exit codes, one for each kind of error: 0 done; 1 the service failed, or what was asked does not
go now; 2 what was given is wrong; 3 nothing found; 4 not connected, or the service cannot be
reached; 5 the key is missing, wrong, or not enough.
"""

from __future__ import annotations

import json
import os
import sys
from importlib import import_module
from pathlib import Path
from typing import Any

import click

from anchorline.client.errors import (
    AnchorlineError,
    InvalidError,
    NotFoundError,
    RefusedError,
    UnreachableError,
    WrongArgumentError,
)

from .connecting import Connect
from .exit_codes import FAILED, GIVEN_WRONG, NOTHING_FOUND, REFUSED, UNREACHABLE, GivenWrongError
from .settings import NotConnectedError

# The commands by name: in which module each stands, and what the list says of it. A module is
# loaded when its command is called: asking for help, or for one command, waits for no other.
COMMANDS = {
    "activity": ("activity", "List the latest calls: when, by whom, to what, how they ended."),
    "data": ("data", "The reference data: datasets, loads, editions."),
    "desk": ("desk", "Addresses written into any program of the desktop (X11)."),
    "find": ("finding", "Find addresses by the beginning of TEXT, in any order."),
    "forms": ("forms", "The forms of the service."),
    "keys": ("keys", "What programs and pages present to the service."),
    "layouts": ("layouts", "Country layouts: what each asks for, and how addresses are written."),
    "lines": ("layouts", "Write components out as COUNTRY does it."),
    "mapping": ("mapping", "Where the parts of addresses go: checked, tried, run over many."),
    "near": ("finding", "List the addresses nearest to a point."),
    "observe": ("activity", "Keep question and answer of calls for some hours; 0 ends it."),
    "postcode": ("finding", "List all addresses of a postcode, or the postcodes it begins."),
    "quality": ("activity", "Show how well capture goes: picked, typed by hand, left."),
    "records": ("records", "The records that were captured."),
    "show": ("finding", "Show one address: its lines, components and facts."),
    "targets": ("targets", "Pages and programs that are not ours, in which addresses land."),
    "usage": ("activity", "Show how many addresses were fetched in a month, by key."),
}


class _Commands(click.Group):
    """The commands, each loaded when it is called; errors of the client become text and a code."""

    def list_commands(self, ctx: click.Context) -> list[str]:
        return sorted([*super().list_commands(ctx), *COMMANDS])

    def get_command(self, ctx: click.Context, cmd_name: str) -> click.Command | None:
        if cmd_name not in COMMANDS:
            return super().get_command(ctx, cmd_name)
        module = import_module(f".{COMMANDS[cmd_name][0]}", __package__)
        command: click.Command = getattr(module, cmd_name)
        return command

    def format_commands(
        self,
        ctx: click.Context,  # noqa: ARG002
        formatter: click.HelpFormatter,
    ) -> None:
        said = {name: says for name, (_module, says) in COMMANDS.items()}
        said |= {name: one.get_short_help_str(80) for name, one in self.commands.items()}
        with formatter.section("Commands"):
            formatter.write_dl(sorted(said.items()))

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


@click.group(cls=_Commands, context_settings={"help_option_names": ["-h", "--help"]})
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
    context.obj = Connect(context)


@main.command()
@click.argument("access", type=click.Path(exists=True, dir_okay=False, path_type=Path))
def connect(access: Path) -> None:
    """Remember a service: its address and server key, from an ACCESS file.

    ACCESS is a JSON file with "url" and "server_key", like the one that the demo leaves.

    \b
    Example:
      anchorline connect var/demo/access.json
    """
    from anchorline.client import Client
    from anchorline.wire.words import counted

    from .output import note
    from .settings import Connection, write_connection

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


__all__ = ["main"]
