"""The commands that all kinds of documents have: from files to versions, and back."""

from __future__ import annotations

import sys
from pathlib import Path
from typing import TYPE_CHECKING, Any

import click

from .connecting import Connect
from .document_kinds import KindCommands, chosen, is_published, print_difference, say
from .exit_codes import FAILED
from .output import json_option, note, print_json, print_lines

if TYPE_CHECKING:
    from anchorline.client.documents import Documents

    AnyDocuments = Documents[Any, Any, Any, Any]

_yes = click.option("--yes", is_flag=True, help="Do not ask.")
_file = click.Path(exists=True, dir_okay=False, path_type=Path)


def document_commands(kind: KindCommands) -> list[click.Command]:
    """The commands of one kind."""
    making = (_apply, _diff, _publish, _versions, _restore, _take_back, _copy, _delete)
    return [make(kind) for make in making]


def _example(kind: KindCommands, *lines: str) -> str:
    shown = "\n".join(
        f"  anchorline {kind.group} {line.replace('KEY', kind.example)}" for line in lines
    )
    return f"\n\n\b\nExample:\n{shown}"


def _apply(kind: KindCommands) -> click.Command:
    @click.command(
        "apply",
        help=f"Keep the {kind.noun}s in FILES as drafts: shows what becomes different, and asks."
        + _example(kind, "apply KEY.yaml", "apply *.yaml --publish --yes"),
    )
    @click.argument("files", nargs=-1, required=True, type=_file)
    @click.option("--publish", is_flag=True, help=f"Publish it as well: {kind.at_publish}.")
    @_yes
    @click.pass_obj
    def apply(connect: Connect, files: tuple[Path, ...], publish: bool, yes: bool) -> None:
        calls = kind.calls(connect())
        documents = [kind.document_in(file) for file in files]
        for document in documents:
            _keep(calls, document, publish, yes)

    return apply


def _keep(calls: AnyDocuments, document: Any, publish: bool, yes: bool) -> None:
    """Keeps a document as a draft, and publishes it where that is wanted."""
    from anchorline.client import NotFoundError

    try:
        kept, etag = calls.draft(document.key)
    except NotFoundError:
        kept, etag = None, None
    found = calls.difference(document.key, document)
    state = "new" if kept is None else "not published yet" if found.is_new else "changes"
    click.echo(f"{document.title} ({document.key}, {state})")
    print_difference(found)
    say(found)
    if found.unreadable or (publish and found.problems):
        sys.exit(FAILED)
    is_same = kept is not None and kept.document == document
    as_published = not found.is_new and not found.changes
    if is_same and (not publish or as_published):
        note("Nothing is different; nothing was changed.")
        return
    if not yes:
        click.confirm("Publish it?" if publish else "Keep it as a draft?", abort=True)
    if not is_same:
        _draft, etag = calls.put_draft(document, etag)
    if publish:
        version = calls.publish(document.key, etag).published_version
        click.echo(f"{document.key} is published as version {version}.")
    else:
        click.echo(f"{document.key} is kept as a draft.")


def _diff(kind: KindCommands) -> click.Command:
    @click.command(
        "diff",
        help="Show what publishing would change, in sentences, and what stands against it.\n\n"
        "Of a FILE, or of the draft that is kept under KEY. Ends with 1 where something stands "
        "against it." + _example(kind, "diff KEY", "diff KEY --since 1 --until 3"),
    )
    @click.argument("source", metavar="KEY_OR_FILE")
    @click.option(
        "--since", type=click.IntRange(1), help="A version, instead of the published one."
    )
    @click.option("--until", type=click.IntRange(1), help="A version, instead of the draft.")
    @json_option
    @click.pass_obj
    def diff(
        connect: Connect, source: str, since: int | None, until: int | None, as_json: bool
    ) -> None:
        calls = kind.calls(connect())
        if Path(source).is_file():
            document = kind.document_in(Path(source))
            found = calls.difference(document.key, document, since=since)
        else:
            found = calls.difference(source, since=since, until=until)
        if as_json:
            print_json(found)
        else:
            print_difference(found)
        say(found)
        if found.problems:
            sys.exit(FAILED)

    return diff


