"""The rule of `nodelook` in plain Python, node by node: what the compiled one is held against."""

from __future__ import annotations

from bisect import bisect_left, bisect_right
from collections.abc import Sequence
from math import log2

from anchorline.core.gazetteer.arrays import FIELD_BITS, Field, NodeNumbers
from anchorline.core.gazetteer.edition import Edition
from anchorline.core.gazetteer.ranking import (
    BEGUN_SHARE,
    COVERAGE_WEIGHT,
    EXACT_WEIGHT,
    FIELD_WEIGHT,
    NUMBER_WEIGHT,
    ORDER_WEIGHT,
    POSTCODE_WEIGHT,
    SIZE_WEIGHT,
    SPELT_WEIGHT,
    START_WEIGHT,
    WRITTEN_WEIGHT,
)
from anchorline.core.gazetteer.searching.ranked import Ranked
from anchorline.core.gazetteer.searching.terms import Term, number_side

_FIELD = (1 << FIELD_BITS) - 1
# Plain numbers: comparing members of an enumeration costs several times as much.
_NAME = int(Field.NAME)
_NOWHERE = -9


class _Place:
    """A term made ready for looking at cells one by one."""

    __slots__ = ("_edition", "_posting", "ends", "numbered", "starts", "term", "units", "whole")

    def __init__(self, edition: Edition, term: Term) -> None:
        spans = _disjoint(term.spans)
        self.term = term
        self.starts = [first << FIELD_BITS for first, _ in spans]
        self.ends = [end << FIELD_BITS for _, end in spans]
        self.whole = frozenset(term.whole)
        self.numbered = edition.numbered(term.number).data if term.number >= 0 else None
        ends = edition.number_posting_ends_at
        start = ends[term.number - 1] if term.number > 0 else 0
        self._posting, self._edition = (start, ends[term.number]), edition
        self.units = edition.numbered(term.unit).data if term.unit >= 0 else None

    def column(self, cells: Sequence[int]) -> int:
        """The first cell with one of the term's words, or _NOWHERE."""
        starts, ends = self.starts, self.ends
        if len(starts) == 1:
            first, end = starts[0], ends[0]
            for column, code in enumerate(cells):
                if first <= code < end:
                    return column
            return _NOWHERE
        for column, code in enumerate(cells):
            place = bisect_right(starts, code)
            if place and code < ends[place - 1]:
                return column
        return _NOWHERE

    def whole_words(self, cells: Sequence[int]) -> int:
        """How many whole words the term is in a row that has it."""
        term = self.term
        if term.edits:
            return 0
        if not term.token.unfinished and len(term.whole) == len(term.spans):
            return 1
        return sum(1 for word in self.whole if _has_word(cells, word))

    def count_at(self, node: int) -> int:
        """How many of a node's addresses have the street number."""
        first, end = self._posting
        place = first + bisect_left(self.numbered, node)
        assert place < end
        return int(self._edition.arrays["number_posting_counts"][place])

    def has_whole(self, cells: Sequence[int]) -> bool:
        """Whether the row has one of the words that are typed whole."""
        return not self.term.edits and any(_has_word(cells, word) for word in self.whole)

    def holds(self, code: int) -> bool:
        """Whether a cell is one of the term's words."""
        place = bisect_right(self.starts, code)
        return place > 0 and code < self.ends[place - 1]


def _disjoint(spans: Sequence[tuple[int, int]]) -> list[tuple[int, int]]:
    """Ranges in order, those that overlap made one."""
    found: list[tuple[int, int]] = []
    for first, end in sorted(spans):
        if found and first < found[-1][1]:
            found[-1] = (found[-1][0], max(end, found[-1][1]))
        else:
            found.append((first, end))
    return found


def look_at_few(edition: Edition, nodes: NodeNumbers, terms: Sequence[Term]) -> list[Ranked]:
    """The nodes that have every term, one of them in their own name or as a number, scored."""
    look = _Look(edition, terms)
    rows = edition.node_words.take(nodes, axis=0).tolist()
    found = [
        ranked
        for node, cells in zip(nodes.tolist(), rows, strict=True)
        if (ranked := look.at(node, cells)) is not None
    ]
    found.sort(key=lambda ranked: -ranked.score)
    return found


