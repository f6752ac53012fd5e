"""What commands say of one kind of document, and what they print of documents of any kind."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping, Sequence
from dataclasses import dataclass, field
from pathlib import Path
from typing import TYPE_CHECKING, Any

import click

from .exit_codes import GivenWrongError
from .output import note, print_json, print_lines, print_table

if TYPE_CHECKING:
    from pydantic import BaseModel

    from anchorline.client import Client
    from anchorline.client.documents import Documents
    from anchorline.wire.documents import DifferenceAnswer

    AnyDocuments = Documents[Any, Any, Any, Any]


@dataclass(frozen=True, slots=True)
class KindCommands:
    """One kind of document, as commands speak of it.

    Attributes:
        group: of commands, as it is typed.
        noun: what a document is called.
        example: a key, for examples.
        calls: the client's calls on the kind.
        schema: that of what a file says.
        at_publish: who follows when one is published.
        out_of_force: what is so while none is published.
        columns, counts: of a list, beside the key, the title and what is published.
    """

    group: str
    noun: str
    example: str
    calls: Callable[[Client], AnyDocuments]
    schema: Callable[[Mapping[str, Any]], type[BaseModel]]
    at_publish: str
    out_of_force: str
    columns: Mapping[str, Callable[[Any], str]]
    counts: Mapping[str, Callable[[Any], str]] = field(default_factory=dict)

    def document_in(self, path: Path) -> Any:
        """The document of a file."""
        from .documents import read_one_of

        return read_one_of(path, self.schema)


def print_list(kind: KindCommands, client: Client, as_json: bool) -> None:
    """Prints all documents of a kind."""
    found = kind.calls(client).list()
    if as_json:
        print_json(found)
        return
    columns: dict[str, Callable[[Any], str]] = {
        "key": lambda one: one.key,
        "title": lambda one: one.title,
        **kind.columns,
        "published": _published,
        **kind.counts,
    }
    rows = [[text(one) for text in columns.values()] for one in found]
    print_table(list(columns), rows, numbers=list(kind.counts))
    if not found:
        note(f"There are no {kind.noun}s yet: keep one by anchorline {kind.group} apply FILE.")


def chosen(kind: KindCommands, calls: AnyDocuments, keys: Sequence[str], every: bool) -> list[Any]:
    """The documents that are meant; GivenWrongError where none is named, or one is not there."""
    if every == bool(keys):
        raise GivenWrongError(f"Name {kind.noun}s, or give --all.")
    listed = {one.key: one for one in calls.list()}
    missing = [key for key in keys if key not in listed]
    if missing:
        there = ", ".join(listed)
        raise GivenWrongError(f"There is no {kind.noun} {missing[0]!r}; there are: {there}.")
    return [listed[key] for key in keys] if keys else list(listed.values())


def is_published(one: Any) -> bool:
    """Whether a document's draft is what is published."""
    return one.published_version is not None and not one.draft_differs


def _published(one: Any) -> str:
    if one.published_version is None:
        return "not yet"
    return f"version {one.published_version}" + (", draft differs" if one.draft_differs else "")


def print_difference(found: DifferenceAnswer) -> None:
    """Prints what publishing would change."""
    print_lines(f"  {change.detail}" for change in found.changes)
    if found.is_new:
        print_lines(["  Nothing of it is published yet."])
    elif not found.changes:
        print_lines(["  It is as it is published."])


def say(found: DifferenceAnswer) -> None:
    """Says what stands against publishing, and what should be known."""
    say_findings(
        (f"{one.pointer}: {one.detail}" for one in found.problems),
        (f"{one.pointer}: {one.detail}" for one in found.warnings),
    )


def say_findings(problems: Iterable[str], warnings: Iterable[str]) -> None:
    """Says what stands against publishing, and what should be known."""
    for problem in problems:
        click.echo(f"Stands against publishing it: {problem}", err=True)
    for warning in warnings:
        click.echo(f"Should be known: {warning}", err=True)
