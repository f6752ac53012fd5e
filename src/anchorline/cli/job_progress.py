"""A job while it runs, and how it ended."""

from __future__ import annotations

import sys

import click
from rich.progress import BarColumn, Progress, TextColumn

from anchorline.client import Datasets, JobAnswer
from anchorline.wire.words import counted

from .exit_codes import FAILED
from .output import error_console, note, print_json

_STATES_THAT_FAIL = ("failed", "cancelled")


def progress_bar() -> Progress:
    """A bar on the error stream, gone when it is done."""
    return Progress(
        TextColumn("{task.description:<10}"),
        BarColumn(),
        TextColumn("{task.percentage:>3.0f} %"),
        TextColumn("{task.fields[note]}"),
        console=error_console(),
        transient=True,
    )


def wait_for(datasets: Datasets, job_id: str, progress: Progress) -> JobAnswer:
    """Waits for a job and shows where it is."""
    task = progress.add_task("Waiting", total=1.0, note="")

    def show(job: JobAnswer) -> None:
        left = job.seconds_left
        share = job.seconds / (job.seconds + left) if left is not None and job.seconds else 0.0
        rate = f"{job.rows_done:,} rows, {job.rows_per_second:,}/s" if job.rows_done else ""
        if left is not None:
            rate += f", about {left:.0f} s left"
        title = (job.phase or job.state).capitalize()
        progress.update(task, description=title, completed=share, note=rate or job.message)

    return datasets.wait(job_id, progress=show)


def file_note(job: JobAnswer) -> str:
    """What can be done with the file of a job that has not ended well; nothing where it is gone."""
    if job.state not in _STATES_THAT_FAIL or job.file_bytes is None:
        return ""
    kept = job.file_bytes
    size = f"{kept / 1e6:,.1f} MB" if kept >= 100_000 else f"{kept:,} bytes"
    return (
        f"\nIts file ({size}) is kept: anchorline data retry {job.id}, or discard it: "
        f"anchorline data discard {job.id}"
    )


def say_job(job: JobAnswer, *, as_json: bool) -> None:
    """Says how a job ended; ends the process with 1 where it failed."""
    if as_json:
        print_json(job)
    elif job.state in _STATES_THAT_FAIL:
        why = f"anchorline data report {job.dataset} --job {job.id}"
        seen = f"\nSee which rows and why: {why}" if job.rows_bad else ""
        said = f"{job.state.capitalize()}: {job.message}{seen}{file_note(job)}"
        click.secho(said, fg="red", err=True)
    else:
        click.echo(job.message or f"{job.kind} {job.id} is {job.state}.")
        if job.state == "done" and job.rows_done:
            rows = counted(job.rows_done, "row")
            note(f"{rows} in {job.seconds:.1f} s, {job.rows_bad:,} left out")
    if job.state in _STATES_THAT_FAIL:
        sys.exit(FAILED)
