"""Cursors: opaque texts that say where the next page of a list begins."""

from __future__ import annotations

import base64
import binascii
from collections.abc import Callable, Sequence
from datetime import UTC, datetime
from typing import Any, Generic, NamedTuple, TypeVar

import orjson

_Row = TypeVar("_Row")


class BadCursorError(ValueError):
    """The cursor was not handed out by this list."""


class Cursor:
    """Makes and reads the cursors of one list.

    Args:
        of: names the list and its order, so that another one's cursor is refused.
    """

    def __init__(self, of: str) -> None:
        self._of = of

    def after(self, *values: str | int) -> str:
        """Where the page after a row begins, told by that row's values in the list's order."""
        return base64.urlsafe_b64encode(orjson.dumps([self._of, *values])).decode()

    def read(self, cursor: str, *types: type) -> list[Any]:
        """The values that a cursor was made of.

        Raises:
            BadCursorError: it was not handed out by this list.
        """
        try:
            kept: list[Any] = orjson.loads(base64.urlsafe_b64decode(cursor.encode()))
            of, *values = kept
        except (ValueError, TypeError, binascii.Error):
            of, values = None, []
        if of != self._of or [type(value) for value in values] != list(types):
            raise BadCursorError("This cursor was not handed out by this list.")
        return values


def time_of(text: str) -> datetime:
    """A time that a cursor holds, as `isoformat` writes it; BadCursorError for anything else."""
    try:
        # Near the ends of the calendar a time has no UTC (OverflowError).
        return datetime.fromisoformat(text).astimezone(UTC)
    except (ValueError, OverflowError) as error:
        raise BadCursorError("This cursor was not handed out by this list.") from error


class KeysetPage(NamedTuple, Generic[_Row]):
    """A page of a list; `after` is the cursor of the next one, None where this is the last."""

    entries: Sequence[_Row]
    after: str | None


def cut(
    rows: Sequence[_Row],
    limit: int,
    cursor: Cursor,
    values: Callable[[_Row], tuple[str | int, ...]],
) -> KeysetPage[_Row]:
    """A page of rows of which one more was asked for than it may have.

    Args:
        values: of a row, in the list's order.
    """
    more = len(rows) > limit
    return KeysetPage(rows[:limit], cursor.after(*values(rows[limit - 1])) if more else None)
