"""`targets …` for programs: runs, and what is set for many at once."""

from __future__ import annotations

from collections.abc import Sequence

import click

from anchorline.client import Client, ProgramTargetDocument
from anchorline.wire.program_targets import WordingSchema
from anchorline.wire.targets import TargetSummary

from .exit_codes import GivenWrongError
from .finding import Connect
from .output import json_option, note, print_json

_COUNTRY_AS = ("name", "local", "alpha_2", "alpha_3", "numeric", "nation")
_all = click.option("--all", "every", is_flag=True, help="All that there are.")


@click.command("copy")
@click.argument("key")
@click.argument("new_key")
@click.option("--title", default="", help="The copy's title.")
@click.pass_obj
def copy_target(connect: Connect, key: str, new_key: str, title: str) -> None:
    """Copy the draft of KEY to a new target NEW_KEY.

    \b
    Example:
      anchorline targets copy checkout second-shop --title "Second shop"
    """
    client = connect()
    document = client.targets.draft(key)[0].document
    update = {"key": new_key, "title": title or f"{document.title} (copy)"[:200]}
    client.targets.put_draft(document.model_copy(update=update))
    click.echo(f"{new_key} is kept as a draft.")


@click.command("take-back")
@click.argument("keys", nargs=-1)
@_all
@click.option("--yes", is_flag=True, help="Do not ask.")
@click.pass_obj
def take_back(connect: Connect, keys: tuple[str, ...], every: bool, yes: bool) -> None:
    """Take the drafts of KEYS back to what is published.

    \b
    Example:
      anchorline targets take-back checkout
      anchorline targets take-back --all
    """
    client = connect()
    wanted = _wanted(client, keys, every)
    changed = [one.key for one in wanted if one.draft_differs and one.published_version]
    if not changed:
        note("No draft differs from what is published; nothing was changed.")
        return
    if not yes:
        click.confirm(f"Take back what was changed in {', '.join(changed)}?", abort=True)
    for key in changed:
        client.targets.take_back(key)
        click.echo(f"{key}: the draft is what is published.")


@click.command("wording")
@click.argument("keys", nargs=-1)
@_all
@click.option("--capitals/--no-capitals", default=None, help="Everything in capitals.")
@click.option("--country-as", type=click.Choice(_COUNTRY_AS), help="How the country is named.")
@click.option("--home-country", metavar="CODE", help="Of addresses there no country is written.")
@click.option("--publish", is_flag=True, help="Publish them as well.")
@click.pass_obj
def wording(
    connect: Connect,
    keys: tuple[str, ...],
    every: bool,
    capitals: bool | None,
    country_as: str | None,
    home_country: str | None,
    publish: bool,
) -> None:
    """Set how programs are written into: capitals, and the name of the country.

    \b
    Example:
      anchorline targets wording --all --country-as name --home-country GB
      anchorline targets wording old-ledger --capitals --publish
    """
    given = {
        name: value
        for name, value in (
            ("capitals", capitals), ("country_as", country_as), ("home_country", home_country),
        )
        if value is not None
    }  # fmt: skip
    if not given:
        raise GivenWrongError("Say what is to be set: --capitals, --country-as or --home-country.")
    client = connect()
    for one in _wanted(client, keys, every):
        draft, etag = client.targets.draft(one.key)
        document = draft.document
        if not isinstance(document, ProgramTargetDocument):
            continue
        kept = document.wording or WordingSchema()
        worded = WordingSchema.model_validate(kept.model_dump() | given)
        client.targets.put_draft(document.model_copy(update={"wording": worded}), etag)
        if publish:
            version = client.targets.publish(one.key).published_version
            click.echo(f"{one.key} is published as version {version}.")
        else:
            click.echo(f"{one.key} is kept as a draft.")


@click.command("runs")
@click.argument("key")
@json_option
@click.pass_obj
def runs(connect: Connect, key: str, as_json: bool) -> None:
    """What desktop agents have written with KEY: how each run ended, and what stopped it.

    \b
    Example:
      anchorline targets runs old-ledger
    """
    found = connect().programs.runs(key)
    if as_json:
        print_json(found)
        return
    for one in found:
        version = f"version {one.version}" if one.version else "draft"
        click.secho(f"{one.at:%Y-%m-%d %H:%M} {one.outcome}", bold=True, nl=False)
        click.echo(f"  {one.ms:,} ms, {version}, {one.machine}{', practice' * one.practice}")
        if one.detail:
            note(f"    {one.detail}")
    if not found:
        note("No agent has told of a run.")


def _wanted(client: Client, keys: Sequence[str], every: bool) -> list[TargetSummary]:
    """The targets that are meant; GivenWrongError where none is named, or one is not there."""
    if every == bool(keys):
        raise GivenWrongError("Name targets, or give --all.")
    listed = {one.key: one for one in client.targets.list()}
    missing = [key for key in keys if key not in listed]
    if missing:
        raise GivenWrongError(f"There is no target {missing[0]!r}; there are: {', '.join(listed)}.")
    return [listed[key] for key in keys] if keys else list(listed.values())


PROGRAM_TARGET_COMMANDS = (copy_target, take_back, wording, runs)
