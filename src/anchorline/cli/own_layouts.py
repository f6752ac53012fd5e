"""`layouts own|diff|apply|publish|restore|remove`: administrators' own layouts."""

from __future__ import annotations

import sys
from collections.abc import Callable, Iterable, Sequence
from pathlib import Path

import click

from anchorline.client import Client, NotFoundError, OwnLayoutDocument
from anchorline.wire.own_layouts import DifferenceSchema, OwnLayoutDraft, PreviewAnswer
from anchorline.wire.problems import ProblemPlace

from .documents import read_document, write_document
from .exit_codes import FAILED
from .output import json_option, note, print_json, print_lines, print_table

Connect = Callable[[], Client]
_yes = click.option("--yes", is_flag=True, help="Do not ask.")


@click.command("own")
@click.argument("key", default="")
@json_option
@click.pass_obj
def own(connect: Connect, key: str, as_json: bool) -> None:
    """All own layouts; with KEY, that one as a file and its versions.

    \b
    Example:
      anchorline layouts own
      anchorline layouts own letters-south > letters-south.yaml
    """
    if key:
        _show_one(connect(), key, as_json)
        return
    found = connect().own_layouts.all()
    if as_json:
        print_json(found)
        return
    print_table(
        ("key", "title", "countries", "forms", "published", "conflicts"),
        [
            (
                kept.key,
                kept.title,
                ", ".join(kept.countries),
                ", ".join(kept.forms) or "everywhere",
                _published(kept.published_version, kept.draft_differs),
                str(kept.conflicts or ""),
            )
            for kept in found
        ],
        numbers=("conflicts",),
    )
    if not found:
        note("There are no own layouts; all countries are as shipped.")


@click.command("diff")
@click.argument("source", metavar="KEY_OR_FILE")
@json_option
@click.pass_obj
def diff(connect: Connect, source: str, as_json: bool) -> None:
    """What an own layout changes, country by country, and what stands against publishing it.

    Of a FILE, or of the draft that is kept under KEY. Ends with 1 where something stands against
    it, or where a newer shipped layout says otherwise.

    \b
    Example:
      anchorline layouts diff letters-south.yaml
    """
    client = connect()
    if Path(source).is_file():
        document = read_document(Path(source), OwnLayoutDocument)
        seen = _previews(client, document)
        changes = [difference for one in seen for difference in one.differences]
        if as_json:
            print_json(changes)
        else:
            _print_changes(changes)
        _end(seen[0].problems, ())
        return
    draft, _etag = client.own_layouts.draft(source)
    if as_json:
        print_json(draft)
    else:
        _print_changes(draft.differences)
    _end(draft.problems, [conflict.detail for conflict in draft.conflicts])


@click.command("apply")
@click.argument("file", type=click.Path(exists=True, dir_okay=False, path_type=Path))
@click.option("--publish", is_flag=True, help="Publish it as well; forms follow at once.")
@_yes
@click.pass_obj
def apply(connect: Connect, file: Path, publish: bool, yes: bool) -> None:
    """Keep the own layout in FILE as a draft: shows what becomes different, and asks.

    \b
    Example:
      anchorline layouts apply letters-south.yaml --publish
    """
    client = connect()
    document = read_document(file, OwnLayoutDocument)
    kept, etag = _kept(client, document.key)
    seen = _previews(client, document)
    after = _sentences(difference for one in seen for difference in one.differences)
    before = _sentences(kept.differences) if kept else []
    same = kept is not None and kept.document == document
    click.echo(_heading(document, kept))
    print_lines(f"  - {text}" for text in before if text not in after)
    print_lines(f"  + {text}" for text in after if text not in before)
    if same and not publish:
        note("Nothing is different; nothing was changed.")
        return
    if not yes:
        click.confirm("Publish it?" if publish else "Keep it as a draft?", abort=True)
    if not same:
        client.own_layouts.put_draft(document, etag=etag)
    if publish:
        version = client.own_layouts.publish(document.key).published_version
        click.echo(f"{document.key} is published as version {version}.")
    else:
        click.echo(f"{document.key} is kept as a draft.")
        for problem in seen[0].problems:
            note(f"Stands against publishing it: {problem.pointer}: {problem.detail}")


@click.command("publish")
@click.argument("key")
@click.pass_obj
def publish(connect: Connect, key: str) -> None:
    """Publish the draft of KEY; forms follow at once.

    Published again, it also keeps what a newer shipped layout says otherwise.
    """
    version = connect().own_layouts.publish(key).published_version
    click.echo(f"{key} is published as version {version}.")


@click.command("restore")
@click.argument("key")
@click.argument("version", type=click.IntRange(0))
@click.pass_obj
def restore(connect: Connect, key: str, version: int) -> None:
    """Put an earlier VERSION of KEY in force again; 0 lets the base layouts hold.

    \b
    Example:
      anchorline layouts restore letters-south 1
    """
    connect().own_layouts.restore(key, version)
    click.echo(f"Version {version} of {key} holds." if version else f"{key} is out of force.")


@click.command("remove")
@click.argument("key")
@click.confirmation_option(prompt="Delete it? The base layouts hold again at once")
@click.pass_obj
def remove(connect: Connect, key: str) -> None:
    """Delete the own layout KEY; what was captured with it stays as it is."""
    connect().own_layouts.remove(key)
    click.echo(f"{key} is deleted.")


def _show_one(client: Client, key: str, as_json: bool) -> None:
    draft, _etag = client.own_layouts.draft(key)
    if as_json:
        print_json(draft)
        return
    click.echo(write_document(draft.document), nl=False)
    for version in client.own_layouts.versions(key).versions:
        state = ", in force" if version.in_force else ""
        when = f"{version.published_at:%Y-%m-%d %H:%M}"
        note(f"Version {version.number}: {when} by {version.published_by}{state}")


def _kept(client: Client, key: str) -> tuple[OwnLayoutDraft | None, str | None]:
    try:
        return client.own_layouts.draft(key)
    except NotFoundError:
        return None, None


def _previews(client: Client, document: OwnLayoutDocument) -> list[PreviewAnswer]:
    return [client.own_layouts.preview(document, code) for code in document.countries]


def _heading(document: OwnLayoutDocument, kept: OwnLayoutDraft | None) -> str:
    where = f" on {', '.join(document.forms)}" if document.forms else ""
    state = "new" if kept is None else "changes the draft"
    return f"{document.title} ({document.key}, {state}): {', '.join(document.countries)}{where}"


def _sentences(changes: Iterable[DifferenceSchema]) -> list[str]:
    return [f"{change.country_code}: {change.detail}" for change in changes]


def _print_changes(changes: Sequence[DifferenceSchema]) -> None:
    for code in dict.fromkeys(change.country_code for change in changes):
        print_lines([code, *(f"  {c.detail}" for c in changes if c.country_code == code)])
    if not changes:
        click.echo("It changes nothing.")


def _end(problems: Sequence[ProblemPlace], conflicts: Sequence[str]) -> None:
    for problem in problems:
        click.echo(f"Stands against publishing it: {problem.pointer}: {problem.detail}", err=True)
    for conflict in conflicts:
        click.echo(f"Newer than this: {conflict}", err=True)
    if problems or conflicts:
        sys.exit(FAILED)


def _published(version: int | None, draft_differs: bool) -> str:
    if version is None:
        return "not in force"
    return f"version {version}" + (", draft differs" if draft_differs else "")


OWN_LAYOUT_COMMANDS = (own, diff, apply, publish, restore, remove)