class _Look:
    """Terms made ready to be looked for in one node after the other."""

    def __init__(self, edition: Edition, terms: Sequence[Term]) -> None:
        self._edition = edition
        self._places = [_Place(edition, term) for term in terms]
        # The rarest term brought the nodes here; of the others the rarer ones fail sooner.
        self._order = sorted(range(len(terms)), key=lambda i: terms[i].count)
        self._order.append(self._order.pop(0))
        self._nothing = len(edition.words) << FIELD_BITS
        self._side = number_side([term.token for term in terms])
        self._number_first = edition.number_first.tolist()

    def at(self, node: int, cells: list[int]) -> Ranked | None:
        """The node with its score, or None where it lacks a term."""
        if cells[-1] == self._nothing:
            cells = cells[: cells.index(self._nothing)]
        places = self._places
        columns = [_NOWHERE] * len(places)
        numbers = [0] * len(places)
        for i in self._order:
            place = places[i]
            columns[i] = place.column(cells)
            if place.numbered is not None and _stands_in(place.numbered, node):
                numbers[i] = 2
            elif place.units is not None and _stands_in(place.units, node):
                numbers[i] = 1
            if columns[i] < 0 and not numbers[i] and not _inside(self._edition, node, place.term):
                return None
        if not any(numbers) and not any(
            place.holds(code) and code & _FIELD >= Field.NAME_ALSO
            for place in places
            for code in cells
        ):
            return None
        return self._scored(node, cells, columns, numbers)

    def _scored(
        self, node: int, cells: list[int], columns: list[int], numbers: list[int]
    ) -> Ranked:
        edition = self._edition
        names = _names(cells)
        words = whole = in_order = spelt = size = 0.0
        covering = [0.0] * len(names)
        start = numbered = False
        before: set[tuple[int, int]] = set()
        narrowing: list[Term] = []
        for place, column, number in zip(self._places, columns, numbers, strict=True):
            at: set[tuple[int, int]] = set()
            if column >= 0:
                best = min(_best_field(place, cells), _NAME) * FIELD_WEIGHT
                at = {
                    (name, token)
                    for name, tokens in enumerate(names)
                    for token, forms in enumerate(tokens)
                    if any(map(place.holds, forms))
                }
                start = start or any(token == 0 for _, token in at)
                for name in {name for name, _ in at}:
                    whole_word = not place.term.token.unfinished or place.has_whole(cells)
                    covering[name] += 1 if whole_word else BEGUN_SHARE
                whole += place.whole_words(cells)
                spelt += any(
                    first <= code >> FIELD_BITS < end
                    for code in cells
                    for first, end in place.term.spelt
                )
            else:
                best = number * NUMBER_WEIGHT / 2 if number else POSTCODE_WEIGHT
                narrowing.append(place.term)
                numbered = numbered or number > 0
                whole += number > 0
                if number == 2:
                    size += SIZE_WEIGHT * log2(place.count_at(node))
            words += best * place.term.token.width
            in_order += any((name, token - 1) in before for name, token in at)
            before = at
        written = self._side == self._number_first[edition.node_country_at[node]]
        shares = [count / len(name) for count, name in zip(covering, names, strict=True)]
        parts = (
            words,
            whole * EXACT_WEIGHT,
            min(max(shares, default=0), 1.0) * COVERAGE_WEIGHT,
            start * START_WEIGHT,
            in_order * ORDER_WEIGHT,
            written * WRITTEN_WEIGHT,
            spelt * SPELT_WEIGHT,
            float(edition.node_weight[node]) + size,
        )
        return Ranked(node, sum(parts), narrowing, numbered)


def _names(cells: Sequence[int]) -> list[list[list[int]]]:
    """A node's own names, each as tokens, each of these as the cells of its forms."""
    names: list[list[list[int]]] = []
    for code in cells:
        field = code & _FIELD
        if field == Field.NAME_START:
            names.append([[code]])
        elif field == Field.NAME:
            names[-1].append([code])
        elif field == Field.NAME_ALSO:
            names[-1][-1].append(code)
    return names


def _best_field(place: _Place, cells: Sequence[int]) -> int:
    """The greatest field in which the term stands; any form of a name's word is its name."""
    fields = [code & _FIELD for code in cells if place.holds(code)]
    return max(_NAME if field == Field.NAME_ALSO else field for field in fields)


def _has_word(cells: Sequence[int], word: int) -> bool:
    return any(code >> FIELD_BITS == word for code in cells)


def _inside(edition: Edition, node: int, term: Term) -> bool:
    """Whether a term stands for a postcode inside, or for a word its row has no room for."""
    if not term.postcode and not (
        len(edition.crowded_nodes) and _stands_in(edition.crowded_nodes.data, node)
    ):
        return False
    for first, end in term.spans:
        if end - first == 1:
            if _stands_in(edition.postings(first, end).data, node):
                return True
        elif (edition.postings(first, end) == node).any():
            return True
    return False


def _stands_in(ascending: memoryview, number: int) -> bool:
    place = bisect_left(ascending, number)
    return place < len(ascending) and ascending[place] == number
