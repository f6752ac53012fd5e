# cython: language_level=3, boundscheck=False, wraparound=False, initializedcheck=False
# cython: cdivision=True
"""Looking for terms in one node, and weighing it by `ranking`.

This is the innermost loop of every search, and so it is compiled. `tests/core/plain_ranking.py`
states the same rule in plain Python; a test holds the two together.
"""

from libc.math cimport log2
from libc.stdint cimport uint32_t

from .nodelists cimport (
    AROUND, FIELD_MASK, NAME, NAME_ALSO, NAME_START, REGION, SHIFT, TOWN, stands_in,
)
from .readyterms cimport ReadyTerms, Term, holds

import numpy as np

from ..ranking import (
    BEGUN_SHARE, COVERAGE_WEIGHT, EXACT_WEIGHT, FIELD_WEIGHT, NUMBER_WEIGHT, ORDER_WEIGHT, PARTS,
    POSTCODE_WEIGHT, SIZE_WEIGHT, SPELT_WEIGHT, START_WEIGHT, WRITTEN_WEIGHT,
)

cdef double OF_FIELD = FIELD_WEIGHT, OF_NUMBER = NUMBER_WEIGHT, OF_POSTCODE = POSTCODE_WEIGHT
cdef double BEGUN = BEGUN_SHARE, OF_SIZE = SIZE_WEIGHT
cdef double OF_WHOLE = EXACT_WEIGHT, OF_COVERAGE = COVERAGE_WEIGHT, OF_START = START_WEIGHT
cdef double OF_ORDER = ORDER_WEIGHT, OF_WRITTEN = WRITTEN_WEIGHT, OF_SPELT = SPELT_WEIGHT
cdef int UNIT = 1, STREET_NUMBER = 2


