"""Rows of reference data: CSV or JSON Lines in, usable rows and faults out.

The columns are those of `ROW_COLUMNS`, in any order; others are reported and ignored. A row
that cannot be used becomes a `RowFault` with its line, column and reason, and reading goes on.
"""

from __future__ import annotations

import csv
import json
import math
from collections.abc import Iterable, Iterator, Mapping
from dataclasses import dataclass

from ..address import USES, Components
from ..layouts import LayoutLibrary
from ..text import has_control_characters

COMPONENT_COLUMNS: tuple[str, ...] = (
    "organisation", "place", "unit", "building", "number", "street", "po_box", "district",
    "town", "region", "region_code", "nation", "postcode",
)  # fmt: skip
ROW_COLUMNS: tuple[str, ...] = (
    "id", "country_code", "language", *COMPONENT_COLUMNS, "latitude", "longitude", "use",
)  # fmt: skip
LONGEST_ID = 64
LONGEST_VALUE = 200


@dataclass(frozen=True, slots=True)
class Row:
    """One usable row: an address with its position in WGS 84 degrees, where known."""

    id: str
    country_code: str
    components: Components
    language: str = ""
    latitude: float | None = None
    longitude: float | None = None
    use: str | None = None


@dataclass(frozen=True, slots=True)
class RowFault:
    """A row that cannot be used; `line` counts the file's lines from 1."""

    line: int
    column: str
    reason: str


class HeaderError(ValueError):
    """The file's first line does not name the columns that every file must have."""


def read_rows(
    lines: Iterable[str], layouts: LayoutLibrary, *, json_lines: bool = False
) -> Iterator[Row | RowFault]:
    """Reads rows one by one; memory does not grow with the file.

    Args:
        lines: the file's lines, decoded.
        layouts: the layouts of the countries that rows may be of.
        json_lines: JSON Lines instead of CSV (RFC 4180 with a header row).

    Raises:
        HeaderError: a CSV file without the columns `id` and `country_code`.
    """
    seen: set[str] = set()
    for line, record in _json_records(lines) if json_lines else _csv_records(lines):
        if isinstance(record, RowFault):
            yield record
            continue
        row = check_row(record, line, layouts)
        if isinstance(row, Row):
            if row.id in seen:
                row = RowFault(line, "id", f"the id {row.id!r} stands in the file twice")
            else:
                seen.add(row.id)
        yield row


def unknown_columns(first_line: str, *, json_lines: bool = False) -> list[str]:
    """The columns that a file's first line names and that are not used."""
    lines = [first_line]
    if json_lines:
        columns = [name for _, record in _json_records(lines) for name in _names(record)]
    else:
        columns = [name.strip().lstrip("\ufeff") for name in next(csv.reader(lines), [])]
    return [column for column in columns if column not in ROW_COLUMNS]


def _names(record: Mapping[str, str] | RowFault) -> list[str]:
    return [] if isinstance(record, RowFault) else list(record)


def check_row(record: Mapping[str, str], line: int, layouts: LayoutLibrary) -> Row | RowFault:
    """A record as a row, or the first fault that makes it useless."""
    for column in ROW_COLUMNS:
        value = record.get(column) or ""
        if has_control_characters(value):
            return RowFault(line, column, "holds control characters")
        if len(value) > LONGEST_VALUE:
            return RowFault(line, column, f"is longer than {LONGEST_VALUE} characters")
    identifier = (record.get("id") or "").strip()
    if not identifier or len(identifier) > LONGEST_ID or identifier.startswith("~"):
        reason = f"must be 1 to {LONGEST_ID} characters and not begin with ~"
        return RowFault(line, "id", reason)
    code = (record.get("country_code") or "").strip().upper()
    if layouts.get(code) is None:
        return RowFault(line, "country_code", f"there is no layout for country {code!r}")
    use = (record.get("use") or "").strip() or None
    if use is not None and use not in USES:
        return RowFault(line, "use", f"{use!r} is not one of {', '.join(USES)}")
    position = _position(record, line)
    if isinstance(position, RowFault):
        return position
    components = {
        name: " ".join(value.split())
        for name in COMPONENT_COLUMNS
        if (value := record.get(name) or "").strip()
    }
    if not components:
        return RowFault(line, "street", "the row has no component at all")
    language = (record.get("language") or "").strip()
    return Row(identifier, code, components, language, position[0], position[1], use)


def _position(
    record: Mapping[str, str], line: int
) -> tuple[float, float] | tuple[None, None] | RowFault:
    given = [(record.get(c) or "").strip() for c in ("latitude", "longitude")]
    if not any(given):
        return None, None
    degrees = []
    for column, text, bound in zip(("latitude", "longitude"), given, (90.0, 180.0), strict=True):
        try:
            value = float(text)
        except ValueError:
            return RowFault(line, column, f"{text!r} is not a number of degrees")
        if not math.isfinite(value) or abs(value) > bound:
            return RowFault(line, column, f"{text!r} is not between -{bound:g} and {bound:g}")
        degrees.append(value)
    return degrees[0], degrees[1]


def _csv_records(lines: Iterable[str]) -> Iterator[tuple[int, Mapping[str, str] | RowFault]]:
    reader = csv.reader(lines, strict=True)
    header = [name.strip().lstrip("\ufeff") for name in next(reader, [])]
    missing = [name for name in ("id", "country_code") if name not in header]
    if missing:
        raise HeaderError(
            f"The first line must name the columns; it lacks {' and '.join(missing)}."
        )
    while True:
        try:
            values = next(reader)
        except StopIteration:
            return
        except csv.Error as error:
            yield reader.line_num, RowFault(reader.line_num, "", f"is not CSV: {error}")
            continue
        if not values:
            continue
        if len(values) != len(header):
            reason = f"has {len(values)} values where the first line names {len(header)} columns"
            yield reader.line_num, RowFault(reader.line_num, "", reason)
            continue
        yield reader.line_num, dict(zip(header, values, strict=True))


def _json_records(lines: Iterable[str]) -> Iterator[tuple[int, Mapping[str, str] | RowFault]]:
    for number, line in enumerate(lines, start=1):
        if not line.strip():
            continue
        try:
            value = json.loads(line)
        except ValueError as error:
            yield number, RowFault(number, "", f"is not JSON: {error}")
            continue
        if not isinstance(value, dict):
            yield number, RowFault(number, "", "is not a JSON object")
            continue
        yield number, {k: "" if v is None else str(v) for k, v in value.items()}
