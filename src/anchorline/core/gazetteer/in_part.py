"""Nodes that have most of the terms, the rarer ones above all: for pasted addresses."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np

from .arrays import NodeNumbers
from .candidates import NodeFilter, scan_for
from .edition import Edition
from .nodescan import NodeScan
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
    nodes = _candidates(edition, terms)
    if keep is not None:
        nodes = nodes[keep(nodes)]
    rarity = [np.log2(2 + edition.node_count_total / (1 + term.count)) for term in terms]
    held = scan.worth(nodes, np.array([term.token.width for term in terms], dtype=np.float64))
    enough = held >= max(2, LEAST_SHARE * typed)
    nodes = nodes[enough]
    if len(nodes):
        weight = scan.worth(nodes, np.array(rarity, dtype=np.float64))
        chosen = np.flatnonzero(weight >= weight.max() * NEAR_BEST)
        scan.keep_all(nodes[chosen[np.argsort(-weight[chosen], kind="stable")[:_MOST]]])
    return scan


def _candidates(edition: Edition, terms: Sequence[Term]) -> NodeNumbers:
    """The nodes of the rarest terms, as many terms as there is room for."""
    lists = [edition.head_nodes[:0]]
    room = MOST_LOOKED_AT
    for term in sorted((t for t in terms if t.spans), key=lambda term: term.count):
        if term.count > room:
            break
        room -= term.count
        lists += [edition.postings(*span) for span in term.spans]
    return np.unique(np.concatenate(lists))
