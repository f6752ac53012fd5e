"""Columns of a table that was copied from a spreadsheet, or of a CSV file."""

from __future__ import annotations

import csv
from dataclasses import dataclass

from ...text import has_control_characters

MOST_COLUMNS = 200
# More rows tell nothing new.
ROWS_LOOKED_AT = 50
DELIMITERS = "\t;,|"


class TableError(ValueError):
    """A text that is no table; says what to do."""


@dataclass(frozen=True, slots=True)
class Column:
    """A column: its name, and the values that are not empty in the first rows."""

    name: str
    values: tuple[str, ...]


def read_columns(text: str) -> list[Column]:
    """The columns of a table whose first line names them.

    Raises:
        TableError: there are no names, or too many of them.
    """
    shown = "".join(c for c in text.lstrip("\ufeff") if not has_control_characters(c))
    lines = shown.splitlines()
    while lines and not lines[0].strip():
        lines.pop(0)
    if not lines:
        raise TableError("There is no head: paste the row with the names of the columns.")
    delimiter = max(DELIMITERS, key=lines[0].count)
    rows = list(csv.reader(lines[: ROWS_LOOKED_AT + 1], delimiter=delimiter))
    names = [name.strip() for name in rows[0]]
    while names and not names[-1]:
        names.pop()
    if not any(names):
        raise TableError("The first row names no column: paste the row with their names.")
    if len(names) > MOST_COLUMNS:
        raise TableError(f"There are {len(names)} columns; at most {MOST_COLUMNS} can be taken.")
    return [
        Column(
            name[:200] or f"Column {at + 1}",
            tuple(row[at].strip() for row in rows[1:] if at < len(row) and row[at].strip()),
        )
        for at, name in enumerate(names)
    ]
