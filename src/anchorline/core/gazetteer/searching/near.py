"""Searching near a point: the nodes near it, and the distance of others."""

from __future__ import annotations

import numpy as np
import numpy.typing as npt

from ..arrays import DEGREE_UNITS, NO_DEGREES, NodeNumbers
from ..edition import Edition
from ..nearest import distances_m, nearest_addresses
from ..ranking import nearness

NEAR_ADDRESSES = 300
NEAR_RADIUS_M = 20_000.0


def nodes_near(edition: Edition, latitude: float, longitude: float) -> NodeNumbers:
    """The nodes inside streets, and the streets, of the nearest addresses, ascending."""
    found = nearest_addresses(edition, latitude, longitude, NEAR_ADDRESSES, NEAR_RADIUS_M)
    if not found:
        return edition.head_nodes[:0]
    streets = {edition.street_of(address) for _, address in found}
    anchors = edition.node_anchor[edition.anchor_order]
    nodes: list[NodeNumbers] = []
    for street in streets:
        bounds = [edition.node_first_at[street], edition.node_end_at[street]]
        low, high = np.searchsorted(anchors, np.array(bounds, dtype=np.uint32))
        nodes.append(edition.anchor_order[low:high])
    return np.unique(np.concatenate(nodes))


def nearness_of(
    edition: Edition, nodes: NodeNumbers, near: tuple[float, float]
) -> npt.NDArray[np.float32]:
    """What it is worth that nodes are near a latitude and longitude (degrees)."""
    anchors = edition.node_anchor[nodes]
    latitudes, longitudes = edition.latitudes[anchors], edition.longitudes[anchors]
    known = (latitudes != NO_DEGREES) & (longitudes != NO_DEGREES)
    metres = distances_m(near[0], near[1], latitudes / DEGREE_UNITS, longitudes / DEGREE_UNITS)
    return nearness(np.where(known, metres, np.inf))
