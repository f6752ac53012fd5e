"""Where a group of addresses is: the middle of those whose place is known."""

from __future__ import annotations

import numpy as np

from ..text import compact
from .arrays import DEGREE_UNITS, NO_DEGREES
from .edition import Edition

# More addresses than these move no middle that anybody would see.
_MOST_LOOKED_AT = 20_000


def middle_of_group(edition: Edition, node: int, number: str) -> tuple[float, float] | None:
    """Latitude and longitude in degrees, the medians of the group's; None where none is known.

    Medians, so that one address with a wrong place moves nothing.
    """
    addresses = np.asarray(edition.address_range(node))
    if number:
        addresses = np.array(
            [a for a in addresses if compact(edition.number_of(int(a))) == number], dtype=np.int64
        )
    if len(addresses) > _MOST_LOOKED_AT:
        addresses = addresses[:: len(addresses) // _MOST_LOOKED_AT]
    latitudes, longitudes = edition.latitudes[addresses], edition.longitudes[addresses]
    known = (latitudes != NO_DEGREES) & (longitudes != NO_DEGREES)
    if not known.any():
        return None
    return (
        float(np.median(latitudes[known])) / DEGREE_UNITS,
        float(np.median(longitudes[known])) / DEGREE_UNITS,
    )
