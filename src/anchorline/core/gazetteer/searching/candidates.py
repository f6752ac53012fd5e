"""The nodes that have every term: those of the rarest term, checked against the other terms.

Nodes are numbered by weight, so postings are sorted by weight and reading stops once enough nodes
have passed. For a beginning that very many words share, only its list of heaviest nodes (`heads`)
is read.
"""

from __future__ import annotations

from collections.abc import Callable, Sequence

import numpy as np

from ..arrays import HEAVY, Flags, NodeNumbers, distinct_sorted
from ..compiled.nodescan import NodeScan
from ..edition import Edition
from .terms import Term, number_side

NodeFilter = Callable[[NodeNumbers], Flags]

ENOUGH = 512
ENOUGH_OF_HEAD = 256
_NUMBERED_ALONE = 64


def nodes_with_all(
    edition: Edition,
    terms: Sequence[Term],
    keep: NodeFilter | None,
    extra: NodeNumbers | None = None,
) -> NodeScan:
    """A scan that has kept the heaviest nodes that have every term.

    One of the terms they have in their own name or as a number.

    Args:
        keep: which nodes are wanted at all.
        extra: nodes to look at in any case, where reading stops early.
    """
    scan = scan_for(edition, terms)
    costs = [term.cost for term in terms]
    driver = costs.index(min(costs))
    head = _head(edition, terms) if terms[driver].count > HEAVY else None
    if head is not None:
        enough = ENOUGH_OF_HEAD if len(terms) > 1 else 0
        head = head if keep is None else head[keep(head)]
        cut = scan.through(head, len(terms) - 1, enough) >= enough
    if head is None or not cut:
        if keep is None:
            found = scan.through_all_of(driver, ENOUGH)
        else:
            nodes = scan.all_of(driver)
            found = scan.through(nodes[keep(nodes)], driver, ENOUGH)
        cut = found >= ENOUGH
    if cut and extra is not None and len(extra):
        scan.through(extra if keep is None else extra[keep(extra)])
    return scan


def scan_for(edition: Edition, terms: Sequence[Term]) -> NodeScan:
    """A scan for these terms that has not looked at any node yet."""
    return NodeScan(edition.scanned, terms, number_side([term.token for term in terms]))


def _head(edition: Edition, terms: Sequence[Term]) -> NodeNumbers | None:
    """The nodes that the unfinished term, or the only one, would bring alone, where listed.

    Where even the rarest term is common, they are looked at first.
    """
    begun, alone = terms[-1], len(terms) == 1
    if not (begun.token.unfinished or alone):
        return None
    listed: list[NodeNumbers] = []
    for span in begun.spans:
        head = edition.head(*span)
        if head is None:
            return None
        listed.append(head)
    if alone:
        listed += [edition.numbered(number)[:_NUMBERED_ALONE] for number in begun.inside]
    if len(listed) < 2:
        return listed[0] if listed else None
    return distinct_sorted(np.concatenate(listed))
