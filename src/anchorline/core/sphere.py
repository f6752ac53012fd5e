"""Distances on a sphere of the Earth's mean radius, by the haversine formula."""

from __future__ import annotations

import math

# Mean radius of the earth in kilometres (IUGG R1).
_RADIUS = 6371.0088


def metres_between(latitude: float, longitude: float, other: float, far: float) -> int:
    """Whole metres from one point to another, as the crow flies; all in degrees (WGS 84)."""
    to_radians = math.pi / 180
    north = math.sin((other - latitude) * to_radians / 2)
    east = math.sin((far - longitude) * to_radians / 2)
    cosines = math.cos(latitude * to_radians) * math.cos(other * to_radians)
    part = min(1.0, north * north + cosines * east * east)
    return math.floor(2 * _RADIUS * math.asin(math.sqrt(part)) * 1000 + 0.5)
