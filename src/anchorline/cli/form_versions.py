"""`forms publish|versions|restore|delete`: what people meet."""

from __future__ import annotations

import click

from .finding import Connect
from .output import json_option, note, print_json, print_lines


@click.command("publish")
@click.argument("key")
@click.option("--yes", is_flag=True, help="Do not ask.")
@click.pass_obj
def publish(connect: Connect, key: str, yes: bool) -> None:
    """Publish the draft of KEY: shows what changes for people, and asks.

    \b
    Example:
      anchorline forms publish tuning-visit
    """
    client = connect()
    changes = client.form_changes(key)
    print_lines(f"  {change.detail}" for change in changes.changes)
    if not changes.is_new and not changes.changes:
        note("Nothing is different; nothing was changed.")
        return
    if not yes:
        click.confirm("Publish it?", abort=True)
    version = client.publish(key).published_version
    click.echo(f"{key} is published as version {version}.")


@click.command("versions")
@click.argument("key")
@json_option
@click.pass_obj
def versions(connect: Connect, key: str, as_json: bool) -> None:
    """Published versions of KEY: who, when and what.

    \b
    Example:
      anchorline forms versions tuning-visit
    """
    found = connect().form_versions(key)
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


@click.command("restore")
@click.argument("key")
@click.argument("version", type=click.IntRange(0))
@click.pass_obj
def restore(connect: Connect, key: str, version: int) -> None:
    """Publish an earlier VERSION of KEY again; 0: nobody can fill the form any more.

    A draft that was as published follows; one that differs stays.

    \b
    Example:
      anchorline forms restore tuning-visit 2
    """
    connect().restore_form(key, version)
    click.echo(f"Version {version} of {key} holds." if version else f"{key} is out of force.")


@click.command("delete")
@click.argument("key")
@click.confirmation_option(prompt="Delete it with all its versions?")
@click.pass_obj
def delete(connect: Connect, key: str) -> None:
    """Delete the form KEY; one that has records stays.

    \b
    Example:
      anchorline forms delete call-back
    """
    connect().delete_form(key)
    click.echo(f"{key} is deleted.")


# Another name for the same: whoever looks for it finds it.
go_back = click.Command(
    "go-back", callback=restore.callback, params=restore.params, help=restore.help, hidden=True
)

FORM_VERSION_COMMANDS = (publish, versions, restore, go_back, delete)
