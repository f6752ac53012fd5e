"""`forms new|apply|copy|diff`: forms as files, and what becomes different."""

from __future__ import annotations

import sys
from collections.abc import Iterable
from pathlib import Path

import click

from anchorline.client import Client, FormDocument, NotFoundError
from anchorline.wire.form_design import Changes

from .documents import read_document, write_document
from .exit_codes import FAILED, GivenWrongError
from .finding import Connect
from .output import json_option, note, print_json, print_lines, print_table

_yes = click.option("--yes", is_flag=True, help="Do not ask.")


@click.command("new")
@click.argument("key", default="")
@click.option("--title", default="", help="The new form's title.")
@click.option("--like", metavar="NAME", help="Begin from a ready-made form.")
@click.option(
    "--table",
    type=click.Path(exists=True, dir_okay=False, path_type=Path),
    help="Begin from the head of a table: a CSV file.",
)
@click.option("--kind", type=click.Choice(["record", "web"]), help="Who fills it.")
@click.pass_obj
def new_form(
    connect: Connect, key: str, title: str, like: str | None, table: Path | None, kind: str | None
) -> None:
    """Write a new form as a file, to be edited and applied; without KEY, what to begin from.

    \b
    Example:
      anchorline forms new
      anchorline forms new call-back --title "Call me back" > call-back.yaml
      anchorline forms new bookings --like booking > bookings.yaml
      anchorline forms new customers --table customers.csv > customers.yaml
    """
    client = connect()
    if not key:
        ready = client.ready_made_forms()
        print_table(
            ["ready-made form", "title", "for what"], [[r.name, r.title, r.says] for r in ready]
        )
        note("Begin with one: anchorline forms new KEY --like NAME")
        return
    if like and table:
        raise GivenWrongError("Give --like or --table, not both.")
    if like:
        document = _ready_made(client, like)
    elif table:
        document = _of_table(client, table, title or key)
    else:
        document = FormDocument(key=key, kind="record", title=title or key)
    update = {"key": key, "title": title or document.title, "kind": kind or document.kind}
    click.echo(write_document(document.model_copy(update=update)), nl=False)


@click.command("apply")
@click.argument(
    "files", nargs=-1, required=True, type=click.Path(exists=True, dir_okay=False, path_type=Path)
)
@click.option("--publish", is_flag=True, help="Publish it as well: people meet it at once.")
@_yes
@click.pass_obj
def apply(connect: Connect, files: tuple[Path, ...], publish: bool, yes: bool) -> None:
    """Keep the forms in FILES as drafts: shows what becomes different, and asks.

    \b
    Example:
      anchorline forms apply tuning-visit.yaml
      anchorline forms apply *.yaml --publish --yes
    """
    client = connect()
    documents = [read_document(file, FormDocument) for file in files]
    for document in documents:
        _apply(client, document, publish, yes)


@click.command("copy")
@click.argument("key")
@click.argument("new_key")
@click.option("--title", default="", help="The copy's title.")
@click.pass_obj
def copy_form(connect: Connect, key: str, new_key: str, title: str) -> None:
    """Copy the draft of KEY to a new form NEW_KEY.

    \b
    Example:
      anchorline forms copy venue concert-hall --title "Concert hall"
    """
    client = connect()
    document = client.draft(key)[0].document
    update = {"key": new_key, "title": title or f"{document.title} (copy)"[:200]}
    client.put_draft(document.model_copy(update=update), unfinished=True)
    click.echo(f"{new_key} is kept as a draft.")


@click.command("diff")
@click.argument("source", metavar="KEY_OR_FILE")
@click.option("--since", type=click.IntRange(1), help="A version, instead of the published one.")
@click.option("--until", type=click.IntRange(1), help="A version, instead of the draft.")
@json_option
@click.pass_obj
def diff(
    connect: Connect, source: str, since: int | None, until: int | None, as_json: bool
) -> None:
    """What publishing would change, in sentences, and what stands against it.

    Of a FILE, or of the draft that is kept under KEY. Ends with 1 where something stands against
    it.

    \b
    Example:
      anchorline forms diff tuning-visit
      anchorline forms diff tuning-visit --since 1 --until 3
    """
    client = connect()
    if Path(source).is_file():
        document = read_document(Path(source), FormDocument)
        changes = client.form_changes(document.key, document, since=since)
    else:
        client.draft(source)
        changes = client.form_changes(source, since=since, until=until)
    if as_json:
        print_json(changes)
    else:
        _print_changes(changes)
    _end(changes)


def _apply(client: Client, document: FormDocument, publish: bool, yes: bool) -> None:
    try:
        kept, etag = client.draft(document.key)
    except NotFoundError:
        kept, etag = None, None
    changes = client.form_changes(document.key, document)
    state = "new" if kept is None else "not published yet" if changes.is_new else "changes"
    click.echo(f"{document.title} ({document.key}, {state})")
    _print_changes(changes)
    _say(f"{problem.pointer}: {problem.detail}" for problem in changes.problems)
    if changes.unreadable or (publish and changes.problems):
        sys.exit(FAILED)
    is_same = kept is not None and kept.document == document
    is_published = not changes.is_new and not changes.changes
    if is_same and (not publish or is_published):
        note("Nothing is different; nothing was changed.")
        return
    if not yes:
        click.confirm("Publish it?" if publish else "Keep it as a draft?", abort=True)
    if not is_same:
        client.put_draft(document, etag=etag)
    if publish:
        version = client.publish(document.key).published_version
        click.echo(f"{document.key} is published as version {version}.")
    else:
        click.echo(f"{document.key} is kept as a draft.")


def _ready_made(client: Client, name: str) -> FormDocument:
    ready = {form.name: form.document for form in client.ready_made_forms()}
    if name not in ready:
        raise GivenWrongError(
            f"There is no ready-made form {name!r}; there are: {', '.join(ready)}."
        )
    return ready[name]


def _of_table(client: Client, table: Path, title: str) -> FormDocument:
    try:
        with table.open(encoding="utf-8-sig") as file:
            text = "".join(line for _, line in zip(range(60), file, strict=False))
    except (OSError, UnicodeDecodeError) as error:
        raise GivenWrongError(f"{table} cannot be read: {error}") from None
    proposal = client.propose_form(text[:200_000], title)
    for guess in proposal.guesses:
        what = {
            "field": f"field {guess.key} ({guess.type})",
            "part": f"{guess.component} of the address {guess.slot}",
            "left_out": "left out",
        }[guess.becomes]
        note(f"{guess.column}: {what}. {guess.because}")
    return proposal.document


def _print_changes(changes: Changes) -> None:
    print_lines(f"  {change.detail}" for change in changes.changes)
    if changes.is_new:
        print_lines(["  Nothing of it is published yet."])
    elif not changes.changes:
        print_lines(["  It is as it is published."])


def _end(changes: Changes) -> None:
    _say(f"{problem.pointer}: {problem.detail}" for problem in changes.problems)
    if changes.problems:
        sys.exit(FAILED)


def _say(problems: Iterable[str]) -> None:
    for problem in problems:
        click.echo(f"Stands against publishing it: {problem}", err=True)


FORM_FILE_COMMANDS = (new_form, apply, copy_form, diff)
