"""Cursors: opaque texts that say where the next page of a list begins."""

from __future__ import annotations

import base64
import binascii
from typing import Any

import orjson


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