def _publish(kind: KindCommands) -> click.Command:
    @click.command(
        "publish",
        help=f"Publish the draft of KEY: shows what changes, and asks; {kind.at_publish}."
        + _example(kind, "publish KEY"),
    )
    @click.argument("key")
    @_yes
    @click.pass_obj
    def publish(connect: Connect, key: str, yes: bool) -> None:
        calls = kind.calls(connect())
        draft, etag = calls.draft(key)
        found = calls.difference(key)
        print_difference(found)
        say(found)
        # Published again, an own layout keeps what newer shipped layouts say otherwise.
        if is_published(draft.summary) and not getattr(draft.summary, "conflicts", 0):
            note("Nothing is different; nothing was changed.")
            return
        if not yes and not found.problems:
            click.confirm("Publish it?", abort=True)
        version = calls.publish(key, etag).published_version
        click.echo(f"{key} is published as version {version}.")

    return publish


def _versions(kind: KindCommands) -> click.Command:
    @click.command(
        "versions",
        help="Show the published versions of KEY: who, when and what."
        + _example(kind, "versions KEY"),
    )
    @click.argument("key")
    @json_option
    @click.pass_obj
    def versions(connect: Connect, key: str, as_json: bool) -> None:
        found = kind.calls(connect()).versions(key)
        if as_json:
            print_json(found)
            return
        for version in found:
            state = ", in force" if version.in_force else ""
            when = f"{version.published_at:%Y-%m-%d %H:%M}"
            made = f", records: {version.records:,}" if version.records else ""
            click.echo(f"Version {version.number}: {when} by {version.published_by}{made}{state}")
            print_lines(f"  {sentence}" for sentence in version.changes)
            if version.more_changes:
                print_lines([f"  and {version.more_changes} more"])
        if not found:
            note(f"{key} has not been published yet.")

    return versions


def _restore(kind: KindCommands) -> click.Command:
    @click.command(
        "restore",
        help=f"Publish an earlier VERSION of KEY again; 0: {kind.out_of_force}.\n\n"
        "A draft that was as published follows; one that differs stays."
        + _example(kind, "restore KEY 2"),
    )
    @click.argument("key")
    @click.argument("version", type=click.IntRange(0))
    @click.pass_obj
    def restore(connect: Connect, key: str, version: int) -> None:
        kind.calls(connect()).restore(key, version)
        click.echo(f"Version {version} of {key} holds." if version else f"{key} is out of force.")

    return restore


def _take_back(kind: KindCommands) -> click.Command:
    @click.command(
        "take-back",
        help="Make the drafts of KEYS what is published: what was changed since then is gone."
        + _example(kind, "take-back KEY", "take-back --all"),
    )
    @click.argument("keys", nargs=-1)
    @click.option("--all", "every", is_flag=True, help="All that there are.")
    @_yes
    @click.pass_obj
    def take_back(connect: Connect, keys: tuple[str, ...], every: bool, yes: bool) -> None:
        calls = kind.calls(connect())
        wanted = chosen(kind, calls, keys, every)
        changed = [one.key for one in wanted if one.draft_differs and one.published_version]
        if not changed:
            note("No draft differs from what is published; nothing was changed.")
            return
        if not yes:
            click.confirm(f"Take back what was changed in {', '.join(changed)}?", abort=True)
        for key in changed:
            calls.take_back(key)
            click.echo(f"{key}: the draft is what is published.")

    return take_back


def _copy(kind: KindCommands) -> click.Command:
    @click.command(
        "copy",
        help=f"Copy the draft of KEY to a new {kind.noun} NEW_KEY."
        + _example(kind, 'copy KEY another-one --title "Another one"'),
    )
    @click.argument("key")
    @click.argument("new_key")
    @click.option("--title", default="", help="The copy's title.")
    @click.pass_obj
    def copy(connect: Connect, key: str, new_key: str, title: str) -> None:
        calls = kind.calls(connect())
        named = title or f"{calls.draft(key)[0].document.title} (copy)"[:200]
        calls.copy(key, new_key, named)
        click.echo(f"{new_key} is kept as a draft.")

    return copy


def _delete(kind: KindCommands) -> click.Command:
    @click.command(
        "delete",
        help=f"Delete the {kind.noun} KEY; one that something needs stays."
        + _example(kind, "delete KEY"),
    )
    @click.argument("key")
    @_yes
    @click.pass_obj
    def delete(connect: Connect, key: str, yes: bool) -> None:
        calls = kind.calls(connect())
        _draft, etag = calls.draft(key)
        if not yes:
            click.confirm(f"Delete the {kind.noun} {key!r}?", abort=True)
        calls.delete(key, etag)
        click.echo(f"{key} is deleted.")

    return delete


def hidden(command: click.Command, name: str) -> click.Command:
    """The same command by another name: whoever knows it by that still finds it."""
    return click.Command(
        name, callback=command.callback, params=command.params, help=command.help, hidden=True
    )
