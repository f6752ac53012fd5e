"""Positions of rows: reading degrees, and checking that they lie in the country."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence

import numpy as np
import numpy.typing as npt

from ..gazetteer.rows import RowBlock
from ..layouts import LayoutLibrary
from .columns import Fault

Degrees = list[float | None]
_BOUNDS = {"latitude": 90.0, "longitude": 180.0}


def read_degrees(
    raw: Mapping[str, Sequence[str]], count: int, faults: dict[int, tuple[str, Fault]]
) -> tuple[Degrees, Degrees]:
    """Latitudes and longitudes, None where a row has neither; adds the faults of the others."""
    nothing = [""] * count
    texts = [raw.get(name, nothing) for name in _BOUNDS]
    try:
        quick = [np.array(list(map(float, column))) for column in texts]
    except ValueError:
        return _one_by_one(texts, count, faults)
    inside = np.abs(quick[0]) <= _BOUNDS["latitude"]
    if not (inside & (np.abs(quick[1]) <= _BOUNDS["longitude"])).all():
        return _one_by_one(texts, count, faults)
    return quick[0].tolist(), quick[1].tolist()


def _one_by_one(
    texts: Sequence[Sequence[str]], count: int, faults: dict[int, tuple[str, Fault]]
) -> tuple[Degrees, Degrees]:
    found: tuple[Degrees, Degrees] = ([None] * count, [None] * count)
    for place, pair in enumerate(zip(*texts, strict=True)):
        if not any(text.strip() for text in pair):
            continue
        for (name, bound), text, degrees in zip(_BOUNDS.items(), pair, found, strict=True):
            value = _number(text)
            if value is None:
                reason = f"{text!r} is not a number of degrees"
            elif not abs(value) <= bound:
                reason = f"{text!r} is not between -{bound:g} and {bound:g}"
            else:
                degrees[place] = value
                continue
            faults.setdefault(place, (name, ("bad-position", reason)))
    return found


def _number(text: str) -> float | None:
    try:
        return float(text)
    except ValueError:
        return None


class PositionChecker:
    """Holds positions against the rough boxes of their countries."""

    def __init__(self, layouts: LayoutLibrary) -> None:
        self._layouts = layouts

    def findings(self, block: RowBlock) -> Iterator[tuple[str, list[int]]]:
        """Names of findings with the places of the rows."""
        codes = np.array(block.texts["country_code"])
        latitudes = np.array(block.latitudes, dtype=np.float64)
        longitudes = np.array(block.longitudes, dtype=np.float64)
        outside = np.zeros(len(block), dtype=bool)
        for code in set(block.texts["country_code"]):
            layout = self._layouts.require(code)
            if layout.box is None:
                continue
            here = (codes == code) & ~np.isnan(latitudes)
            outside |= here & ~_within(layout.box, latitudes, longitudes)
        places = np.flatnonzero(outside).tolist()
        countries = block.texts["country_code"]
        swapped = [
            i for i in places if self._fits_swapped(countries[i], latitudes[i], longitudes[i])
        ]
        known = set(swapped)
        yield "swapped-position", swapped
        yield "outside-country", [i for i in places if i not in known]

    def _fits_swapped(self, country: str, latitude: float, longitude: float) -> bool:
        box = self._layouts.require(country).box
        return box is not None and bool(_within(box, np.array(longitude), np.array(latitude)))


def _within(
    box: tuple[float, float, float, float],
    latitudes: npt.NDArray[np.float64],
    longitudes: npt.NDArray[np.float64],
) -> npt.NDArray[np.bool_]:
    """Which points are in a box of south, west, north, east, also across the 180th meridian."""
    south, west, north, east = box
    after, before = longitudes >= west, longitudes <= east
    across = (after | before) if west > east else (after & before)
    return np.asarray((latitudes >= south) & (latitudes <= north) & across)
