"""Nodes that have most of the terms, the rarer ones above all: for pasted addresses."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np

from .candidates import NodeFilter
from .edition import Edition
from .found import Found, Nodes, look_into
from .terms import Term

MOST_LOOKED_AT = 3000
LEAST_SHARE = 0.5
# Nodes this near to the best weight are kept, for the ranking to order.
NEAR_BEST = 0.85
_MOST = 64


def nodes_in_part(
    edition: Edition, terms: Sequence[Term], typed: int, keep: NodeFilter | None
) -> Found | None:
    """The nodes with the greatest weight of terms, at least LEAST_SHARE of the typed tokens.

    A term weighs as the logarithm of how few nodes have it (inverse document frequency).
    """
    if not terms:
        return None
    nodes = _candidates(edition, terms)
    if keep is not None:
        nodes = nodes[keep(nodes)]
    found = look_into(edition, nodes, terms)
    has = found.has()
    rarity = [np.log2(2 + edition.node_count_total / (1 + term.count)) for term in terms]
    weight = np.array(rarity, dtype=np.float32) @ has
    held = np.array([term.token.width for term in terms]) @ has
    enough = held >= max(2, LEAST_SHARE * typed)
    if not enough.any():
        return found.only(enough)
    chosen = np.flatnonzero(enough & (weight >= weight[enough].max() * NEAR_BEST))
    heaviest = np.sort(chosen[np.argsort(-weight[chosen], kind="stable")[:_MOST]])
    return found.only(heaviest)


def _candidates(edition: Edition, terms: Sequence[Term]) -> Nodes:
    """The nodes of the rarest terms, as many terms as there is room for."""
    lists = [edition.head_nodes[:0]]
    room = MOST_LOOKED_AT
    for term in sorted((t for t in terms if t.spans), key=lambda term: term.count):
        if term.count > room:
            break
        room -= term.count
        lists += [edition.postings(*span) for span in term.spans]
    return np.unique(np.concatenate(lists))
