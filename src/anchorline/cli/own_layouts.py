"""`layouts own|diff|apply|publish …`: administrators' own layouts."""

from __future__ import annotations

import click

from anchorline.client import Client, OwnLayoutDocument

from .connecting import Connect
from .document_commands import document_commands, hidden
from .document_kinds import KindCommands, print_list
from .documents import write_document
from .output import json_option, note, print_json

OWN_LAYOUTS = KindCommands(
    group="layouts",
    noun="own layout",
    example="letters-south",
    calls=lambda client: client.own_layouts,
    schema=lambda _content: OwnLayoutDocument,
    at_publish="forms follow at once",
    out_of_force="the base layouts hold",
    columns={
        "countries": lambda one: ", ".join(one.countries),
        "forms": lambda one: ", ".join(one.forms) or "everywhere",
    },
    counts={"conflicts": lambda one: str(one.conflicts or "")},
)


@click.command("own")
@click.argument("key", default="")
@json_option
@click.pass_obj
def own(connect: Connect, key: str, as_json: bool) -> None:
    """List own layouts; with KEY, show that one as a file, and its versions.

    \b
    Example:
      anchorline layouts own
      anchorline layouts own letters-south > letters-south.yaml
    """
    if key:
        _show_one(connect(), key, as_json)
    else:
        print_list(OWN_LAYOUTS, connect(), as_json)


def _show_one(client: Client, key: str, as_json: bool) -> None:
    draft, _etag = client.own_layouts.draft(key)
    if as_json:
        print_json(draft)
        return
    click.echo(write_document(draft.document), nl=False)
    for version in client.own_layouts.versions(key):
        state = ", in force" if version.in_force else ""
        when = f"{version.published_at:%Y-%m-%d %H:%M}"
        note(f"Version {version.number}: {when} by {version.published_by}{state}")


_COMMON = document_commands(OWN_LAYOUTS)
_REMOVE = hidden(next(one for one in _COMMON if one.name == "delete"), "remove")
OWN_LAYOUT_COMMANDS = (own, *_COMMON, _REMOVE)
