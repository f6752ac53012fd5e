"""`data list`, `load`, `editions`, `report`, `rules`."""

from __future__ import annotations

import sys
from pathlib import Path

import click

from anchorline.client import DatasetAnswer, RulesRequest

from .connecting import Connect
from .data_editions import activate, rebuild, remove
from .data_jobs import cancel, discard, retry
from .edition_report import print_report
from .exit_codes import NOTHING_FOUND
from .job_progress import file_note, progress_bar, say_job, wait_for
from .output import json_option, note, print_json, print_lines, print_table


@click.group()
def data() -> None:
    """The reference data: datasets, loads, editions."""


for command in (activate, rebuild, remove, cancel, retry, discard):
    data.add_command(command)


@data.command("list")
@json_option
@click.pass_obj
def list_datasets(connect: Connect, as_json: bool) -> None:
    """List all datasets.

    \b
    Example:
      anchorline data list
    """
    found = connect().datasets.list()
    if as_json:
        print_json(found)
        return
    print_table(
        ["dataset", "active", "addresses", "editions", "disk", "going on"],
        [
            [
                d.name,
                str(d.active_edition or "-"),
                f"{d.addresses:,}",
                str(d.editions),
                _megabytes(d.disk_bytes),
                f"{d.open_job.kind} {d.open_job.state}" if d.open_job else "-",
            ]
            for d in found
        ],
        numbers=["active", "addresses", "editions", "disk"],
    )


@data.command()
@click.argument("dataset")
@click.argument("file", type=click.Path(exists=True, dir_okay=False, path_type=Path))
@click.option("--changes", is_flag=True, help="FILE holds changes: an action, put or drop, a row.")
@click.option("--base", type=click.IntRange(1), help="Edition that is changed; else the newest.")
@click.option(
    "--bad-share", type=click.FloatRange(0, 1), help="Share of rows that may be bad, 0 to 1."
)
@click.option(
    "--activate",
    type=click.Choice(["rule", "always", "never"]),
    default="rule",
    show_default=True,
    help="Make it active when it is ready: as the dataset's rules say, or whatever they say.",
)
@click.option("--no-wait", is_flag=True, help="Do not wait until it is ready.")
@json_option
@click.pass_obj
def load(
    connect: Connect,
    dataset: str,
    file: Path,
    changes: bool,
    base: int | None,
    bad_share: float | None,
    activate: str,
    no_wait: bool,
    as_json: bool,
) -> None:
    """Load FILE (CSV or JSON Lines, also gzipped) as the next edition of DATASET.

    A worker of the service does it (anchorline worker); Ctrl-C here does not stop it.

    \b
    Examples:
      anchorline data load uk addresses.csv.gz
      anchorline data load uk monday.csv --changes --activate always
    """
    datasets = connect().datasets
    with progress_bar() as progress:
        task = progress.add_task("Sending", total=max(1, file.stat().st_size), note="")
        job = datasets.load(
            dataset,
            file,
            changes=changes,
            base=base,
            bad_share=bad_share,
            activate=activate,
            progress=lambda sent: progress.update(task, completed=sent),
        )
        if not no_wait:
            job = wait_for(datasets, job.id, progress)
    say_job(job, as_json=as_json)
    if job.rows_bad and not as_json:
        note(f"Rows left out: anchorline data report {dataset} --job {job.id}")


@data.command()
@click.argument("dataset")
@json_option
@click.pass_obj
def editions(connect: Connect, dataset: str, as_json: bool) -> None:
    """List the editions of DATASET, newest first, and its latest jobs.

    \b
    Example:
      anchorline data editions demo
    """
    found = connect().datasets.get(dataset)
    if as_json:
        print_json(found)
        return
    print_table(
        ["edition", "", "addresses", "left out", "file", "built (UTC)", "disk"],
        [
            [
                str(e.number),
                "active" if e.active else "",
                f"{e.addresses:,}",
                f"{e.rows_bad:,}",
                e.source_name + (f" on {e.changes_to}" if e.changes_to else ""),
                e.built_at.strftime("%Y-%m-%d %H:%M") if e.built_at else "",
                _megabytes(e.index_bytes + e.rows_bytes),
            ]
            for e in found.editions
        ],
        numbers=["edition", "addresses", "left out", "disk"],
    )
    note(_kept(found))
    for job in found.jobs:
        if job.state not in ("done", "cancelled") or job.file_bytes is not None:
            note(f"{job.kind} {job.id}: {job.state}. {job.message}{file_note(job)}")


@data.command()
@click.argument("dataset")
@click.argument("edition", type=click.IntRange(1), required=False)
@click.option("--job", help="Print the rows that this job left out, as CSV.")
@click.option("--rows", is_flag=True, help="Print the rows that the edition left out, as CSV.")
@json_option
@click.pass_obj
def report(
    connect: Connect,
    dataset: str,
    edition: int | None,
    job: str | None,
    rows: bool,
    as_json: bool,
) -> None:
    """Show what was noticed in an edition's rows, and what it changes.

    \b
    Examples:
      anchorline data report demo              the newest edition
      anchorline data report demo 2 --rows     the rows left out, as CSV
    """
    datasets = connect().datasets
    if job is not None:
        print_lines(datasets.report(job).splitlines())
        return
    if edition is None:
        known = datasets.get(dataset).editions
        if not known:
            note(f"Dataset {dataset} has no edition yet.")
            sys.exit(NOTHING_FOUND)
        edition = known[0].number
    found = datasets.edition(dataset, edition)
    if rows:
        print_lines(datasets.report(found.job).splitlines() if found.job else [])
    elif as_json:
        print_json(found)
    else:
        print_report(found)


@data.command()
@click.argument("dataset")
@click.option("--bad-share", type=click.FloatRange(0, 1), help="Share of rows that may be bad.")
@click.option("--automatic/--by-hand", default=None, help="Whether editions become active alone.")
@click.option("--gone-share", type=click.FloatRange(0, 1), help="… if at most this share is gone")
@click.option("--changed-share", type=click.FloatRange(0, 1), help="… is changed")
@click.option("--moved-share", type=click.FloatRange(0, 1), help="… has moved")
@click.option("--moved-m", type=click.FloatRange(0.1, 100_000), help="Metres that count as moved.")
@click.option("--keep", type=click.IntRange(0, 50), help="Editions kept beside active and last.")
@json_option
@click.pass_obj
def rules(connect: Connect, /, dataset: str, as_json: bool, **given: float | bool | None) -> None:
    """Show or set how loads of DATASET are treated; what is not given stays.

    \b
    Example:
      anchorline data rules uk --automatic --gone-share 0.01
    """
    datasets = connect().datasets
    found = datasets.get(dataset)
    changed = {name: value for name, value in given.items() if value is not None}
    if changed:
        wanted = {**found.rules.model_dump(), **changed}
        found = datasets.set_rules(dataset, RulesRequest.model_validate(wanted))
    if as_json:
        print_json(found.rules)
        return
    values = [[name, _plain(value)] for name, value in found.rules.model_dump().items()]
    print_table(["rule", "value"], values)


def _kept(found: DatasetAnswer) -> str:
    return (
        "Kept: the active edition, the one active before, and the "
        f"{found.rules.keep} newest of the others."
    )


def _plain(value: object) -> str:
    if isinstance(value, bool):
        return "yes" if value else "no"
    return f"{value:g}" if isinstance(value, float) else str(value)


def _megabytes(size: int) -> str:
    return f"{size / 1e6:,.1f} MB"
