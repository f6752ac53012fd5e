"""`data activate`, `rebuild`, `remove`: what is done with an edition, or with a whole dataset."""

from __future__ import annotations

import sys

import click

from anchorline.client import Datasets
from anchorline.wire.words import counted

from .connecting import Connect
from .job_progress import progress_bar, say_job, wait_for
from .output import json_option, note, print_json


@click.command()
@click.argument("dataset")
@click.argument("edition", type=click.IntRange(1))
@click.option("--yes", is_flag=True, help="Do not ask where it is over the limits.")
@json_option
@click.pass_obj
def activate(connect: Connect, dataset: str, edition: int, yes: bool, as_json: bool) -> None:
    """Make EDITION the active one; going back to an older one is the same.

    Where it changes more than the dataset's rules let become active by itself, it asks first.

    \b
    Example:
      anchorline data activate demo 1
    """
    datasets = connect().datasets
    against = _against(datasets, dataset, edition)
    if against and not yes:
        for one in against:
            click.secho(f"Over the limit: {one}", fg="yellow", err=True)
        if not sys.stdin.isatty():
            raise click.UsageError("To make it active all the same, say --yes.")
        click.confirm("Make it active all the same?", abort=True, err=True)
    found = datasets.activate(dataset, edition)
    if as_json:
        print_json(found)
        return
    click.echo(f"Edition {found.active_edition} of {dataset} is active.")
    if found.previous_edition:
        note(f"Back again: anchorline data activate {dataset} {found.previous_edition}")


@click.command()
@click.argument("dataset")
@click.argument("edition", type=click.IntRange(1))
@json_option
@click.pass_obj
def rebuild(connect: Connect, dataset: str, edition: int, as_json: bool) -> None:
    """Build the index of EDITION anew from its rows, and wait for it.

    \b
    Example:
      anchorline data rebuild demo 1
    """
    datasets = connect().datasets
    job = datasets.rebuild(dataset, edition)
    with progress_bar() as progress:
        job = wait_for(datasets, job.id, progress)
    say_job(job, as_json=as_json)


@click.command()
@click.argument("dataset")
@click.argument("edition", type=click.IntRange(1), required=False)
@click.option("--yes", is_flag=True, help="Do not ask.")
@click.pass_obj
def remove(connect: Connect, dataset: str, edition: int | None, yes: bool) -> None:
    """Take EDITION away with its rows and its index; without EDITION the whole DATASET.

    The active edition stays, unless the whole dataset goes.

    \b
    Examples:
      anchorline data remove demo 1
      anchorline data remove old-survey          all its editions, also the active one
    """
    datasets = connect().datasets
    if edition is not None:
        if not yes:
            click.confirm("Take it away with its rows? It cannot be brought back", abort=True)
        datasets.remove(dataset, edition)
        click.echo(f"Edition {edition} of {dataset} is gone.")
        return
    found = datasets.get(dataset)
    if not yes:
        held = next((e.addresses for e in found.editions if e.active), 0)
        click.echo(
            f"This takes away {dataset} with {counted(len(found.editions), 'edition')}. "
            f"{counted(held, 'address', 'addresses')} will not be found any more, and nothing "
            "of it can be brought back. Records that were captured from it stay as they are."
        )
        typed = click.prompt("Type the dataset's name to go on", default="", show_default=False)
        if typed != dataset:
            raise click.ClickException("Nothing was taken away.")
    datasets.remove_dataset(dataset)
    click.echo(f"Dataset {dataset} is gone.")


def _against(datasets: Datasets, dataset: str, edition: int) -> list[str]:
    """Why the dataset's rules keep an edition from becoming active by itself."""
    found = datasets.edition(dataset, edition)
    if found.comparison is None or found.comparison.base != datasets.get(dataset).active_edition:
        return []
    return found.comparison.against
