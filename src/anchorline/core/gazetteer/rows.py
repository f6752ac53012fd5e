"""Rows of reference data, one by one and as blocks of columns.

A whole country passes through as blocks: work that is done once for a column, or once for each
distinct value in it, is many times quicker than work that is done once for a row.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass

from ..address import Components

COMPONENT_COLUMNS: tuple[str, ...] = (
    "organisation", "place", "unit", "building", "number", "street", "po_box", "district",
    "town", "region", "region_code", "nation", "postcode",
)  # fmt: skip
ROW_COLUMNS: tuple[str, ...] = (
    "id", "country_code", "language", *COMPONENT_COLUMNS, "latitude", "longitude", "use",
)  # fmt: skip
TEXT_COLUMNS: tuple[str, ...] = tuple(c for c in ROW_COLUMNS if c not in ("latitude", "longitude"))


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


@dataclass(slots=True)
class RowBlock:
    """Some usable rows, column by column.

    Attributes:
        texts: the values of TEXT_COLUMNS, `""` for none; a column that is empty throughout may
            be absent, `id` and `country_code` never are.
        latitudes, longitudes: degrees; None where unknown.
    """

    texts: dict[str, Sequence[str]]
    latitudes: Sequence[float | None]
    longitudes: Sequence[float | None]

    def __len__(self) -> int:
        return len(self.latitudes)

    @classmethod
    def of(cls, rows: Iterable[Row]) -> RowBlock:
        """The block of these rows."""
        kept = list(rows)
        texts: dict[str, Sequence[str]] = {
            name: [row.components.get(name, "") for row in kept] for name in COMPONENT_COLUMNS
        }
        texts["id"] = [row.id for row in kept]
        texts["country_code"] = [row.country_code for row in kept]
        texts["language"] = [row.language for row in kept]
        texts["use"] = [row.use or "" for row in kept]
        return cls(texts, [row.latitude for row in kept], [row.longitude for row in kept])

    def rows(self) -> Iterator[Row]:
        """Its rows, one by one."""
        nothing = [""] * len(self)
        columns = {name: self.texts.get(name, nothing) for name in TEXT_COLUMNS}
        for i in range(len(self)):
            yield Row(
                columns["id"][i],
                columns["country_code"][i],
                {name: columns[name][i] for name in COMPONENT_COLUMNS if columns[name][i]},
                columns["language"][i],
                self.latitudes[i],
                self.longitudes[i],
                columns["use"][i] or None,
            )

    def take(self, places: Sequence[int]) -> RowBlock:
        """The block of the rows at these places, in this order."""
        return RowBlock(
            {name: [values[i] for i in places] for name, values in self.texts.items()},
            [self.latitudes[i] for i in places],
            [self.longitudes[i] for i in places],
        )
