"""Nodes near a point: looked at in any case where `near` is asked for and words are common."""

from __future__ import annotations

import numpy as np

from .edition import Edition
from .found import Nodes
from .nearest import nearest_addresses

NEAR_ADDRESSES = 300
NEAR_RADIUS_M = 20_000.0


def nodes_near(edition: Edition, latitude: float, longitude: float) -> Nodes:
    """The nodes inside streets, and the streets, of the nearest addresses, ascending."""
    found = nearest_addresses(edition, latitude, longitude, NEAR_ADDRESSES, NEAR_RADIUS_M)
    if not found:
        return edition.head_nodes[:0]
    streets = {edition.street_of(address) for _, address in found}
    anchors = edition.node_anchor[edition.anchor_order]
    nodes: list[Nodes] = []
    for street in streets:
        bounds = [edition.node_first_at[street], edition.node_end_at[street]]
        low, high = np.searchsorted(anchors, np.array(bounds, dtype=np.uint32))
        nodes.append(edition.anchor_order[low:high])
    return np.unique(np.concatenate(nodes))