cdef class NodeLook(ReadyTerms):
    """Looks for terms in one node after the other."""

    cdef void _read_row(self, const uint32_t* row) noexcept nogil:
        """Which cells of a row are of its name, of its town, around it."""
        cdef Py_ssize_t column = 0, width = self._arrays.words.shape[1]
        cdef uint32_t bit = 1, field
        cdef uint32_t nothing = self._arrays.nothing
        self._named = self._starts = self._towns = self._around = 0
        self._tokens = 0
        while column < width and row[column] != nothing:
            field = row[column] & FIELD_MASK
            if field >= NAME_ALSO:
                self._named |= bit
                if field != NAME_ALSO:
                    if field == NAME_START:
                        self._starts |= <uint32_t>1 << self._tokens
                    self._tokens += 1
                self._places[column] = self._tokens - 1
            elif field == TOWN:
                self._towns |= bit
            elif field == AROUND:
                self._around |= bit
            bit <<= 1
            column += 1
        self._cells = column

    cdef bint _look(self, uint32_t node, Py_ssize_t known, bint in_part) except -1:
        """Looks for all terms in a node; False at once where one is missing, unless in part.

        `known` is a term that the node is known to have, or -1.
        """
        cdef const uint32_t* row = &self._arrays.words[node, 0]
        cdef Py_ssize_t i, place
        cdef Term* term
        cdef bint any_number = False
        cdef uint32_t any_word = 0
        for place in range(self._count):
            i = self._order[place]
            term = &self._terms[i]
            term.columns = 0
            term.numbered = 0
            term.is_inside = False
            if term.span_count:
                term.columns = self._columns_of(term, row)
            if term.number.length and stands_in(&term.number, node):
                term.numbered = STREET_NUMBER
                term.number_count = term.number.counts[term.number.place]
            elif term.unit.length and stands_in(&term.unit, node):
                term.numbered = UNIT
            if not term.columns and not term.numbered:
                term.is_inside = i == known or self._stands_inside(i, node)
                if not term.is_inside and not in_part:
                    return False
            any_word |= term.columns
            any_number |= term.numbered > 0
        # Most nodes are turned away before their rows are worth reading whole.
        self._read_row(row)
        return any_number or (any_word & self._named) != 0

    cdef uint32_t _columns_of(self, Term* term, const uint32_t* row) noexcept nogil:
        """The cells of a row that hold one of a term's words; those that hold nothing never do."""
        cdef Py_ssize_t column, width = self._arrays.words.shape[1]
        cdef uint32_t start = term.starts[0], length = term.ends[0] - term.starts[0], found = 0
        if term.span_count == 1:
            for column in range(width):
                found |= <uint32_t>(row[column] - start < length) << column
            return found
        for column in range(width):
            if row[column] == self._arrays.nothing:
                break
            if holds(term, row[column]):
                found |= <uint32_t>1 << column
        return found

    cdef double _weigh(self, uint32_t node) noexcept nogil:
        """The score of the node last looked at; its parts stay in `_parts`."""
        cdef const uint32_t* row = &self._arrays.words[node, 0]
        cdef double words = 0, best, score = 0, size = 0
        cdef Py_ssize_t i, whole = 0, in_order = 0, spelt = 0
        cdef uint32_t before = 0, places, started = 0
        cdef double[MOST_CELLS] counts
        cdef Term* term
        for i in range(self._tokens):
            counts[i] = 0
        for i in range(self._count):
            term = &self._terms[i]
            best = 0
            places = 0
            if term.columns:
                if term.columns & self._named:
                    best = NAME * OF_FIELD
                    places = self._places_of(term)
                    started |= places & self._starts
                    self._count_in_names(term, places, row, counts)
                elif term.columns & self._towns:
                    best = TOWN * OF_FIELD
                elif term.columns & self._around:
                    best = AROUND * OF_FIELD
                else:
                    best = REGION * OF_FIELD
                whole += 1 if term.one_whole else self._whole_words(term, row)
                if term.spelt_count:
                    spelt += self._is_spelt(term, row)
                if before << 1 & places & ~self._starts:
                    in_order += 1
            elif term.numbered:
                best = term.numbered * OF_NUMBER / 2
                whole += 1
                if term.numbered == STREET_NUMBER:
                    size += OF_SIZE * log2(term.number_count)
            elif term.is_inside:
                best = OF_POSTCODE
            words += best * term.width
            before = places
        self._parts[0] = words
        self._parts[1] = whole * OF_WHOLE
        self._parts[2] = self._covered(counts) * OF_COVERAGE
        self._parts[3] = (started != 0) * OF_START
        self._parts[4] = in_order * OF_ORDER
        self._parts[5] = 0
        if self._side >= 0:
            if self._side == self._arrays.number_first[self._arrays.country[node]]:
                self._parts[5] = OF_WRITTEN
        self._parts[6] = spelt * OF_SPELT
        self._parts[7] = self._arrays.weight[node] + size
        for i in range(PART_COUNT):
            score += self._parts[i]
        return score

    cdef uint32_t _places_of(self, Term* term) noexcept nogil:
        """The places of the name's tokens that a term stands for."""
        cdef uint32_t found = 0, columns = term.columns & self._named
        cdef Py_ssize_t column = 0
        while columns:
            if columns & 1:
                found |= <uint32_t>1 << self._places[column]
            columns >>= 1
            column += 1
        return found

    cdef void _count_in_names(
        self, Term* term, uint32_t places, const uint32_t* row, double* counts
    ) noexcept nogil:
        """Adds a term to each of a node's names that has it; counted at the name's start."""
        cdef int place, start = 0, counted = -1
        cdef double share = 1 if term.finished or self._whole_words(term, row) else BEGUN
        for place in range(self._tokens):
            if self._starts >> place & 1:
                start = place
            if places >> place & 1 and counted != start:
                counts[start] += share
                counted = start

    cdef double _covered(self, double* counts) noexcept nogil:
        """The greatest share of one of the node's names that was typed."""
        cdef int place, start = 0
        cdef double best = 0
        for place in range(1, self._tokens + 1):
            if place == self._tokens or self._starts >> place & 1:
                best = max(best, min(counts[start] / (place - start), 1.0))
                start = place
        return best

    cdef Py_ssize_t _whole_words(self, Term* term, const uint32_t* row) noexcept nogil:
        """How many of a term's whole words the row has."""
        cdef Py_ssize_t word, column, found = 0
        for word in range(term.whole_count):
            for column in range(self._cells):
                if row[column] >> SHIFT == term.whole[word]:
                    found += 1
                    break
        return found

    cdef bint _is_spelt(self, Term* term, const uint32_t* row) noexcept nogil:
        """Whether the row has the word with the diacritics that were typed."""
        cdef Py_ssize_t span, column
        for span in range(term.spelt_count):
            for column in range(self._cells):
                if term.spelt[2 * span] <= row[column] < term.spelt[2 * span + 1]:
                    return True
        return False

    def held(self, uint32_t node):
        """For each term whether a node has it."""
        cdef Py_ssize_t i
        self._look(node, -1, True)
        return [
            self._terms[i].columns != 0 or self._terms[i].numbered > 0 or self._terms[i].is_inside
            for i in range(self._count)
        ]

    def worth(self, const uint32_t[::1] nodes, const double[:, ::1] of_terms):
        """For each node the sums of what the terms that it has are worth, in several ways.

        Args:
            of_terms: way × term.

        Returns:
            way × node.
        """
        cdef Py_ssize_t i, t, way
        cdef Term* term
        found = np.zeros((of_terms.shape[0], nodes.shape[0]), dtype=np.float64)
        cdef double[:, ::1] sums = found
        for i in range(nodes.shape[0]):
            self._look(nodes[i], -1, True)
            for t in range(self._count):
                term = &self._terms[t]
                if term.columns or term.numbered or term.is_inside:
                    for way in range(of_terms.shape[0]):
                        sums[way, i] += of_terms[way, t]
        return found

    def parts(self, uint32_t node):
        """What the score of a node is made of, nearness left out, by the names of `PARTS`."""
        cdef Py_ssize_t i
        self._look(node, -1, True)
        self._weigh(node)
        return {name: self._parts[i] for i, name in enumerate(PARTS)}
