"""`find`, `postcode`, `show`, `near`."""

from __future__ import annotations

import sys

import click

from anchorline.client import FindingCalls, PostcodeAnswer, TraceSchema
from anchorline.wire.words import counted

from .connecting import Connect
from .exit_codes import NOTHING_FOUND
from .output import highlighted, json_option, note, print_json, print_lines, print_table


@click.command()
@click.argument("text", nargs=-1, required=True)
@click.option("--country", default="", help="Only these, as codes with commas: GB,FR")
@click.option("--kinds", default="", help="Only these, with commas: address,street,postcode …")
@click.option("--within", help="Id of a group to open, or to search in")
@click.option("--language", help="The spelling of bilingual places: en, cy, ja-Latn …")
@click.option("--limit", type=click.IntRange(1, 100), default=8, show_default=True)
@click.option("--practice", is_flag=True, help="Among practice addresses: made up, never counted")
@click.option("--trace", is_flag=True, help="Say how TEXT was read and what the rows are worth")
@json_option
@click.pass_obj
def find(
    connect: Connect,
    text: tuple[str, ...],
    country: str,
    kinds: str,
    within: str | None,
    language: str | None,
    limit: int,
    practice: bool,
    trace: bool,
    as_json: bool,
) -> None:
    """Find addresses by the beginning of TEXT; words may come in any order.

    \b
    Examples:
      anchorline find kiln cres
      anchorline find brackwater 12 kiln --country GB
      anchorline find klin cresent             typing errors are read as what they are near
      anchorline find "" --within demo:~ID     what is in a group
      anchorline find lantern row --practice   among made-up addresses
    """
    typed = " ".join(text)
    found = _calls(connect).suggest(
        typed, country=country, kinds=kinds, within=within, language=language, limit=limit,
        practice=practice, trace=trace,
    )  # fmt: skip
    if as_json:
        print_json(found)
        if not found.suggestions:
            sys.exit(NOTHING_FOUND)
        return
    for word, read in found.corrected.items():
        note(f"Read {word!r} as {read!r}.")
    if found.unmatched:
        note(f"Not found in these: {', '.join(map(repr, found.unmatched))}.")
    if found.suggestions:
        print_table(
            ["address", "kind", "count", "id"],
            [
                [highlighted(s.label, s.matches), s.kind, f"{s.count:,}", s.id]
                for s in found.suggestions
            ],
            numbers=["count"],
        )
        if found.after:
            note("There is more: raise --limit, or type more of it.")
    if found.trace:
        _print_trace(found.trace)
    if not found.suggestions:
        note(f"Nothing found for {typed!r}.")
        sys.exit(NOTHING_FOUND)


def _calls(connect: Connect) -> FindingCalls:
    return FindingCalls(connect.transport())


def _print_trace(trace: TraceSchema) -> None:
    print_lines([""])
    print_table(
        ["dataset", "read", "tokens", "found"],
        [
            [r.dataset, r.interpretation, " ".join(r.tokens), f"{r.found:,}"]
            for r in trace.interpretations
        ],
        numbers=["found"],
    )
    print_lines([""])
    print_table(
        ["id", "score", "made of"],
        [
            [row.id, f"{row.score:.2f}", ", ".join(f"{n} {v:g}" for n, v in row.parts.items() if v)]
            for row in trace.rows
        ],
        numbers=["score"],
    )


@click.command()
@click.argument("country")
@click.argument("code")
@json_option
@click.pass_obj
def postcode(connect: Connect, country: str, code: str, as_json: bool) -> None:
    """List all addresses of a postcode, or the postcodes that begin with CODE.

    \b
    Examples:
      anchorline postcode GB "QV1 1QF"
      anchorline postcode GB QV1
    """
    found = _calls(connect).postcode(country, code)
    if as_json:
        print_json(found)
    elif isinstance(found, PostcodeAnswer):
        print_table(["address", "id"], [[a.label, a.id] for a in found.addresses])
        note(f"{found.postcode}: {counted(found.count, 'address', 'addresses')}")
    else:
        print_table(
            ["postcode", "addresses"],
            [[p.postcode, f"{p.count:,}"] for p in found.postcodes],
            numbers=["addresses"],
        )
        begin = "postcode begins" if found.total == 1 else "postcodes begin"
        towns = f", in {', '.join(found.towns)}" if found.towns else ""
        note(f"{found.total:,} {begin} with {found.postcode}{towns}")


@click.command()
@click.argument("address_id", metavar="ID")
@json_option
@click.pass_obj
def show(connect: Connect, address_id: str, as_json: bool) -> None:
    """Show one address: its lines, components and facts.

    \b
    Example:
      anchorline show demo:GB0000012
    """
    address = _calls(connect).address(address_id)
    if as_json:
        print_json(address)
        return
    print_lines([*address.lines, ""])
    facts = address.facts.model_dump(exclude_none=True)
    facts["languages"] = ", ".join(facts.get("languages", []))
    rows = [*address.components.items(), *((k, str(v)) for k, v in facts.items() if v != "")]
    print_table(["component", "value"], rows)


@click.command(context_settings={"ignore_unknown_options": True})
@click.argument("latitude", type=click.FloatRange(-90, 90))
@click.argument("longitude", type=click.FloatRange(-180, 180))
@click.option("--limit", type=click.IntRange(1, 100), default=8, show_default=True)
@click.option("--radius", type=click.FloatRange(1, 50_000), default=5000, show_default=True)
@json_option
@click.pass_obj
def near(
    connect: Connect, latitude: float, longitude: float, limit: int, radius: float, as_json: bool
) -> None:
    """List the addresses nearest to a point (WGS 84 degrees), within --radius metres.

    \b
    Example:
      anchorline near 51.5354 -2.8808
    """
    found = _calls(connect).nearest(latitude, longitude, limit=limit, radius_m=radius)
    if as_json:
        print_json(found)
    elif found.addresses:
        print_table(
            ["metres", "address", "id"],
            [[f"{a.distance_m:,.0f}", a.label, a.id] for a in found.addresses],
            numbers=["metres"],
        )
    if not found.addresses:
        note(f"There is no address within {radius:,.0f} m.")
        sys.exit(NOTHING_FOUND)
