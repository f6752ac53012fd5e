"""`data cancel`, `retry`, `discard`: what is done with a job on reference data."""

from __future__ import annotations

import click

from .connecting import Connect
from .job_progress import progress_bar, say_job, wait_for
from .output import json_option, print_json


@click.command()
@click.argument("job")
@json_option
@click.pass_obj
def cancel(connect: Connect, job: str, as_json: bool) -> None:
    """Cancel a JOB; nothing is changed by it then."""
    found = connect().datasets.cancel(job)
    if as_json:
        print_json(found)
    else:
        click.echo(f"{found.state}: {found.message}")


@click.command()
@click.argument("job")
@click.option("--bad-share", type=click.FloatRange(0, 1), help="Share of rows that may be bad now.")
@json_option
@click.pass_obj
def retry(connect: Connect, job: str, bad_share: float | None, as_json: bool) -> None:
    """Load the file of a JOB that failed or was cancelled again, and wait for it.

    \b
    Example:
      anchorline data retry 0f3a9c52e17b4d0e8a61c2f5d3b49e70 --bad-share 0.1
    """
    datasets = connect().datasets
    found = datasets.retry(job, bad_share=bad_share)
    with progress_bar() as progress:
        found = wait_for(datasets, found.id, progress)
    say_job(found, as_json=as_json)


@click.command()
@click.argument("job")
@click.confirmation_option(prompt="Throw the job's file away? It must be sent again then")
@click.pass_obj
def discard(connect: Connect, job: str) -> None:
    """Throw the kept file of a JOB that failed or was cancelled away."""
    connect().datasets.discard_file(job)
    click.echo("The file is gone.")
