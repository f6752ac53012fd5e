"""`mapping lint|try|coverage|examples|changes`: where the parts of addresses go, provably."""

from __future__ import annotations

import sys
from pathlib import Path

import click

from anchorline.wire.coverage import CoverageRun
from anchorline.wire.filling import FillAnswer
from anchorline.wire.words import counted

from .connecting import Connect
from .exit_codes import FAILED, GivenWrongError
from .job_progress import progress_bar, wait_for
from .output import json_option, note, print_json, print_lines, print_table

_STATES = ("filled", "empty", "shortened", "lost", "wrong")


@click.group()
def mapping() -> None:
    """Where the parts of addresses go: checked, tried, run over many.

    All commands look at drafts. They end with 1 where something is wrong, so that they can stand
    before a publish.
    """


@mapping.command("lint")
@click.argument("form")
@click.option("--strict", is_flag=True, help="End with 1 for warnings, too.")
@json_option
@click.pass_obj
def lint_mapping(connect: Connect, form: str, strict: bool, as_json: bool) -> None:
    """Say what is wrong with the mappings of FORM, and what should be known.

    \b
    Example:
      anchorline mapping lint supplier
    """
    answer = connect().lint(form)
    if as_json:
        print_json(answer)
    else:
        for one in answer.problems:
            is_problem = one.severity == "problem"
            click.secho(one.severity, fg="red" if is_problem else "yellow", nl=False)
            click.echo(f"  {one.pointer}\n  {one.detail}")
        looked_at = sum(answer.looked_at.values())
        problems = sum(one.severity == "problem" for one in answer.problems)
        told = (
            f"{counted(problems, 'problem')}, {counted(len(answer.problems) - problems, 'warning')}"
        )
        note(f"{told}; {counted(looked_at, 'address', 'addresses')} looked at")
    if any(strict or one.severity == "problem" for one in answer.problems):
        sys.exit(FAILED)


@mapping.command("try")
@click.argument("form")
@click.argument("slot")
@click.argument("address", required=False)
@click.option("--part", "parts", multiple=True, help="COMPONENT=TEXT, instead of an ADDRESS id.")
@click.option("--country", help="Of parts: ISO 3166-1 alpha-2.")
@json_option
@click.pass_obj
def try_mapping(
    connect: Connect,
    form: str,
    slot: str,
    address: str | None,
    parts: tuple[str, ...],
    country: str | None,
    as_json: bool,
) -> None:
    """Show what the mapping of a SLOT makes of an ADDRESS, step by step.

    Without an address it takes a usual one of each country.

    \b
    Examples:
      anchorline mapping try supplier office demo:GB0000012
      anchorline mapping try supplier office --country GB --part street="Mill Lane" --part town=Marl
    """
    client = connect()
    if address is not None or parts:
        components = dict(_part(one) for one in parts) or None
        answer = client.try_mapping(
            form, slot, address_id=address, components=components, country=country
        )
        if as_json:
            print_json(answer)
        else:
            _print_fill(answer)
        return
    usual = [one for one in client.mapping_samples(form, slot) if one.which == "usual"]
    answers = [(one, client.try_mapping(form, slot, address_id=one.id)) for one in usual]
    if as_json:
        print_json([answer for _, answer in answers])
        return
    for one, answer in answers:
        print_lines(["", f"{one.country_code}  {one.label}"])
        _print_fill(answer, steps=False)


def _part(text: str) -> tuple[str, str]:
    name, sign, value = text.partition("=")
    if not sign:
        raise GivenWrongError(f"{text!r} is no part: write it as COMPONENT=TEXT.")
    return name.strip(), value


def _print_fill(answer: FillAnswer, *, steps: bool = True) -> None:
    print_table(["field", "text"], [[key, text] for key, text in answer.values.items()])
    for warning in answer.warnings:
        click.secho(f"  {warning}", fg="yellow")
    if steps:
        print_lines([""])
        print_table(
            ["step", "from", "into", ""],
            [[s.kind, ", ".join(s.components), s.field, s.detail] for s in answer.trace],
        )


