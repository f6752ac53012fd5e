"""`records list`."""

from __future__ import annotations

from typing import get_args

import click

from anchorline.wire.records import RecordSort
from anchorline.wire.words import counted

from .connecting import Connect
from .output import json_option, note, print_json, print_table


@click.group()
def records() -> None:
    """The records that were captured."""


@records.command("list")
@click.option("--form", help="Only those of this form.")
@click.option("--search", default="", help="Only those with all of these words.")
@click.option(
    "--sort",
    type=click.Choice(get_args(RecordSort)),
    default="newest",
    show_default=True,
)
@click.option("--limit", type=click.IntRange(1, 200), default=20, show_default=True)
@click.option("--after", help="From the page before: its next one.")
@json_option
@click.pass_obj
def list_records(
    connect: Connect,
    form: str | None,
    search: str,
    sort: str,
    limit: int,
    after: str | None,
    as_json: bool,
) -> None:
    """List records, newest first.

    \b
    Examples:
      anchorline records list
      anchorline records list --form tuning-visit --search brackwater
    """
    page = connect().records(form=form, search=search, sort=sort, limit=limit, after=after)
    if as_json:
        print_json(page)
        return
    print_table(
        ["made (UTC)", "form", "record", "id"],
        [[r.made_at.strftime("%Y-%m-%d %H:%M"), r.form, r.label, r.id] for r in page.records],
    )
    shown = f"{len(page.records):,} of {counted(page.total, 'record')}"
    note(f"{shown}; next page: --after {page.after}" if page.after else shown)
