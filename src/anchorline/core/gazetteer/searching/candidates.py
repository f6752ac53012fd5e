"""Nodes that have every term: from the rarest term's postings, checked against the others.

Nodes are numbered by weight, so postings come heaviest first; reading stops once enough nodes
have passed. Beginnings that very many words share are read from their heads alone.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass

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
    cut = False
    for part in _parts(edition, scan, terms):
        nodes = part.nodes if keep is None else part.nodes[keep(part.nodes)]
        found = scan.through(nodes, part.known, part.enough)
        cut = not part.last or found >= part.enough > 0
        if found >= part.enough:
            break
    if cut and extra is not None and len(extra):
        scan.through(extra if keep is None else extra[keep(extra)])
    return scan


def scan_for(edition: Edition, terms: Sequence[Term]) -> NodeScan:
    """A scan for these terms that has not looked at any node yet."""
    return NodeScan(edition.scanned, terms, number_side([term.token for term in terms]))


@dataclass(slots=True)
class _Part:
    """Nodes to look at next.

    Attributes:
        known: the place of the term that they are known to have.
        enough: with so many found, no others need to be looked at; 0: all are looked at.
        last: whether there are no others.
    """

    nodes: NodeNumbers
    known: int
    enough: int
    last: bool


def _parts(edition: Edition, scan: NodeScan, terms: Sequence[Term]) -> Iterator[_Part]:
    """Nodes that the cheapest term has, heaviest first.

    Where even that one is common, the nodes come first which the unfinished one would bring
    alone: they are listed beforehand.
    """
    costs = [term.cost for term in terms]
    driver = costs.index(min(costs))
    begun, alone = terms[-1], len(terms) == 1
    if terms[driver].count > HEAVY and (begun.token.unfinished or alone):
        heads = [edition.head(*span) for span in begun.spans]
        if all(head is not None for head in heads) and (heads or alone):
            listed = [head for head in heads if head is not None]
            if alone:
                listed += [edition.numbered(number)[:_NUMBERED_ALONE] for number in begun.inside]
            nodes = listed[0] if len(listed) == 1 else distinct_sorted(np.concatenate(listed))
            yield _Part(nodes, len(terms) - 1, 0 if alone else ENOUGH_OF_HEAD, last=False)
            if alone:
                return
    yield _Part(scan.all_of(driver), driver, ENOUGH, last=True)
