"""An edition's findings, and what it changes, in words and tables."""

from __future__ import annotations

import click

from anchorline.client import EditionAnswer
from anchorline.wire.words import counted

from .output import note, print_table


def print_report(found: EditionAnswer) -> None:
    """Prints them."""
    state = "active" if found.active else "not active"
    click.echo(
        f"{found.dataset}, edition {found.number} ({state}): "
        f"{counted(found.addresses, 'address', 'addresses')}, "
        f"{counted(found.rows_bad, 'row')} left out"
    )
    if found.findings:
        print_table(
            ["finding", "rows", "", "first at"],
            [
                [
                    f.title,
                    f"{f.count:,}",
                    "left out" if f.left_out else "kept",
                    "; ".join(_place(s.line, s.id, s.value) for s in f.samples[:2]),
                ]
                for f in found.findings
            ],
            numbers=["rows"],
        )
        for finding in found.findings:
            note(f"{finding.title}: {finding.advice}")
    else:
        note("Nothing was noticed in its rows.")
    _print_comparison(found)


def _print_comparison(found: EditionAnswer) -> None:
    comparison = found.comparison
    if comparison is None:
        note("It was not compared with another edition.")
        return
    click.echo(
        f"\nAgainst edition {comparison.base}: {comparison.added:,} added, {comparison.gone:,} "
        f"gone, {comparison.changed:,} changed, {comparison.moved:,} moved more than "
        f"{comparison.moved_m:g} m"
    )
    if comparison.components:
        parts = [f"{name} {count:,}" for name, count in comparison.components.items()]
        click.echo(f"Changed in: {', '.join(parts)}")
    if comparison.towns:
        print_table(
            ["town", "", "added", "gone", "changed", "moved"],
            [
                [
                    t.town or "(none)",
                    t.country_code,
                    *map(str, (t.added, t.gone, t.changed, t.moved)),
                ]
                for t in comparison.towns[:10]
            ],
            numbers=["added", "gone", "changed", "moved"],
        )
    for sentence in comparison.against:
        click.secho(f"Over the limit: {sentence}", fg="yellow")


def _place(line: int, row_id: str, value: str) -> str:
    return " ".join(part for part in (f"line {line}", row_id, value) if part)
