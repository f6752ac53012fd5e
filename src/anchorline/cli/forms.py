"""`forms list`, `forms show`: what there is."""

from __future__ import annotations

from typing import Any

import click

from anchorline.client import Client, FormDocument
from anchorline.wire.rule_words import (
    changes_in_words,
    conditions_in_words,
    rule_fills,
    source_in_words,
)

from .connecting import Connect
from .document_commands import document_commands, hidden
from .document_kinds import KindCommands, print_list
from .documents import write_document
from .form_files import new_form
from .output import json_option, note, print_json, print_lines, print_table


@click.group()
def forms() -> None:
    """The forms of the service."""


FORMS = KindCommands(
    group="forms",
    noun="form",
    example="tuning-visit",
    calls=lambda client: client.forms,
    schema=lambda _content: FormDocument,
    at_publish="people meet it at once",
    out_of_force="nobody can fill it any more",
    columns={
        "kind": lambda one: one.kind,
    },
    counts={"records": lambda one: f"{one.record_count:,}"},
)

for _command in (new_form, *document_commands(FORMS)):
    forms.add_command(_command)
forms.add_command(hidden(forms.commands["restore"], "go-back"))


@forms.command("list")
@json_option
@click.pass_obj
def list_forms(connect: Connect, as_json: bool) -> None:
    """List all forms.

    \b
    Example:
      anchorline forms list
    """
    print_list(FORMS, connect(), as_json)


@forms.command("show")
@click.argument("key")
@click.option("--draft", is_flag=True, help="The draft instead of the published version.")
@click.option("--yaml", "as_yaml", is_flag=True, help="As a file that `forms apply` takes.")
@json_option
@click.pass_obj
def show_form(connect: Connect, key: str, draft: bool, as_yaml: bool, as_json: bool) -> None:
    """Show one form: its fields, and where each component of its addresses goes.

    \b
    Example:
      anchorline forms show tuning-visit
      anchorline forms show tuning-visit --yaml > tuning-visit.yaml
    """
    document, version = _document(connect(), key, draft)
    if as_json:
        print_json(document)
        return
    if as_yaml:
        click.echo(write_document(document), nl=False)
        return
    called = "draft" if version is None else f"version {version}"
    print_lines([f"{document.title} ({document.kind} form, {called})", ""])
    print_table(["field", "type", "label", "required"], _field_rows(document))
    for slot in document.slots:
        print_lines(["", f"Address {slot.key}: {slot.label}"])
        print_table(
            ["from", "changes", "into", ""],
            [_rule_row(rule.model_dump(exclude_unset=True)) for rule in slot.mapping],
        )
    for slot in document.slots[:1]:
        note(f"Countries: {', '.join(slot.countries or ['all'])}")


def _rule_row(rule: dict[str, Any]) -> list[str]:
    return [
        source_in_words(rule),
        ", ".join(changes_in_words(rule.get("changes") or ())),
        ", ".join(rule_fills(rule)),
        conditions_in_words(rule),
    ]


def _document(client: Client, key: str, draft: bool) -> tuple[FormDocument, int | None]:
    """A form as its administrator wrote it, and the version; None for the draft."""
    kept = client.forms.draft(key)[0]
    number = kept.summary.published_version
    if draft:
        return kept.document, None
    if number is None:
        return client.form(key).document, None  # says that it is not published
    return client.forms.version(key, number).document, number


def _field_rows(document: FormDocument) -> list[list[str]]:
    rows = []
    for item in document.fields:
        if hasattr(item, "slot"):
            rows.append([item.slot, "address", "", ""])
        else:
            required = "yes" if item.required else ""
            rows.append([item.key, item.type or "text", item.label or "", required])
    return rows
