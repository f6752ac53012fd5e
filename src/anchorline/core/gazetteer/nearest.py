"""The addresses nearest to a point, exactly, by great-circle distance.

Distance is on a sphere of the Earth's mean radius (IUGG R1, 6,371,008.8 m) by the haversine
formula, which stays exact for near points.
"""

from __future__ import annotations

import heapq
import math
from collections.abc import Iterator

import numpy as np
import numpy.typing as npt

from .arrays import DEGREE_UNITS
from .bands import BAND, BAND_COUNT, band_of
from .edition import Edition

EARTH_RADIUS_M = 6_371_008.8
_METRES_PER_DEGREE = math.pi * EARTH_RADIUS_M / 180


def distances_m(
    latitude: float | npt.NDArray[np.floating],
    longitude: float | npt.NDArray[np.floating],
    latitudes: npt.NDArray[np.floating],
    longitudes: npt.NDArray[np.floating],
) -> npt.NDArray[np.float64]:
    """Great-circle distances in metres from one point, or from as many, to others; in degrees."""
    here, there = np.radians(latitude), np.radians(latitudes)
    turn = np.radians(longitudes - longitude)
    chord = np.sin((there - here) / 2) ** 2 + np.cos(here) * np.cos(there) * np.sin(turn / 2) ** 2
    return np.asarray(2 * EARTH_RADIUS_M * np.arcsin(np.sqrt(np.minimum(chord, 1.0))))


def nearest_addresses(
    edition: Edition, latitude: float, longitude: float, limit: int, radius_m: float
) -> list[tuple[float, int]]:
    """The nearest addresses within a radius, as (metres, address), nearest first."""
    best: list[tuple[float, int]] = []  # a heap of (-metres, -address): the farthest on top
    for gap_m, band in _bands_outward(latitude):
        bound = -best[0][0] if len(best) == limit else radius_m
        if gap_m > bound:
            break
        found = _in_reach(edition, band, latitude, longitude, bound)
        if not len(found):
            continue
        metres = distances_m(
            latitude,
            longitude,
            edition.latitudes[found] / DEGREE_UNITS,
            edition.longitudes[found] / DEGREE_UNITS,
        )
        for distance, address in zip(metres.tolist(), found.tolist(), strict=True):
            if distance > radius_m:
                continue
            entry = (-distance, -address)
            if len(best) < limit:
                heapq.heappush(best, entry)
            elif entry > best[0]:
                heapq.heapreplace(best, entry)
    return sorted((-distance, -address) for distance, address in best)


def _bands_outward(latitude: float) -> Iterator[tuple[float, int]]:
    """Bands by the least distance in metres that anything in them can have, nearest first."""
    units = round(latitude * DEGREE_UNITS)
    home = band_of(units)

    def gap(edge: int) -> float:
        return abs(units - (edge * BAND - 90 * DEGREE_UNITS)) / DEGREE_UNITS * _METRES_PER_DEGREE

    south = ((gap(band + 1), band) for band in range(home - 1, -1, -1))
    north = ((gap(band), band) for band in range(home + 1, BAND_COUNT))
    yield 0.0, home
    yield from heapq.merge(south, north)


def _in_reach(
    edition: Edition, band: int, latitude: float, longitude: float, bound_m: float
) -> npt.NDArray[np.uint32]:
    """Addresses of a band whose longitude lets them be within `bound_m`, also past 180°."""
    start, end = int(edition.band_starts[band]), int(edition.band_starts[band + 1])
    if start == end:
        return edition.band_order[start:end]
    span = _longitude_span(latitude, bound_m)
    order = edition.band_order[start:end]
    if span >= 180:
        return order
    longitudes = edition.longitudes[order]
    pieces = []
    for shift in (-360, 0, 360):
        low = (longitude - span + shift) * DEGREE_UNITS
        high = (longitude + span + shift) * DEGREE_UNITS
        first, last = np.searchsorted(longitudes, [low, high])
        if last > first or (first < len(longitudes) and longitudes[first] == high):
            pieces.append(order[first : np.searchsorted(longitudes, high, side="right")])
    return np.unique(np.concatenate(pieces)) if pieces else order[:0]


def _longitude_span(latitude: float, bound_m: float) -> float:
    """Degrees of longitude within which everything nearer than `bound_m` lies.

    On a cap of angular radius r around latitude φ: sin Δλ = sin r / cos φ, and every
    longitude where the cap holds a pole.
    """
    angle = bound_m / EARTH_RADIUS_M
    if angle >= math.pi / 2 - abs(math.radians(latitude)):
        return 180.0
    sine = math.sin(angle) / math.cos(math.radians(latitude))
    # One unit of slack each side covers the rounding of stored degrees.
    return math.degrees(math.asin(min(1.0, sine))) + 2 / DEGREE_UNITS
