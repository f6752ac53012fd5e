"""Where terms stand in nodes: the rows of words of many nodes, held against all terms at once."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np
import numpy.typing as npt

from .arrays import FIELD_BITS, Field
from .edition import Edition
from .terms import Term

Nodes = npt.NDArray[np.uint32]
Flags = npt.NDArray[np.bool_]
Fields = npt.NDArray[np.uint8]

FIELD_MASK = np.uint32((1 << FIELD_BITS) - 1)
_NOTHING, _NAME = np.uint8(Field.NOTHING), np.uint8(Field.NAME)
_STREET_NUMBER = np.uint8(2)
_FIELD_SHIFT = np.uint32(FIELD_BITS)
_MOST_SPANS = 6
# Letters that begin more words than this are not looked for among postcodes.
_MOST_MARKED = 4096


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
    """

    nodes: Nodes
    words: Nodes
    hits: Flags
    best: Fields
    numbers: Fields | None
    postcodes: Flags | None

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


def joined(parts: Sequence[Found]) -> Found:
    """Several finds of the same terms as one, each node once."""
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
