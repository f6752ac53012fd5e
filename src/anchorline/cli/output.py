"""What commands print: tables for people, JSON for programs."""

from __future__ import annotations

import json
import sys
from collections.abc import Callable, Iterable, Sequence
from typing import Any, TypeVar

import click
from pydantic import BaseModel
from rich.console import Console, JustifyMethod
from rich.table import Table
from rich.text import Text

# Columns whose cells are copied into other commands.
_WHOLE = frozenset({"id", "key", "job", "dataset"})
_Command = TypeVar("_Command", bound=Callable[..., Any])


def json_option(command: _Command) -> _Command:
    """The option that every command with an answer has."""
    return click.option("--json", "as_json", is_flag=True, help="Print JSON, for programs.")(
        command
    )


def print_json(answer: BaseModel | Sequence[BaseModel] | Sequence[str]) -> None:
    """Prints an answer as JSON, one line where it is not a terminal."""
    if isinstance(answer, BaseModel):
        value: Any = answer.model_dump(mode="json")
    else:
        value = [a.model_dump(mode="json") if isinstance(a, BaseModel) else a for a in answer]
    click.echo(json.dumps(value, ensure_ascii=False, indent=2 if sys.stdout.isatty() else None))


def print_table(
    columns: Sequence[str], rows: Iterable[Sequence[str | Text]], *, numbers: Sequence[str] = ()
) -> None:
    """Prints a table; `numbers` names the columns that stand on the right."""
    table = Table(box=None, pad_edge=False, header_style="bold", show_edge=False)
    for column in columns:
        justify: JustifyMethod = "right" if column in numbers else "left"
        # An id is for copying: it is never broken, however narrow the terminal is.
        table.add_column(column, justify=justify, overflow="fold", no_wrap=column in _WHOLE)
    for row in rows:
        table.add_row(*[Text(cell) if isinstance(cell, str) else cell for cell in row])
    _console().print(table)


def print_lines(lines: Iterable[str]) -> None:
    """Prints lines as they are."""
    for line in lines:
        click.echo(line)


def note(text: str) -> None:
    """Says something beside the answer, on the error stream."""
    if text:
        click.secho(text, dim=True, err=True)


def highlighted(label: str, matches: Iterable[Sequence[int]]) -> Text:
    """A label with the typed ranges in bold."""
    text = Text(label)
    for start, end in matches:
        text.stylize("bold green", start, end)
    return text


def error_console() -> Console:
    """Where progress is shown: the error stream, so that answers can be piped on."""
    return Console(stderr=True)


def _console() -> Console:
    # Off a terminal, a table must not be cut to some default width.
    return Console(width=None if sys.stdout.isatty() else 200, soft_wrap=False)
