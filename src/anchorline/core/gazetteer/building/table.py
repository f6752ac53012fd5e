"""The rows of an edition as columns.

Each text is stored once and rows refer to it by number, so a million rows take a few hundred
megabytes instead of several gigabytes.
"""

from __future__ import annotations

from array import array
from collections import defaultdict
from collections.abc import Iterable, Iterator, Sequence
from itertools import islice

import numpy as np
import numpy.typing as npt

from ...address import USES
from ..arrays import DEGREE_UNITS, NO_DEGREES
from ..rows import COMPONENT_COLUMNS, Row, RowBlock

Ids = npt.NDArray[np.uint32]

_NUMBERED = (*COMPONENT_COLUMNS, "language", "country_code")
_USE_NUMBERS = {"": 0, **{use: i + 1 for i, use in enumerate(USES)}}
_ROWS_AT_ONCE = 10_000


class RowTable:
    """Rows taken in block by block.

    Attributes:
        ids: the rows' ids, in the order in which they came.
    """

    def __init__(self, rows: Iterable[Row] = ()) -> None:
        self.ids: list[str] = []
        self._numbers: defaultdict[str, int] = defaultdict()
        self._numbers.default_factory = self._numbers.__len__
        self._numbers[""] = 0
        self._columns = {name: array("I") for name in _NUMBERED}
        self._latitudes, self._longitudes = array("i"), array("i")
        self._uses = array("B")
        for block in _blocks(rows):
            self.extend(block)

    def __len__(self) -> int:
        return len(self.ids)

    def extend(self, block: RowBlock) -> None:
        """Takes in a block; a row with the id of another spells that one's address otherwise."""
        number_of = self._numbers.__getitem__
        for name, column in self._columns.items():
            values = block.texts.get(name)
            if values is None:
                column.frombytes(bytes(4 * len(block)))
            else:
                column.extend(map(number_of, values))
        self.ids.extend(block.texts["id"])
        self._latitudes.frombytes(_units(block.latitudes))
        self._longitudes.frombytes(_units(block.longitudes))
        uses = block.texts.get("use", [""] * len(block))
        self._uses.extend(map(_USE_NUMBERS.__getitem__, uses))

    def only(self, rows: npt.NDArray[np.int64]) -> RowTable:
        """A table of some of the rows, with the same texts."""
        chosen = RowTable()
        chosen.ids = [self.ids[row] for row in rows.tolist()]
        chosen._numbers = self._numbers
        for name, column in chosen._columns.items():
            column.frombytes(self.column(name)[rows].tobytes())
        chosen._latitudes.frombytes(self.latitudes[rows].tobytes())
        chosen._longitudes.frombytes(self.longitudes[rows].tobytes())
        chosen._uses.frombytes(self.uses[rows].tobytes())
        return chosen

    @property
    def texts(self) -> list[str]:
        """Every distinct text by its number; text 0 is the empty one."""
        return list(self._numbers)

    def column(self, name: str) -> Ids:
        """Text numbers of a component, of `language` or of `country_code`, one a row."""
        return np.frombuffer(self._columns[name], dtype=np.uint32)

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


def _blocks(rows: Iterable[Row]) -> Iterator[RowBlock]:
    waiting = iter(rows)
    while block := RowBlock.of(islice(waiting, _ROWS_AT_ONCE)):
        yield block


def _units(degrees: Sequence[float | None]) -> bytes:
    """Degrees as 32-bit whole numbers of 1e-7 degrees, in bytes."""
    known = np.array(degrees, dtype=np.float64)  # None becomes not-a-number
    units = np.where(np.isnan(known), float(NO_DEGREES), np.rint(known * DEGREE_UNITS))
    return units.astype(np.int32).tobytes()
