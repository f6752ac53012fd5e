"""The addresses of a table, its columns recognised by their names."""

from __future__ import annotations

import csv

from ...address import COMPONENT_SET, Components
from ...layouts import LayoutLibrary
from .address_columns import component_of
from .columns import DELIMITERS, TableError

MOST_ROWS = 5000


def address_rows(text: str, layouts: LayoutLibrary) -> list[Components]:
    """The components of each row; columns that are no part of an address are left out.

    Raises:
        TableError: no column is, or there are too many rows.
    """
    lines = [line for line in text.lstrip("\ufeff").splitlines() if line.strip()]
    if len(lines) < 2:
        raise TableError("There are no rows: the first one names the columns, others follow.")
    if len(lines) - 1 > MOST_ROWS:
        raise TableError(
            f"There are {len(lines) - 1:,} rows; at most {MOST_ROWS:,} can be run over."
        )
    delimiter = max(DELIMITERS, key=lines[0].count)
    names, *rows = csv.reader(lines, delimiter=delimiter)
    parts = [_component(name, layouts) for name in names]
    if not any(parts):
        raise TableError(
            "No column is a part of an address: name them street, number, town, postcode …"
        )
    return [
        {
            part: cell.strip()
            for part, cell in zip(parts, row, strict=False)
            if part and cell.strip()
        }
        for row in rows
    ]


def _component(name: str, layouts: LayoutLibrary) -> str:
    key = name.strip().lower().replace(" ", "_")
    return key if key in COMPONENT_SET else component_of(name, layouts)[0]
