"""`targets list|show|apply|publish|restore|faults|delete`: pages that are not ours."""

from __future__ import annotations

from collections.abc import Mapping
from pathlib import Path
from typing import Any

import click

from anchorline.client import Client, NotFoundError, PageTargetDocument, ProgramTargetDocument
from anchorline.wire.targets import TargetDraft, TargetSummary

from .documents import read_one_of, write_document
from .finding import Connect
from .output import json_option, note, print_json, print_table
from .program_targets import PROGRAM_TARGET_COMMANDS


@click.group()
def targets() -> None:
    """Pages and programs that are not ours, in which addresses land."""


@targets.command("list")
@json_option
@click.pass_obj
def list_targets(connect: Connect, as_json: bool) -> None:
    """All targets.

    \b
    Example:
      anchorline targets list
    """
    found = connect().targets.list()
    if as_json:
        print_json(found)
        return
    print_table(
        ["key", "kind", "title", "published"],
        [[t.key, t.kind, t.title, _published(t)] for t in found],
    )
    if not found:
        note("There are no targets yet: keep one by anchorline targets apply FILE.")


@targets.command("show")
@click.argument("key")
@json_option
@click.pass_obj
def show_target(connect: Connect, key: str, as_json: bool) -> None:
    """The draft of KEY as a file.

    \b
    Example:
      anchorline targets show checkout > checkout.yaml
    """
    draft, _etag = connect().targets.draft(key)
    if as_json:
        print_json(draft)
        return
    click.echo(write_document(draft.document), nl=False)
    _say_findings(draft)


@targets.command("apply")
@click.argument("file", type=click.Path(exists=True, dir_okay=False, path_type=Path))
@click.option("--publish", is_flag=True, help="Publish it as well; it holds at once.")
@click.option("--yes", is_flag=True, help="Do not ask.")
@click.pass_obj
def apply_target(connect: Connect, file: Path, publish: bool, yes: bool) -> None:
    """Keep the target in FILE as a draft; asks before it changes anything.

    \b
    Example:
      anchorline targets apply checkout.yaml --publish
    """
    client = connect()
    document: PageTargetDocument | ProgramTargetDocument = read_one_of(file, _schema)
    kept, etag = _kept(client, document.key)
    same = kept == document
    is_new = "new" if kept is None else "kept already" if same else "changed"
    click.echo(f"{document.key} ({document.title}): {is_new}")
    if same and not publish:
        note("Nothing is different; nothing was changed.")
        return
    if not yes:
        click.confirm("Publish it?" if publish else "Keep it as a draft?", abort=True)
    if not same:
        draft, _etag = client.targets.put_draft(document, etag)
        _say_findings(draft)
    if publish:
        version = client.targets.publish(document.key).published_version
        click.echo(f"{document.key} is published as version {version}.")
    else:
        click.echo(f"{document.key} is kept as a draft.")


@targets.command("publish")
@click.argument("key")
@click.pass_obj
def publish_target(connect: Connect, key: str) -> None:
    """Publish the draft of KEY; pages and desktop agents follow at once.

    \b
    Example:
      anchorline targets publish checkout
    """
    version = connect().targets.publish(key).published_version
    click.echo(f"{key} is published as version {version}.")


@targets.command("restore")
@click.argument("key")
@click.argument("version", type=click.IntRange(0))
@click.pass_obj
def restore_target(connect: Connect, key: str, version: int) -> None:
    """Publish an earlier VERSION of KEY again; with 0, none holds any more.

    \b
    Example:
      anchorline targets restore checkout 3
    """
    connect().targets.restore(key, version)
    click.echo(f"{key}: version {version} holds." if version else f"{key}: no version holds.")


@targets.command("faults")
@click.argument("key")
@json_option
@click.pass_obj
def list_faults(connect: Connect, key: str, as_json: bool) -> None:
    """Mistakes of set-up that pages of KEY have reported, the latest first.

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


@targets.command("delete")
@click.argument("key")
@click.option("--yes", is_flag=True, help="Do not ask.")
@click.pass_obj
def delete_target(connect: Connect, key: str, yes: bool) -> None:
    """Delete KEY with all its versions: pages that attach to it go on without a finder.

    \b
    Example:
      anchorline targets delete checkout
    """
    client = connect()
    client.targets.draft(key)
    if not yes:
        click.confirm(f"Delete the target {key!r} with all its versions?", abort=True)
    client.targets.remove(key)
    click.echo(f"{key} is deleted.")


def _schema(
    content: Mapping[str, Any],
) -> type[PageTargetDocument] | type[ProgramTargetDocument]:
    return ProgramTargetDocument if content.get("kind") == "program" else PageTargetDocument


def _kept(
    client: Client, key: str
) -> tuple[PageTargetDocument | ProgramTargetDocument | None, str | None]:
    try:
        draft, etag = client.targets.draft(key)
    except NotFoundError:
        return None, None
    return draft.document, etag


def _published(target: TargetSummary) -> str:
    if target.published_version is None:
        return "not yet"
    differs = ", draft differs" if target.draft_differs else ""
    return f"version {target.published_version}{differs}"


def _say_findings(draft: TargetDraft) -> None:
    for problem in draft.problems:
        note(f"Stands against publishing it: {problem.pointer}: {problem.detail}")
    for warning in draft.warnings:
        note(f"To be known: {warning.pointer}: {warning.detail}")


for _command in PROGRAM_TARGET_COMMANDS:
    targets.add_command(_command)