@mapping.command("coverage")
@click.argument("form")
@click.argument("slot")
@click.option(
    "--per-country",
    type=click.IntRange(1, 1_000_000),
    default=1000,
    show_default=True,
    help="Addresses of each country at most.",
)
@click.option("--records", "from_records", is_flag=True, help="Over addresses that were captured.")
@click.option(
    "--file",
    "path",
    type=click.Path(exists=True, dir_okay=False, path_type=Path),
    help="Over the rows of a CSV file; its columns are recognised by name.",
)
@json_option
@click.pass_obj
def cover_mapping(
    connect: Connect,
    form: str,
    slot: str,
    per_country: int,
    from_records: bool,
    path: Path | None,
    as_json: bool,
) -> None:
    """Run the mapping of a SLOT over many addresses; ends with 1 where anything is lost or wrong.

    \b
    Examples:
      anchorline mapping coverage supplier office
      anchorline mapping coverage supplier office --file customers.csv
    """
    if from_records and path:
        raise GivenWrongError("Give --records or --file, not both.")
    client = connect()
    source = "records" if from_records else "rows" if path else "reference"
    table = _text(path) if path else ""
    job = client.start_coverage(form, slot, source=source, per_country=per_country, table=table)
    with progress_bar() as progress:
        ended = wait_for(client.datasets, job.id, progress)
    if ended.state != "done":
        click.secho(f"{ended.state.capitalize()}: {ended.message}", fg="red", err=True)
        sys.exit(FAILED)
    runs = client.coverage(form, slot)
    run = next((one for one in runs if one.job == job.id), runs[0])
    if as_json:
        print_json(run)
    else:
        _print_coverage(run, next((one for one in runs if _is_before(one, run)), None))
    if run.totals.get("lost") or run.totals.get("wrong"):
        sys.exit(FAILED)


def _is_before(one: CoverageRun, run: CoverageRun) -> bool:
    """Whether a run came earlier and looked at the same addresses."""
    is_same = (one.source, one.addresses) == (run.source, run.addresses)
    return is_same and one.made_at < run.made_at


def _text(path: Path) -> str:
    try:
        return path.read_text("utf-8-sig")
    except (OSError, UnicodeDecodeError) as error:
        raise GivenWrongError(f"{path} cannot be read as CSV in UTF-8: {error}") from error


def _print_coverage(run: CoverageRun, before: CoverageRun | None) -> None:
    rows = []
    for field in run.fields:
        cells = list(field.cells.values())
        counts = [sum(getattr(cell, state) for cell in cells) for state in _STATES]
        bad = [
            f"{code} {cell.lost + cell.wrong:,}"
            for code, cell in field.cells.items()
            if cell.lost or cell.wrong
        ]
        rows.append([field.label, *(f"{count:,}" for count in counts), ", ".join(bad)])
    print_table(["field", *_STATES, "where"], rows, numbers=_STATES)
    for example in run.examples[:5]:
        place = f" (row {example.address_id})" if run.source == "rows" else ""
        print_lines([f"  {example.state}: {example.label}{place}", f"    {example.detail}"])
    for name, by_country in run.untaken.items():
        listed = ", ".join(f"{code} {count:,}" for code, count in by_country.items())
        note(f"No rule takes {name.replace('_', ' ')}: {listed}")
    addresses = counted(sum(run.addresses.values()), "address", "addresses")
    version = f"version {run.version}" if run.version else "the draft"
    note(f"{addresses} in {run.seconds:.1f} s, with {version}")
    if run.left_out:
        rows_told = counted(run.left_out, "row")
        note(f"{rows_told} left out: of countries that the address is not there for")
    if before is not None:
        changes = [
            f"{run.totals.get(state, 0) - before.totals.get(state, 0):+,} {state}"
            for state in ("shortened", "lost", "wrong")
        ]
        note(f"Against the run before: {', '.join(changes)}")


@mapping.command("examples")
@click.argument("form")
@json_option
@click.pass_obj
def run_examples(connect: Connect, form: str, as_json: bool) -> None:
    """Run the examples of FORM; ends with 1 where one fails.

    \b
    Example:
      anchorline mapping examples supplier
    """
    found = connect().mapping_examples(form)
    if as_json:
        print_json(found)
    else:
        for one in found:
            click.secho(
                "holds" if one.passed else "fails", fg="green" if one.passed else "red", nl=False
            )
            click.echo(f"  {one.slot}: {one.name}")
            for field, (expected, there) in one.differences.items():
                print_lines([f"  {field}: {expected!r} is expected, {there!r} stands there"])
        note(counted(len(found), "example"))
    if any(not one.passed for one in found):
        sys.exit(FAILED)


@mapping.command("changes")
@json_option
@click.pass_obj
def list_changes(connect: Connect, as_json: bool) -> None:
    """List the changes that a rule can make to its text.

    \b
    Example:
      anchorline mapping changes
    """
    found = connect().mapping_changes()
    if as_json:
        print_json(found)
        return
    print_table(
        ["name", "settings", ""],
        [[one.name, ", ".join(s.name for s in one.settings), one.help] for one in found],
    )
