"""Nodes that have every term: from the rarest term's postings, checked against the others.

Nodes are numbered by weight, so postings come heaviest first; reading stops once enough nodes
have passed. Beginnings that very many words share are read from their heads alone.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np
import numpy.typing as npt

from .arrays import FIELD_BITS, HEAVY, Field
from .edition import Edition
from .terms import Term

Nodes = npt.NDArray[np.uint32]
Flags = npt.NDArray[np.bool_]
Fields = npt.NDArray[np.uint8]
NodeFilter = Callable[[Nodes], Flags]

ENOUGH = 96
ENOUGH_OF_HEAD = 24
_FIRST_CHUNK = 512
# So many nodes are quicker looked at one by one; and so many are not worth cutting down.
FEW = 32
_VERY_FEW = 6
_MOST_SPANS = 6
# For so many nodes marking all that a term has in the whole edition does not pay.
_FEW_TO_MARK = 400
_NUMBERED_ALONE = 64
# Letters that begin more words than this are not looked for among postcodes.
_MOST_MARKED = 4096
_SLICE = 160
_NO_NODES = np.zeros(0, dtype=np.uint32)
# So many nodes are quicker looked at one by one; and so many are not worth cutting down.
FEW = 32
_VERY_FEW = 6
_MOST_SPANS = 6
# Marking all nodes of a term pays unless it has this many times more than are to be checked.
_MANY_TO_MARK = 24
FIELD_MASK = np.uint32((1 << FIELD_BITS) - 1)
_NOTHING, _NAME = np.uint8(Field.NOTHING), np.uint8(Field.NAME)
_STREET_NUMBER = np.uint8(2)
_FIELD_SHIFT = np.uint32(FIELD_BITS)


@dataclass(slots=True)
class Found:
    """Nodes with where each term stands in them.

    Attributes:
        nodes: ascending.
        words: width × node, the columns of their rows of words.
        hits: term × width × node, which of these cells are a term's words.
        best: term × node, the greatest `Field` in which the term stands.
        numbers: term × node, 2 where a term stands for a street number inside, 1 for a unit;
            None: nowhere.
        postcodes: term × node, where a term stands for a postcode inside; None: nowhere.
        cut: whether lighter nodes were left unread.
    """

    nodes: Nodes
    words: Nodes
    hits: Flags
    best: Fields
    numbers: Fields | None
    postcodes: Flags | None
    cut: bool = False

    def only(self, kept: Flags | npt.NDArray[np.integer]) -> Found:
        """The same for some of the nodes."""
        chosen = kept.nonzero()[0] if kept.dtype == np.bool_ else kept
        if len(chosen) == len(self.nodes):
            return self
        return Found(
            self.nodes.take(chosen),
            self.words.take(chosen, axis=1),
            self.hits.take(chosen, axis=2),
            self.best.take(chosen, axis=1),
            None if self.numbers is None else self.numbers.take(chosen, axis=1),
            None if self.postcodes is None else self.postcodes.take(chosen, axis=1),
            self.cut,
        )

    def has(self) -> Flags:
        """Term × node: whether the node has the term in any way."""
        found = np.not_equal(self.best, _NOTHING)
        if self.numbers is not None:
            found |= self.numbers.view(np.bool_)
        if self.postcodes is not None:
            found |= self.postcodes
        return found

    def complete(self) -> Found:
        """Those nodes alone that have every term, one of them in their own name or as a number."""
        passed = np.logical_and.reduce(self.has(), axis=0)
        own = np.greater_equal(np.maximum.reduce(self.best, axis=0), _NAME)
        if self.numbers is not None:
            own |= np.not_equal(np.maximum.reduce(self.numbers, axis=0), _NOTHING)
        passed &= own
        return self.only(passed)


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
    found = parts[0] if len(parts) == 1 else _joined(parts)
    found.cut = cut
    return found


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


def _joined(parts: Sequence[Found]) -> Found:
    nodes, first = np.unique(np.concatenate([part.nodes for part in parts]), return_index=True)

    def flags(one: Callable[[Found], Any]) -> Any:
        some = [found for part in parts if (found := one(part)) is not None]
        return np.concatenate(some, axis=1)[:, first] if some else None

    return Found(
        nodes,
        np.concatenate([part.words for part in parts], axis=1)[:, first],
        np.concatenate([part.hits for part in parts], axis=2)[:, :, first],
        np.concatenate([part.best for part in parts], axis=1)[:, first],
        flags(lambda part: part.numbers),
        flags(lambda part: part.postcodes),
    )


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
    joined = np.sort(lists[0] if len(lists) == 1 else np.concatenate(lists))
    if len(joined) < 2:
        return joined
    kept = np.empty(len(joined), dtype=np.bool_)
    kept[0] = True
    np.not_equal(joined[1:], joined[:-1], out=kept[1:])
    return joined[kept]


def look_into(edition: Edition, nodes: Nodes, terms: Sequence[Term]) -> Found:
    """Nodes with where each term stands in them, whether or not they have it."""
    words = np.ascontiguousarray(edition.node_words.take(nodes, axis=0).T)
    hits = word_hits(edition, words, terms)
    fields = (words & FIELD_MASK).astype(np.uint8)
    best = np.maximum.reduce(hits.view(np.uint8) * fields, axis=1)
    numbers = postcodes = None
    shape = (len(terms), len(nodes))
    crowded = len(edition.crowded_nodes) > 0
    for place, term in enumerate(terms):
        if term.inside:
            numbers = np.zeros(shape, dtype=np.uint8) if numbers is None else numbers
            numbers[place] = _number_inside(edition, nodes, term)
        common = term.count > _MOST_MARKED and term.token.text.isalpha()
        if term.spans and (crowded or (term.postcode and not common)):
            postcodes = np.zeros(shape, dtype=np.bool_) if postcodes is None else postcodes
            postcodes[place] = _postcode_inside(edition, nodes, term)
    return Found(nodes, words, hits, best, numbers, postcodes)


def _number_inside(edition: Edition, nodes: Nodes, term: Term) -> Fields:
    """2 for the nodes inside which a term is a street number, 1 where it is but a unit."""
    if term.number < 0:
        return in_sorted(edition.numbered(term.unit), nodes).view(np.uint8)
    number = in_sorted(edition.numbered(term.number), nodes).view(np.uint8) * _STREET_NUMBER
    if term.unit >= 0:
        unit = in_sorted(edition.numbered(term.unit), nodes).view(np.uint8)
        number = np.maximum(number, unit)
    return number


def _postcode_inside(edition: Edition, nodes: Nodes, term: Term) -> Flags:
    """Which nodes have a term among postcodes, or words, that their rows do not show."""
    wanted = None if term.postcode else in_sorted(edition.crowded_nodes, nodes)
    if wanted is not None and not wanted.any():
        return wanted
    inside = np.zeros(len(nodes), dtype=np.bool_)
    for span in term.spans:
        inside |= among(edition, nodes, *span)
    return inside if wanted is None else inside & wanted


def has_term(edition: Edition, nodes: Nodes, term: Term) -> Flags:
    """Which nodes have a term, as a word, a postcode or a number inside."""
    if term.marked is None:
        lists = [edition.postings(*span) for span in term.spans if span[1] - span[0] == 1]
        lists += [edition.numbered(number) for number in term.inside]
        if len(lists) == 1 and len(term.spans) + len(term.inside) == 1:
            if len(nodes) < _FEW_TO_MARK:
                return in_sorted(lists[0], nodes)
        elif len(nodes) < _FEW_TO_MARK + term.count // 20:
            return look_into(edition, nodes, [term]).has()[0]
        term.marked = np.zeros(edition.node_count_total, dtype=np.bool_)
        for span in term.spans:
            term.marked[edition.postings(*span)] = True
        for number in term.inside:
            term.marked[edition.numbered(number)] = True
    return term.marked.take(nodes)


def word_hits(edition: Edition, words: Nodes, terms: Sequence[Term]) -> Flags:
    """Term × width × node: which cells of columns of words are one of each term's words."""
    if all(len(term.spans) < 2 for term in terms):
        pairs = [term.spans[0] if term.spans else (0, 0) for term in terms]
        spans = np.array(pairs, dtype=np.uint32) << _FIELD_SHIFT
        first, width = spans[:, :1, None], (spans[:, 1:] - spans[:, :1])[:, :, None]
        return np.less(words - first, width)
    hits = np.zeros((len(terms), *words.shape), dtype=np.bool_)
    for place, term in enumerate(terms):
        if len(term.spans) > _MOST_SPANS:
            table = np.zeros(len(edition.words) + 1, dtype=np.bool_)
            for start, end in term.spans:
                table[start:end] = True
            hits[place] = table[words >> _FIELD_SHIFT]
            continue
        for start, end in term.spans:
            hits[place] |= (words - (start << FIELD_BITS)) < ((end - start) << FIELD_BITS)
    return hits


def among(edition: Edition, nodes: Nodes, first: int, end: int) -> Flags:
    """Which nodes are among the postings of the words [first, end)."""
    postings = edition.postings(first, end)
    if end - first == 1:
        return in_sorted(postings, nodes)
    if len(postings) > 64:
        marked = np.zeros(edition.node_count_total, dtype=np.bool_)
        marked[postings] = True
        return marked[nodes]
    return in_sorted(np.sort(postings), nodes)


def in_sorted(ascending: Nodes, wanted: Nodes) -> Flags:
    """Which of the wanted numbers stand in an ascending list."""
    if not len(ascending):
        return np.zeros(len(wanted), dtype=np.bool_)
    place = ascending.searchsorted(wanted)
    found: Flags = ascending.take(place, mode="clip") == wanted
    return found
