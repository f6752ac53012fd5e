"""`forms new`: a form to begin from, as a file."""

from __future__ import annotations

from pathlib import Path

import click

from anchorline.client import Client, FormDocument

from .connecting import Connect
from .documents import write_document
from .exit_codes import GivenWrongError
from .output import note, print_table


@click.command("new")
@click.argument("key", default="")
@click.option("--title", default="", help="The new form's title.")
@click.option("--like", metavar="NAME", help="Begin from a ready-made form.")
@click.option(
    "--table",
    type=click.Path(exists=True, dir_okay=False, path_type=Path),
    help="Begin from the head of a table: a CSV file.",
)
@click.option("--kind", type=click.Choice(["record", "web"]), help="Who fills it.")
@click.pass_obj
def new_form(
    connect: Connect, key: str, title: str, like: str | None, table: Path | None, kind: str | None
) -> None:
    """Write a new form as a file, to be edited and applied; without KEY, what to begin from.

    \b
    Example:
      anchorline forms new
      anchorline forms new call-back --title "Call me back" > call-back.yaml
      anchorline forms new bookings --like booking > bookings.yaml
      anchorline forms new customers --table customers.csv > customers.yaml
    """
    client = connect()
    if not key:
        ready = client.ready_made_forms()
        print_table(
            ["ready-made form", "title", "for what"], [[r.name, r.title, r.says] for r in ready]
        )
        note("Begin with one: anchorline forms new KEY --like NAME")
        return
    if like and table:
        raise GivenWrongError("Give --like or --table, not both.")
    if like:
        document = _ready_made(client, like)
    elif table:
        document = _of_table(client, table, title or key)
    else:
        document = FormDocument(key=key, kind="record", title=title or key)
    update = {"key": key, "title": title or document.title, "kind": kind or document.kind}
    click.echo(write_document(document.model_copy(update=update)), nl=False)


def _ready_made(client: Client, name: str) -> FormDocument:
    ready = {form.name: form.document for form in client.ready_made_forms()}
    if name not in ready:
        raise GivenWrongError(
            f"There is no ready-made form {name!r}; there are: {', '.join(ready)}."
        )
    return ready[name]


def _of_table(client: Client, table: Path, title: str) -> FormDocument:
    try:
        with table.open(encoding="utf-8-sig") as file:
            text = "".join(line for _, line in zip(range(60), file, strict=False))
    except (OSError, UnicodeDecodeError) as error:
        raise GivenWrongError(f"{table} cannot be read: {error}") from None
    proposal = client.propose_form(text[:200_000], title)
    for guess in proposal.guesses:
        what = {
            "field": f"field {guess.key} ({guess.type})",
            "part": f"{guess.component} of the address {guess.slot}",
            "left_out": "left out",
        }[guess.becomes]
        note(f"{guess.column}: {what}. {guess.because}")
    return proposal.document
