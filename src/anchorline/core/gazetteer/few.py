"""The same as `candidates` and `scoring`, node by node, for a handful of nodes.

Arrays are quick for many nodes, but each operation on them costs as much as looking at a whole
node does here. This is also the plain statement of the rule that both follow; a test holds the
two together.
"""

from __future__ import annotations

from bisect import bisect_left, bisect_right
from collections.abc import Sequence

from .arrays import FIELD_BITS, Field
from .edition import Edition
from .found import Nodes
from .ranked import Ranked
from .ranking import (
    COVERAGE_WEIGHT,
    EXACT_WEIGHT,
    FIELD_WEIGHT,
    NUMBER_WEIGHT,
    ORDER_WEIGHT,
    POSTCODE_WEIGHT,
    START_WEIGHT,
    WRITTEN_WEIGHT,
    number_side,
)
from .terms import Term

_FIELD = (1 << FIELD_BITS) - 1
_NOWHERE = -9


class _Place:
    """A term made ready for looking at cells one by one."""

    __slots__ = ("ends", "numbered", "starts", "term", "units", "whole")

    def __init__(self, edition: Edition, term: Term) -> None:
        spans = _disjoint(term.spans)
        self.term = term
        self.starts = [first << FIELD_BITS for first, _ in spans]
        self.ends = [end << FIELD_BITS for _, end in spans]
        self.whole = frozenset(term.whole)
        self.numbered = edition.numbered(term.number).data if term.number >= 0 else None
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


def look_at_few(edition: Edition, nodes: Nodes, terms: Sequence[Term]) -> list[Ranked]:
    """The nodes that have every term, one of them in their own name or as a number, scored."""
    places = [_Place(edition, term) for term in terms]
    # The rarest term brought the nodes here; of the others the rarer ones fail sooner.
    order = sorted(range(len(terms)), key=lambda i: terms[i].count)
    order.append(order.pop(0))
    rows = edition.node_words.take(nodes, axis=0).tolist()
    nothing = len(edition.words) << FIELD_BITS
    found = [
        ranked
        for node, cells in zip(nodes.tolist(), rows, strict=True)
        if (ranked := _look_at(edition, node, _filled(cells, nothing), places, order)) is not None
    ]
    found.sort(key=lambda ranked: -ranked.score)
    return found


def _filled(cells: list[int], nothing: int) -> list[int]:
    """The cells of a row that hold words."""
    return cells[: cells.index(nothing)] if cells[-1] == nothing else cells


def explain(edition: Edition, node: int, terms: Sequence[Term]) -> dict[str, float]:
    """What the score of a node that has every term is made of, nearness left out."""
    places = [_Place(edition, term) for term in terms]
    cells = edition.node_words[node].tolist()
    found = _look_at(edition, node, cells, places, list(range(len(terms))), explain=True)
    return {} if found is None else {name: round(v, 2) for name, v in found.parts.items()}


def _look_at(
    edition: Edition, node: int, cells: list[int], places: list[_Place], order: list[int],
    *, explain: bool = False,
) -> Ranked | None:  # fmt: skip
    count = len(places)
    columns = [_NOWHERE] * count
    numbers = [0] * count
    for i in order:
        place = places[i]
        columns[i] = place.column(cells)
        if place.numbered is not None and _stands_in(place.numbered, node):
            numbers[i] = 2
        elif place.units is not None and _stands_in(place.units, node):
            numbers[i] = 1
        if columns[i] < 0 and not numbers[i] and not _inside(edition, node, place.term):
            return None
    if not any(numbers) and not any(c >= 0 and cells[c] & _FIELD >= Field.NAME for c in columns):
        return None
    return _scored(edition, node, cells, places, columns, numbers, explain=explain)


def _scored(
    edition: Edition, node: int, cells: list[int], places: list[_Place], columns: list[int],
    numbers: list[int], *, explain: bool,
) -> Ranked:  # fmt: skip
    words = whole = in_order = 0.0
    named = 0
    start = False
    before: _Place | None = None
    narrowing: list[Term] = []
    numbered = False
    for place, column, number in zip(places, columns, numbers, strict=True):
        term = place.term
        own = False
        if column >= 0:
            field = _best_field(place, cells, column)
            best = min(field, Field.NAME) * FIELD_WEIGHT
            own = field >= Field.NAME
            start = start or field == Field.NAME_START
            if not term.edits:
                if not term.token.unfinished and len(term.whole) == len(term.spans):
                    whole += 1
                elif place.whole:
                    whole += sum(1 for word in place.whole if _has_word(cells, word))
        else:
            best = number * NUMBER_WEIGHT / 2 if number else POSTCODE_WEIGHT
            narrowing.append(term)
            numbered = numbered or number > 0
            whole += number > 0
        words += best * term.token.width
        named += own
        in_order += own and before is not None and _follows(cells, before, place)
        before = place if own else None
    side = number_side([place.term.token for place in places])
    first = bool(edition.number_first[edition.node_country_at[node]])
    written = side is not None and side == first
    length = max(1, edition.node_name_length_at[node])
    total = (
        words + whole * EXACT_WEIGHT + min(named / length, 1.0) * COVERAGE_WEIGHT
        + start * START_WEIGHT + in_order * ORDER_WEIGHT + written * WRITTEN_WEIGHT
        + edition.node_weight_at[node]
    )  # fmt: skip
    if not explain:
        return Ranked(node, total, narrowing, numbered)
    parts = {
        "words": words,
        "whole words": whole * EXACT_WEIGHT,
        "name covered": min(named / length, 1.0) * COVERAGE_WEIGHT,
        "from the start": start * START_WEIGHT,
        "in order": in_order * ORDER_WEIGHT,
        "number as written": written * WRITTEN_WEIGHT,
        "kind and size": edition.node_weight_at[node],
    }
    return Ranked(node, total, narrowing, numbered, parts)


def _best_field(place: _Place, cells: Sequence[int], column: int) -> int:
    """The greatest field in which the term stands; its first cell is known."""
    best = cells[column] & _FIELD
    if best >= Field.NAME:  # names come first in a row, and begin with their start
        return best
    return max([best, *(code & _FIELD for code in cells[column + 1 :] if place.holds(code))])


def _follows(cells: Sequence[int], before: _Place, place: _Place) -> bool:
    """Whether a term stands in the name right behind another."""
    return any(
        code & _FIELD == Field.NAME and place.holds(code) and before.holds(cells[column])
        for column, code in enumerate(cells[1:])
    )


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
