"""Nodes that have every term: from the rarest term's postings, checked against the others.

Nodes are numbered by weight, so postings come heaviest first; reading stops once enough nodes
have passed. Beginnings that very many words share are read from their heads alone.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass

import numpy as np

from .arrays import HEAVY
from .edition import Edition
from .found import Flags, Found, Nodes, in_sorted, joined, look_into
from .terms import Term

NodeFilter = Callable[[Nodes], Flags]

ENOUGH = 96
ENOUGH_OF_HEAD = 24
# So many nodes are quicker looked at one by one; and so many are not worth cutting down.
FEW = 32
_VERY_FEW = 6
# For so many nodes marking all that a term has in the whole edition does not pay.
_FEW_TO_MARK = 400
_FIRST_CHUNK = 512
_NUMBERED_ALONE = 64
_SLICE = 160
_NO_NODES = np.zeros(0, dtype=np.uint32)


def nodes_with_all(
    edition: Edition, terms: Sequence[Term], keep: NodeFilter | None, extra: Nodes | None = None
) -> Found | Nodes:
    """The heaviest nodes that have every term, one of them in their own name or as a number.

    Args:
        keep: which nodes are wanted at all.
        extra: nodes to look at in any case, where reading stops early.

    Returns:
        The nodes found, or where there are only a `FEW` that can be, these unseen.
    """
    by_count = sorted(terms, key=_cost)
    parts: list[Found] = []
    total = 0
    cut = False
    for part in _parts(edition, by_count, terms[-1]):
        nodes = narrowed(edition, part.nodes, part.unheld, keep)
        if part.last and not parts and len(nodes) <= FEW:
            return nodes
        first, size = 0, _SLICE
        while first < len(nodes):
            found = look_into(edition, nodes[first : first + size], terms).complete()
            total += len(found.nodes)
            parts.append(found)
            cut = not part.last or first + size < len(nodes)
            if total >= part.enough:
                break
            first, size = first + size, 4 * size
        if total >= part.enough:
            break
    if cut and extra is not None and len(extra):
        near = narrowed(edition, extra, terms, keep)
        parts.append(look_into(edition, near, terms).complete())
    if not parts:
        parts.append(look_into(edition, _NO_NODES, terms))
    return parts[0] if len(parts) == 1 else joined(parts)


def _cost(term: Term) -> float:
    """How much it costs to be led by a term: a sorted list can be cut short, others cannot."""
    one_list = len(term.spans) + len(term.inside) == 1
    if not one_list or (term.spans and term.spans[0][1] - term.spans[0][0] > 1):
        return float(term.count)
    return term.count if term.count < HEAVY else HEAVY + term.count / 8


def narrowed(
    edition: Edition, nodes: Nodes, others: Sequence[Term], keep: NodeFilter | None
) -> Nodes:
    """Nodes that are wanted, cut down by terms that are cheaply held against them."""
    if keep is not None:
        nodes = nodes[keep(nodes)]
    for term in others:
        if len(nodes) <= _VERY_FEW:
            break
        nodes = nodes[has_term(edition, nodes, term)]
    return nodes


@dataclass(slots=True)
class _Part:
    """Nodes to look at next.

    Attributes:
        unheld: the terms that they may not have.
        enough: with so many found, no others need to be looked at.
        last: whether there are no others.
    """

    nodes: Nodes
    unheld: Sequence[Term]
    enough: int
    last: bool


def _parts(edition: Edition, by_cost: Sequence[Term], begun: Term) -> Iterator[_Part]:
    """Nodes that the cheapest term has, in parts, heaviest first.

    Where even that one is common, the nodes come first which the unfinished one would bring
    alone: they are listed beforehand.
    """
    driver, others = by_cost[0], by_cost[1:]
    if driver.count > HEAVY and (begun.token.unfinished or not others):
        heads = [edition.head(*span) for span in begun.spans]
        if all(head is not None for head in heads) and (heads or not others):
            listed = [head for head in heads if head is not None]
            if not others:
                listed += [edition.numbered(number)[:_NUMBERED_ALONE] for number in begun.inside]
            nodes = listed[0] if len(listed) == 1 else np.unique(np.concatenate(listed))
            yield _Part(nodes, by_cost if others else (), ENOUGH_OF_HEAD if others else 0, False)
            if not others:
                return
    nodes = _all_nodes(edition, driver)
    if len(nodes) <= 2 * _FIRST_CHUNK:
        yield _Part(nodes, others, ENOUGH, True)
        return
    first, size = 0, _FIRST_CHUNK
    while first < len(nodes):
        end = first + size
        yield _Part(nodes[first:end], others, ENOUGH, end >= len(nodes))
        first, size = end, min(size * 4, 8192)


def _all_nodes(edition: Edition, term: Term) -> Nodes:
    """All nodes of a term, ascending and distinct."""
    lists = [edition.postings(*span) for span in term.spans]
    lists += [edition.numbered(number) for number in term.inside]
    if len(lists) == 1 and (not term.spans or term.spans[0][1] - term.spans[0][0] == 1):
        return lists[0]
    sorted_nodes = np.sort(lists[0] if len(lists) == 1 else np.concatenate(lists))
    if len(sorted_nodes) < 2:
        return sorted_nodes
    kept = np.empty(len(sorted_nodes), dtype=np.bool_)
    kept[0] = True
    np.not_equal(sorted_nodes[1:], sorted_nodes[:-1], out=kept[1:])
    return sorted_nodes[kept]


def has_term(edition: Edition, nodes: Nodes, term: Term) -> Flags:
    """Which nodes have a term, as a word, a postcode or a number inside."""
    if term.marked is None:
        lists = [edition.postings(*span) for span in term.spans if span[1] - span[0] == 1]
        lists += [edition.numbered(number) for number in term.inside]
        if len(lists) == 1 and len(term.spans) + len(term.inside) == 1:
            if len(nodes) < _FEW_TO_MARK:
                return in_sorted(lists[0], nodes)
        elif len(nodes) < _FEW_TO_MARK + term.count // 20:
            found: Flags = look_into(edition, nodes, [term]).has()[0]
            return found
        term.marked = np.zeros(edition.node_count_total, dtype=np.bool_)
        for span in term.spans:
            term.marked[edition.postings(*span)] = True
        for number in term.inside:
            term.marked[edition.numbered(number)] = True
    return term.marked.take(nodes)
