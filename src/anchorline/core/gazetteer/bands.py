"""Positions sorted into bands of latitude: what makes the nearest address quick to find.

Addresses with a position are ordered by band (BAND degrees of latitude), inside a band by
longitude. `nearest` walks outward from a point's band and cuts each band to the longitudes
that can still hold something nearer.
"""

from __future__ import annotations

import numpy as np
import numpy.typing as npt

from .arrays import DEGREE_UNITS, NO_DEGREES

BAND = DEGREE_UNITS // 50  # 0.02 degrees, about 2.2 km
BAND_COUNT = 180 * DEGREE_UNITS // BAND + 1


def band_of(latitude_units: int) -> int:
    """The band of a latitude in 1e-7 degrees, counted from the south pole."""
    return (latitude_units + 90 * DEGREE_UNITS) // BAND


def band_arrays(
    latitudes: npt.NDArray[np.int32], longitudes: npt.NDArray[np.int32]
) -> dict[str, npt.NDArray[np.generic]]:
    """`band_order` (addresses) and `band_starts` (BAND_COUNT + 1 offsets into it)."""
    known = np.flatnonzero((latitudes != NO_DEGREES) & (longitudes != NO_DEGREES))
    bands = (latitudes[known].astype(np.int64) + 90 * DEGREE_UNITS) // BAND
    order = np.lexsort((longitudes[known], bands))
    starts = np.searchsorted(bands[order], np.arange(BAND_COUNT + 1))
    return {
        "band_order": known[order].astype(np.uint32),
        "band_starts": starts.astype(np.uint32),
    }
