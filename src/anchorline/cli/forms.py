"""`forms list`, `forms show`."""

from __future__ import annotations

import click

from anchorline.client import FormDocument

from .finding import Connect
from .output import json_option, note, print_json, print_lines, print_table


@click.group()
def forms() -> None:
    """The forms of the service."""


@forms.command("list")
@json_option
@click.pass_obj
def list_forms(connect: Connect, as_json: bool) -> None:
    """All forms.

    \b
    Example:
      anchorline forms list
    """
    found = connect().forms()
    if as_json:
        print_json(found)
        return
    print_table(
        ["key", "title", "kind", "published", "records"],
        [
            [
                form.key,
                form.title,
                form.kind,
                _published(form.published_version, form.draft_differs),
                f"{form.record_count:,}",
            ]
            for form in found
        ],
        numbers=["records"],
    )


@forms.command("show")
@click.argument("key")
@click.option("--draft", is_flag=True, help="The draft instead of the published version.")
@json_option
@click.pass_obj
def show_form(connect: Connect, key: str, draft: bool, as_json: bool) -> None:
    """One form: its fields, and where each component of its addresses goes.

    \b
    Example:
      anchorline forms show tuning-visit
    """
    form = connect().form(key, draft=draft)
    if as_json:
        print_json(form.document)
        return
    version = "draft" if form.version is None else f"version {form.version}"
    print_lines([f"{form.document.title} ({form.document.kind} form, {version})", ""])
    print_table(["field", "type", "label", "required"], _field_rows(form.document))
    for slot in form.document.slots:
        print_lines(["", f"Address {slot.key}: {slot.label}"])
        print_table(
            ["components", "joined by", "changes", "into"],
            [
                [", ".join(r.components), repr(r.join or " "), ", ".join(r.changes), r.into]
                for r in slot.mapping
            ],
        )
    note(f"Countries: {', '.join(form.document.slots[0].countries)}" if form.document.slots else "")


def _published(version: int | None, draft_differs: bool) -> str:
    if version is None:
        return "not yet"
    return f"version {version}" + (", draft differs" if draft_differs else "")


def _field_rows(document: FormDocument) -> list[list[str]]:
    rows = []
    for item in document.fields:
        if hasattr(item, "slot"):
            rows.append([item.slot, "address", "", ""])
        else:
            required = "yes" if item.required else ""
            rows.append([item.key, item.type or "text", item.label or "", required])
    return rows
