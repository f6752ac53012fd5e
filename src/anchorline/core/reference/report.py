"""The report of rows left out, as CSV (RFC 4180) that is safe to open in a spreadsheet."""

from __future__ import annotations

import csv
import io
import unicodedata
from collections.abc import Iterable, Iterator, Sequence

from .findings import BadRow

REPORT_COLUMNS: tuple[str, ...] = ("line", "id", "finding", "column", "reason", "row")
# A spreadsheet takes a cell that begins with one of these for a formula, also where they are
# written in another width (full-width and small forms, which NFKC makes plain).
_FORMULA_STARTS = ("=", "+", "-", "@", "\t", "\r", "\n")


def report_lines(rows: Iterable[BadRow]) -> Iterator[str]:
    """Lines with their ends, the header first; the file's own texts can start no formula."""
    yield _line(REPORT_COLUMNS)
    for bad in rows:
        texts = [bad.id, bad.finding, bad.column, bad.reason, bad.row]
        yield _line([str(bad.line), *map(_harmless, texts)])


def _harmless(text: str) -> str:
    plain = unicodedata.normalize("NFKC", text[:1])
    return f"'{text}" if plain.startswith(_FORMULA_STARTS) else text


def _line(values: Sequence[str]) -> str:
    buffer = io.StringIO()
    csv.writer(buffer, lineterminator="\r\n").writerow(values)
    return buffer.getvalue()
