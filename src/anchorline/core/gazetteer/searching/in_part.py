"""The nodes that have most of the terms, rare terms counting more: for pasted addresses."""

from __future__ import annotations

import math
from collections.abc import Sequence

import numpy as np

from ..compiled.nodescan import NodeScan
from ..edition import Edition
from .candidates import NodeFilter, scan_for
from .terms import Term

MOST_LOOKED_AT = 3000
LEAST_SHARE = 0.5
# Nodes this near to the best weight are kept, for the ranking to order.
NEAR_BEST = 0.85
_MOST = 64


def nodes_in_part(
    edition: Edition, terms: Sequence[Term], typed: int, keep: NodeFilter | None
) -> NodeScan:
    """A scan that has kept the nodes with the greatest weight of terms.

    They have at least LEAST_SHARE of the typed tokens. A term weighs as the logarithm of how few
    nodes have it (inverse document frequency).
    """
    scan = scan_for(edition, terms)
    nodes = scan.all_of(*_rarest(terms))
    if keep is not None:
        nodes = nodes[keep(nodes)]
    widths = [float(term.token.width) for term in terms]
    rarity = [math.log2(2 + edition.node_count_total / (1 + term.count)) for term in terms]
    held, weight = scan.worth(nodes, np.array([widths, rarity]))
    enough = held >= max(2, LEAST_SHARE * typed)
    if enough.any():
        chosen = np.flatnonzero(enough & (weight >= weight[enough].max() * NEAR_BEST))
        scan.keep_all(nodes[chosen[np.argsort(-weight[chosen], kind="stable")[:_MOST]]])
    return scan


def _rarest(terms: Sequence[Term]) -> list[int]:
    """The places of the rarest terms, as many as there is room for."""
    chosen: list[int] = []
    room = MOST_LOOKED_AT
    for place in sorted(range(len(terms)), key=lambda place: terms[place].count):
        if terms[place].spans:
            room -= terms[place].count
            if room < 0:
                break
            chosen.append(place)
    return chosen
