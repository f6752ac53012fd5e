"""`lines`, and `layouts list|show|lines|check`."""

from __future__ import annotations

import json
import sys
from collections.abc import Callable, Iterable, Iterator, Sequence
from functools import reduce
from itertools import islice
from typing import TypeVar

import click

from anchorline.client import InvalidError
from anchorline.wire.layouts import MOST_ADDRESSES, LayoutAnswer, LayoutComponentSchema

from .connecting import Connect
from .exit_codes import GIVEN_WRONG, NOTHING_FOUND, GivenWrongError
from .output import json_option, note, print_json, print_lines, print_table
from .own_layouts import OWN_LAYOUT_COMMANDS

_Command = TypeVar("_Command", bound=Callable[..., object])
_on_form = click.option("--form", metavar="KEY", help="As it holds on this form.")
_OF_LINES = (
    click.argument("components", nargs=-1, metavar="[COMPONENT=VALUE]..."),
    click.option("--international", is_flag=True, help="For mail from abroad."),
    click.option(
        "--from",
        "from_country",
        metavar="COUNTRY",
        help="Where mail from abroad is posted: the country is named in its language.",
    ),
    _on_form,
    json_option,
)


def _takes_an_address(command: _Command) -> _Command:
    """The parameters of commands that write addresses out."""
    return reduce(lambda made, parameter: parameter(made), reversed(_OF_LINES), command)


@click.group()
def layouts() -> None:
    """Country layouts: what each asks for, and how addresses are written."""


@layouts.command("list")
@click.argument("name", default="")
@json_option
@click.pass_obj
def list_layouts(connect: Connect, name: str, as_json: bool) -> None:
    """List the countries that have a layout, or those that have NAME in their name or as code.

    \b
    Example:
      anchorline layouts list guinea
    """
    wanted = name.casefold()
    found = [
        entry
        for entry in connect().layouts().layouts
        if wanted in entry.name.casefold() or wanted == entry.country_code.casefold()
    ]
    if as_json:
        print_json(found)
    else:
        print_table(
            ("code", "country", "post of", "facts", "own layouts"),
            [(e.country_code, e.name, e.post_of, e.confidence, ", ".join(e.own)) for e in found],
        )
    if not found:
        note(f"No country has {name!r} in its name.")
        sys.exit(NOTHING_FOUND)


@layouts.command("show")
@click.argument("country")
@click.option("--language", default="en", help="Of the labels, as BCP 47 has it: fr, zh-Hant.")
@_on_form
@json_option
@click.pass_obj
def show_layout(
    connect: Connect, country: str, language: str, form: str | None, as_json: bool
) -> None:
    """Show what COUNTRY asks for, in which order, and its lines in their notation.

    \b
    Example:
      anchorline layouts show CH --language fr
    """
    layout = connect().layout(country, language=language, form=form)
    if as_json:
        print_json(layout)
        return
    print_lines([f"{layout.name} ({layout.country_code})", ""])
    print_table(
        ("component", "label", "required", "choices"),
        [
            (entry.component, entry.label, "yes" if entry.required else "", _choices(entry))
            for entry in layout.components
        ],
    )
    print_lines(["", *_postcodes(layout)])
    for script, lines in layout.lines.items():
        print_lines([f"Lines{f' in {script}' if script else ''}:", *(f"  {x}" for x in lines), ""])
    print_lines(_who_speaks(layout))
    post = f" Uses the post of {layout.post_of}." if layout.post_of else ""
    note(f"Facts: {layout.confidence}. {layout.source}.{post}")


def _who_speaks(layout: LayoutAnswer) -> list[str]:
    """The order of precedence, where an own layout has a say."""
    if not layout.own:
        return []
    own = [
        f"{step.title} ({step.key}, version {step.version},"
        f" {'for named forms' if step.of_form else 'everywhere'})"
        for step in layout.own
    ]
    return ["What holds: " + ", before ".join([*own, "the shipped layout"])]


def _choices(entry: LayoutComponentSchema) -> str:
    options = entry.options or []
    some = ", ".join(option.code for option in options[:4])
    return f"{some} … ({len(options)})" if len(options) > 4 else some


def _postcodes(layout: LayoutAnswer) -> list[str]:
    if not layout.masks:
        return ["Postcodes: none", ""]
    begins = f", beginning with {' or '.join(layout.starts)}" if layout.starts else ""
    legend = "(9 a digit, A a letter, * either)"
    return [f"Postcodes: {' or '.join(layout.masks)} {legend}{begins}", ""]


