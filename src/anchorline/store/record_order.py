"""The orders in which records are listed, and the cursors of their pages."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

from anchorline.core.kinds import RecordSort

from .cursors import Cursor, time_of
from .schema import RecordRow


@dataclass(frozen=True, slots=True)
class RecordOrder:
    """An order of records; the id settles it where the column is equal.

    Attributes:
        to_cursor, from_cursor: between a value of the column and the text that a cursor holds.
    """

    column: Any
    descending: bool
    to_cursor: Callable[[RecordRow], str]
    from_cursor: Callable[[str], Any] = str


def _made_at(row: RecordRow) -> str:
    return row.made_at.isoformat()


def _label_of(row: RecordRow) -> str:
    return row.label


RECORD_ORDERS: dict[RecordSort, RecordOrder] = {
    "newest": RecordOrder(RecordRow.made_at, True, _made_at, time_of),
    "oldest": RecordOrder(RecordRow.made_at, False, _made_at, time_of),
    "label": RecordOrder(RecordRow.label, False, _label_of),
    "-label": RecordOrder(RecordRow.label, True, _label_of),
}


def cursor_after(row: RecordRow, sort: RecordSort) -> str:
    """Where the page after a row begins."""
    return Cursor(sort).after(RECORD_ORDERS[sort].to_cursor(row), row.id)


def read_cursor(cursor: str, sort: RecordSort) -> tuple[Any, str]:
    """The value of the column, and the id, of the row before the page.

    Raises:
        BadCursorError: it was not handed out by a list in this order.
    """
    value, identifier = Cursor(sort).read(cursor, str, str)
    return RECORD_ORDERS[sort].from_cursor(value), identifier
