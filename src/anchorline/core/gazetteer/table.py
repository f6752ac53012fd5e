"""Rows as columns: what an edition is built from, small enough for a whole country.

Every text is kept once and rows refer to it by number, so a million rows take a few hundred
megabytes and not several gigabytes.
"""

from __future__ import annotations

from array import array
from collections.abc import Iterable

import numpy as np
import numpy.typing as npt

from ..address import USES
from .arrays import DEGREE_UNITS, NO_DEGREES
from .rows import COMPONENT_COLUMNS, Row

Ids = npt.NDArray[np.uint32]

_TEXT_COLUMNS: tuple[str, ...] = (*COMPONENT_COLUMNS, "language", "country_code")
_PLACES = {name: place for place, name in enumerate(_TEXT_COLUMNS)}
_USE_NUMBERS: dict[str | None, int] = {None: 0, **{use: i + 1 for i, use in enumerate(USES)}}


class RowTable:
    """Rows taken in one by one.

    Attributes:
        ids: the rows' ids, in the order in which they came.
        texts: every distinct text; text 0 is the empty one.
    """

    def __init__(self, rows: Iterable[Row] = ()) -> None:
        self.ids: list[str] = []
        self._numbers: dict[str, int] = {"": 0}
        self._cells = array("I")
        self._latitudes, self._longitudes = array("i"), array("i")
        self._uses = array("B")
        for row in rows:
            self.add(row)

    def __len__(self) -> int:
        return len(self.ids)

    def add(self, row: Row) -> None:
        """Takes in one row; its id must be new."""
        numbers = self._numbers
        cells = [0] * len(_TEXT_COLUMNS)
        for name, value in row.components.items():
            cells[_PLACES[name]] = numbers.setdefault(value, len(numbers))
        cells[-2] = numbers.setdefault(row.language, len(numbers))
        cells[-1] = numbers.setdefault(row.country_code, len(numbers))
        self._cells.extend(cells)
        self.ids.append(row.id)
        latitude, longitude = row.latitude, row.longitude
        known = latitude is not None and longitude is not None
        self._latitudes.append(round(latitude * DEGREE_UNITS) if known else NO_DEGREES)  # type: ignore[operator]
        self._longitudes.append(round(longitude * DEGREE_UNITS) if known else NO_DEGREES)  # type: ignore[operator]
        self._uses.append(_USE_NUMBERS[row.use])

    @property
    def texts(self) -> list[str]:
        """Every distinct text by its number."""
        return list(self._numbers)

    def column(self, name: str) -> Ids:
        """Text numbers of a component, of `language` or of `country_code`, one a row."""
        cells = np.frombuffer(self._cells, dtype=np.uint32).reshape(-1, len(_TEXT_COLUMNS))
        return cells[:, _PLACES[name]]

    @property
    def latitudes(self) -> npt.NDArray[np.int32]:
        """In 1e-7 degrees, NO_DEGREES where unknown."""
        return np.frombuffer(self._latitudes, dtype=np.int32)

    @property
    def longitudes(self) -> npt.NDArray[np.int32]:
        """In 1e-7 degrees, NO_DEGREES where unknown."""
        return np.frombuffer(self._longitudes, dtype=np.int32)

    @property
    def uses(self) -> npt.NDArray[np.uint8]:
        """Index into USES + 1, 0 where unknown."""
        return np.frombuffer(self._uses, dtype=np.uint8)
