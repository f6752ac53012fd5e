"""`targets …` for programs: runs, and what is set for many at once."""

from __future__ import annotations

from collections.abc import Sequence

import click

from anchorline.client import Client, ProgramTargetDocument
from anchorline.wire.program_targets import WordingSchema
from anchorline.wire.targets import TargetSummary

from .connecting import Connect
from .document_kinds import chosen
from .exit_codes import GivenWrongError
from .output import json_option, note, print_json
from .target_kind import TARGETS

_COUNTRY_AS = ("name", "local", "alpha_2", "alpha_3", "numeric", "nation")
_all = click.option("--all", "every", is_flag=True, help="All that there are.")


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
        _draft, etag = client.targets.put_draft(
            document.model_copy(update={"wording": worded}), etag
        )
        if publish:
            version = client.targets.publish(one.key, etag).published_version
            click.echo(f"{one.key} is published as version {version}.")
        else:
            click.echo(f"{one.key} is kept as a draft.")


@click.command("runs")
@click.argument("key")
@json_option
@click.pass_obj
def runs(connect: Connect, key: str, as_json: bool) -> None:
    """List what desktop agents have written with KEY: how each run ended, and what stopped it.

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
    found: list[TargetSummary] = chosen(TARGETS, client.targets, keys, every)
    return found


PROGRAM_TARGET_COMMANDS = (wording, runs)