@click.command()
@click.argument("country")
@_takes_an_address
@click.pass_obj
def lines(
    connect: Connect,
    country: str,
    components: tuple[str, ...],
    international: bool,
    from_country: str | None,
    form: str | None,
    as_json: bool,
) -> None:
    """Write components out as COUNTRY does it.

    \b
    Example:
      anchorline lines DE street=Lindenstraße number=12 postcode=00011 town=Lerchenbruch
    """
    written = connect().lines(
        country,
        _pairs(components),
        international=international,
        from_country=from_country,
        form=form,
    )
    if as_json:
        print_json(written.lines)
    else:
        print_lines(written.lines)
    for one in written.left_out:
        note(f"Left out: {one.component} “{one.value}”. {one.reason}")


@layouts.command("lines")
@click.argument("country", default="")
@_takes_an_address
@click.pass_context
def layout_lines(
    context: click.Context,
    country: str,
    components: tuple[str, ...],
    international: bool,
    from_country: str | None,
    form: str | None,
    as_json: bool,
) -> None:
    """Write components out as COUNTRY does it; without any, JSON Lines from the input.

    Each line of the input is an object of components. One without a country_code is of COUNTRY.
    The answer has the addresses in their order, a blank line between two; with --json one list of
    lines for each.

    \b
    Examples:
      anchorline layouts lines DE street=Lindenstraße number=12 town=Lerchenbruch
      anchorline layouts lines --international < addresses.jsonl
    """
    if components:
        context.forward(lines)
        return
    if sys.stdin.isatty():
        raise click.UsageError("Give components, or JSON Lines on the input: … < addresses.jsonl")
    connect: Connect = context.obj
    client = connect()
    entries = _read_components(sys.stdin, country)
    first = True
    while some := list(islice(entries, MOST_ADDRESSES)):
        try:
            answer = client.many_lines(
                [components for _, components in some],
                international=international,
                from_country=from_country,
                form=form,
            )
        except InvalidError as error:
            raise GivenWrongError(_by_line(error, [number for number, _ in some])) from None
        for written in answer:
            if as_json:
                click.echo(json.dumps(written, ensure_ascii=False))
                continue
            print_lines([*([] if first else [""]), *written])
            first = False


@layouts.command()
@click.argument("country")
@click.argument("components", nargs=-1, required=True, metavar="COMPONENT=VALUE...")
@_on_form
@json_option
@click.pass_obj
def check(
    connect: Connect, country: str, components: tuple[str, ...], form: str | None, as_json: bool
) -> None:
    """Hold components against COUNTRY's layout: what is missing, wrong, or has no place there.

    Ends with 2 where there is a problem.

    \b
    Example:
      anchorline layouts check US street="12 Oak St" town=Cedarton region=Vermont postcode=90210
    """
    answer = connect().check(country, _pairs(components), form=form)
    if as_json:
        print_json(answer)
    else:
        print_table(("component", "as it is spelt"), list(answer.components.items()))
        for problem in answer.problems:
            click.echo(f"{problem.component}: {problem.detail}")
        for unused in answer.unused:
            offer = f" It may go into {unused.offered_to}." if unused.offered_to else ""
            note(f"{unused.component}: not used there; {unused.value!r} is kept.{offer}")
    if answer.problems:
        sys.exit(GIVEN_WRONG)


def _pairs(components: Iterable[str]) -> dict[str, str]:
    """Components written as NAME=VALUE."""
    pairs = [component.partition("=") for component in components]
    faulty = [name for name, sign, _value in pairs if not sign]
    if faulty or not pairs:
        raise click.UsageError(
            f"Write components as NAME=VALUE, such as town=Brackwater; not {faulty or 'nothing'}."
        )
    return {name: value for name, _sign, value in pairs}


def _by_line(error: InvalidError, numbers: Sequence[int]) -> str:
    """The problems of a call with addresses from lines with these numbers."""
    said: list[str] = []
    for place in error.errors:
        _, of, *rest = [*place.pointer.split("/"), "", ""]
        number = numbers[int(rest[0])] if of == "addresses" and rest[0].isdecimal() else None
        said.append(place.detail if number is None else f"Line {number}: {place.detail}")
    return "\n  ".join(said) or str(error)


def _read_components(source: Iterable[str], country: str) -> Iterator[tuple[int, dict[str, str]]]:
    """Components from JSON Lines with the numbers of their lines; empty lines are passed over."""
    for number, line in enumerate(source, start=1):
        if not line.strip():
            continue
        try:
            entry = json.loads(line)
        except ValueError as error:
            raise GivenWrongError(f"Line {number} is not JSON: {error}") from None
        if not isinstance(entry, dict):
            raise GivenWrongError(f"Line {number} must be an object of components.")
        if not entry.get("country_code") and not country:
            raise GivenWrongError(
                f"Line {number} has no country_code; name the COUNTRY, or write it there."
            )
        # A value that is null is one that is not there; a number is meant as it is written.
        texts = {name: str(value) for name, value in entry.items() if value is not None}
        yield number, {"country_code": country, **texts}


for command in OWN_LAYOUT_COMMANDS:
    layouts.add_command(command)
