"""`targets`: pages and programs that are not ours."""

from __future__ import annotations

import click

from .connecting import Connect
from .document_commands import document_commands
from .document_kinds import print_list, say_findings
from .documents import write_document
from .output import json_option, note, print_json
from .program_targets import PROGRAM_TARGET_COMMANDS
from .target_kind import TARGETS


@click.group()
def targets() -> None:
    """Pages and programs that are not ours, in which addresses land."""


for _command in (*document_commands(TARGETS), *PROGRAM_TARGET_COMMANDS):
    targets.add_command(_command)


@targets.command("list")
@json_option
@click.pass_obj
def list_targets(connect: Connect, as_json: bool) -> None:
    """List all targets.

    \b
    Example:
      anchorline targets list
    """
    print_list(TARGETS, connect(), as_json)


@targets.command("show")
@click.argument("key")
@json_option
@click.pass_obj
def show_target(connect: Connect, key: str, as_json: bool) -> None:
    """Show the draft of KEY as a file.

    \b
    Example:
      anchorline targets show checkout > checkout.yaml
    """
    draft, _etag = connect().targets.draft(key)
    if as_json:
        print_json(draft)
        return
    click.echo(write_document(draft.document), nl=False)
    say_findings(
        (f"{one.pointer}: {one.detail}" for one in draft.problems),
        (f"{one.pointer}: {one.detail}" for one in draft.warnings),
    )


@targets.command("faults")
@click.argument("key")
@json_option
@click.pass_obj
def list_faults(connect: Connect, key: str, as_json: bool) -> None:
    """List mistakes of set-up that pages of KEY have reported, the latest first.

    \b
    Example:
      anchorline targets faults checkout
    """
    found = connect().targets.faults(key)
    if as_json:
        print_json(found)
        return
    for one in found:
        click.secho(f"{one.count:,} ×", bold=True, nl=False)
        click.echo(f"  {one.detail}")
        note(f"    last {one.last_at:%Y-%m-%d %H:%M} UTC, {one.browser}")
    if not found:
        note("No page has reported a mistake.")
