# cython: language_level=3, boundscheck=False, wraparound=False, initializedcheck=False
# cython: cdivision=True, embedsignature=False
"""Looking through nodes for those that have every term, and weighing them by `ranking`.

This is the innermost loop of every search, and so it is compiled. `tests/core/plain_ranking.py`
states the same rule in plain Python; a test holds the two together.
"""

from cpython.mem cimport PyMem_Calloc, PyMem_Free, PyMem_Malloc, PyMem_Realloc
from libc.math cimport log2
from libc.stdint cimport uint8_t, uint32_t, uint64_t

import numpy as np

from .arrays import FIELD_BITS, Field
from .ranking import (
    BEGUN_SHARE, COVERAGE_WEIGHT, EXACT_WEIGHT, FIELD_WEIGHT, NUMBER_WEIGHT, ORDER_WEIGHT, PARTS,
    POSTCODE_WEIGHT, SIZE_WEIGHT, SPELT_WEIGHT, START_WEIGHT, WRITTEN_WEIGHT,
)

cdef uint32_t SHIFT = FIELD_BITS
cdef uint32_t FIELD_MASK = (1 << FIELD_BITS) - 1
cdef uint32_t NAME = Field.NAME, NAME_ALSO = Field.NAME_ALSO
cdef uint32_t NAME_START = Field.NAME_START
cdef uint32_t TOWN = Field.TOWN, AROUND = Field.AROUND, REGION = Field.REGION
cdef double OF_FIELD = FIELD_WEIGHT, OF_NUMBER = NUMBER_WEIGHT, OF_POSTCODE = POSTCODE_WEIGHT
cdef double BEGUN = BEGUN_SHARE, OF_SIZE = SIZE_WEIGHT
cdef double OF_WHOLE = EXACT_WEIGHT, OF_COVERAGE = COVERAGE_WEIGHT, OF_START = START_WEIGHT
cdef double OF_ORDER = ORDER_WEIGHT, OF_WRITTEN = WRITTEN_WEIGHT, OF_SPELT = SPELT_WEIGHT

# Letters that begin more words than this are not looked for among postcodes.
cdef Py_ssize_t MOST_AMONG_POSTCODES = 4096
# With more nodes than this, terms' lists are gone through side by side before rows are read.
cdef Py_ssize_t MANY = 64
# Marking a posting costs a small part of what reading a node's row costs.
cdef Py_ssize_t MARKS_A_ROW = 16
# So many ranges are tried one after the other; more are searched by halves.
cdef Py_ssize_t FEW_SPANS = 4
cdef int UNIT = 1, STREET_NUMBER = 2
cdef enum:
    PART_COUNT = 8
    # As many cells as a row of words can have, and more.
    MOST_CELLS = 32


cdef struct Ascending:
    # Numbers in ascending order, and where the last search among them ended.
    const uint32_t* numbers
    # For each of them how often it is counted; NULL where that is not kept.
    const uint8_t* counts
    Py_ssize_t length
    Py_ssize_t place


cdef struct Term:
    # Spans are codes of cells, [start, end), disjoint and ascending.
    uint32_t* starts
    uint32_t* ends
    Py_ssize_t span_count
    uint32_t* whole
    Py_ssize_t whole_count
    # Of the spans, those of words with the marks that were typed; codes of cells.
    uint32_t* spelt
    Py_ssize_t spelt_count
    bint one_whole
    bint finished
    double width
    Ascending number
    Ascending unit
    # Lists that hold all nodes of the term, where there are but few such lists.
    Ascending* lists
    Py_ssize_t list_count
    # A bit for each node of the edition that has it; NULL until that pays.
    uint64_t* marks
    Py_ssize_t count
    # Nodes that may have it where their rows do not show it: sorted when first asked for.
    Ascending inside
    bint inside_sorted
    bint among_postcodes
    # What the last look at a node found.
    uint32_t columns
    int numbered
    int number_count
    bint is_inside


cdef bint stands_in(Ascending* among, uint32_t wanted) noexcept nogil:
    """Whether a number is in a list; quick where the numbers asked for ascend."""
    cdef Py_ssize_t low = among.place, high, middle, step = 1
    cdef const uint32_t* numbers = among.numbers
    if among.length == 0:
        return False
    if numbers[low] > wanted:
        low = 0
        if numbers[0] > wanted:
            among.place = 0
            return False
    high = low + 1
    while high < among.length and numbers[high] <= wanted:
        low = high
        step *= 2
        high = low + step
    if high > among.length:
        high = among.length
    while high - low > 1:
        middle = (low + high) >> 1
        if numbers[middle] <= wanted:
            low = middle
        else:
            high = middle
    among.place = low
    return numbers[low] == wanted


cdef extern from *:
    int lowest_bit "__builtin_ctzll"(uint64_t bits) noexcept nogil


cdef void mark_all(uint64_t* marks, Ascending* nodes) noexcept nogil:
    cdef Py_ssize_t i
    for i in range(nodes.length):
        marks[nodes.numbers[i] >> 6] |= <uint64_t>1 << (nodes.numbers[i] & 63)


cdef _as_array(Ascending* among):
    if among.length == 0:
        return np.zeros(0, dtype=np.uint32)
    return np.asarray(<const uint32_t[:among.length:1]>among.numbers)


cdef bint holds(Term* term, uint32_t code) noexcept nogil:
    """Whether a cell is one of a term's words."""
    cdef Py_ssize_t low = 0, high = term.span_count, middle
    if high <= FEW_SPANS:
        while low < high:
            if term.starts[low] <= code < term.ends[low]:
                return True
            low += 1
        return False
    while low < high:
        middle = (low + high) >> 1
        if term.ends[middle] <= code:
            low = middle + 1
        else:
            high = middle
    return low < term.span_count and term.starts[low] <= code


cdef class NodeArrays:
    """The arrays of an edition that looking through its nodes reads."""

    cdef const uint32_t[:, ::1] words
    cdef const uint8_t[::1] country
    cdef const uint8_t[::1] number_first
    cdef const float[::1] weight
    cdef const uint32_t[::1] postings
    cdef const uint32_t[::1] posting_ends
    cdef const uint32_t[::1] number_postings
    cdef const uint32_t[::1] number_posting_ends
    cdef const uint8_t[::1] number_posting_counts
    cdef const uint32_t[::1] crowded
    cdef uint32_t nothing

    def __init__(self, arrays, number_first):
        """Takes the arrays by their names in `arrays`, and the flags of its countries."""
        self.words = arrays["node_words"]
        self.country = arrays["node_country"]
        self.number_first = number_first
        self.weight = arrays["node_weight"]
        self.postings = arrays["posting_nodes"]
        self.posting_ends = arrays["posting_ends"]
        self.number_postings = arrays["number_posting_nodes"]
        self.number_posting_ends = arrays["number_posting_ends"]
        self.number_posting_counts = arrays["number_posting_counts"]
        self.crowded = arrays["crowded_nodes"]
        self.nothing = <uint32_t>len(arrays["word_ends"]) << SHIFT

    cdef Ascending posting(self, Py_ssize_t first, Py_ssize_t end) noexcept:
        cdef Ascending found
        cdef Py_ssize_t start = self.posting_ends[first - 1] if first else 0
        found.length = self.posting_ends[end - 1] - start
        found.numbers = &self.postings[start] if found.length else NULL
        found.counts = NULL
        found.place = 0
        return found

    cdef Ascending numbered(self, Py_ssize_t term) noexcept:
        cdef Ascending found
        cdef Py_ssize_t start = 0
        found.length = found.place = 0
        found.numbers = NULL
        found.counts = NULL
        if term >= 0:
            start = self.number_posting_ends[term - 1] if term else 0
            found.length = self.number_posting_ends[term] - start
            if found.length:
                found.numbers = &self.number_postings[start]
                found.counts = &self.number_posting_counts[start]
        return found


cdef class NodeScan:
    """One search through nodes for the same terms; keeps those that have all of them."""

    cdef NodeArrays _arrays
    cdef Term* _terms
    cdef Py_ssize_t _count
    cdef Py_ssize_t* _order
    cdef uint32_t* _numbers
    cdef Ascending* _lists
    cdef list _kept_alive
    cdef object _source
    cdef Ascending _crowded
    cdef int _side
    cdef bint _in_part
    # What the last look at a node found.
    cdef uint32_t _named, _towns, _around
    cdef Py_ssize_t _cells
    # For each cell of the name the place of its token, and which of these places begin a name.
    cdef int[MOST_CELLS] _places
    cdef uint32_t _starts
    cdef int _tokens
    cdef double[PART_COUNT] _parts
    cdef uint32_t* _found
    cdef double* _scores
    cdef Py_ssize_t _found_count, _room

    def __cinit__(self, NodeArrays arrays, terms, side):
        """Makes terms (`terms.Term`) ready to be looked for; `side` as `terms.number_side`."""
        cdef Py_ssize_t numbers = 0, lists = 0, i
        self._arrays = arrays
        self._source = terms
        self._kept_alive = []
        self._count = len(terms)
        for term in terms:
            numbers += 2 * len(term.spans) + len(term.whole) + 2 * len(term.spelt)
            lists += len(term.spans) + 2
        self._terms = <Term*>PyMem_Malloc((self._count + 1) * sizeof(Term))
        self._order = <Py_ssize_t*>PyMem_Malloc((self._count + 1) * sizeof(Py_ssize_t))
        self._numbers = <uint32_t*>PyMem_Malloc((numbers + 1) * sizeof(uint32_t))
        self._lists = <Ascending*>PyMem_Malloc((lists + 1) * sizeof(Ascending))
        if not (self._terms and self._order and self._numbers and self._lists):
            raise MemoryError
        self._crowded.length = arrays.crowded.shape[0]
        self._crowded.numbers = &arrays.crowded[0] if self._crowded.length else NULL
        self._crowded.place = 0
        self._side = -1 if side is None else int(side)
        self._make_ready(terms)
        for i, place in enumerate(sorted(range(self._count), key=lambda n: terms[n].count)):
            self._order[i] = place

    def __dealloc__(self):
        cdef Py_ssize_t i
        if self._terms:
            for i in range(self._count):
                PyMem_Free(self._terms[i].marks)
        PyMem_Free(self._terms)
        PyMem_Free(self._order)
        PyMem_Free(self._numbers)
        PyMem_Free(self._lists)
        PyMem_Free(self._found)
        PyMem_Free(self._scores)

    cdef void _make_ready(self, terms):
        cdef uint32_t* numbers = self._numbers
        cdef Ascending* lists = self._lists
        cdef Py_ssize_t i, first, end, count, single
        cdef Term* made
        for i in range(self._count):
            self._terms[i].marks = NULL
        for i in range(self._count):
            term = terms[i]
            made = &self._terms[i]
            made.count = term.count
            spans = term.spans if len(term.spans) < 2 else sorted(term.spans)
            made.span_count = single = 0
            made.starts = numbers
            made.ends = numbers + len(spans)
            made.lists = lists
            made.list_count = 0
            for first, end in spans:
                count = made.span_count
                if count and (<uint32_t>first << SHIFT) < made.ends[count - 1]:
                    # Ranges that overlap become one.
                    if (<uint32_t>end << SHIFT) > made.ends[count - 1]:
                        made.ends[count - 1] = <uint32_t>end << SHIFT
                    continue
                made.starts[count] = <uint32_t>first << SHIFT
                made.ends[count] = <uint32_t>end << SHIFT
                made.span_count += 1
                if end - first == 1:
                    lists[single] = self._arrays.posting(first, end)
                    single += 1
            numbers += 2 * len(spans)
            made.whole = numbers
            made.whole_count = 0 if term.edits else len(term.whole)
            for word in term.whole:
                numbers[0] = word
                numbers += 1
            made.spelt = numbers
            made.spelt_count = len(term.spelt)
            for first, end in term.spelt:
                numbers[0] = <uint32_t>first << SHIFT
                numbers[1] = <uint32_t>end << SHIFT
                numbers += 2
            made.one_whole = (
                not term.edits and not term.token.unfinished and len(term.whole) == len(term.spans)
            )
            made.finished = not term.token.unfinished
            made.width = term.token.width
            made.number = self._arrays.numbered(term.number)
            made.unit = self._arrays.numbered(term.unit)
            if single == made.span_count <= FEW_SPANS:
                if made.number.length:
                    lists[single] = made.number
                    single += 1
                if made.unit.length:
                    lists[single] = made.unit
                    single += 1
                made.list_count = single
                lists += single
            common = term.count > MOST_AMONG_POSTCODES and term.token.text.isalpha()
            made.among_postcodes = term.postcode and not common
            made.inside_sorted = False

    cdef bint _stands_inside(self, Py_ssize_t i, uint32_t node):
        """Whether a term stands for a postcode inside, or for a word its row has no room for."""
        cdef Term* term = &self._terms[i]
        cdef const uint32_t[::1] nodes
        if term.span_count == 0:
            return False
        if not term.among_postcodes and not stands_in(&self._crowded, node):
            return False
        if not term.inside_sorted:
            spans = self._source[i].spans
            if len(spans) == 1 and spans[0][1] - spans[0][0] == 1:
                term.inside = self._arrays.posting(spans[0][0], spans[0][1])
            else:
                nodes = self.all_of(i)
                self._kept_alive.append(nodes)
                term.inside.length = nodes.shape[0]
                term.inside.numbers = &nodes[0] if nodes.shape[0] else NULL
                term.inside.place = 0
            term.inside_sorted = True
        return stands_in(&term.inside, node)

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

    cdef bint _look(self, uint32_t node, Py_ssize_t known, bint in_part):
        """Looks for all terms in a node; False at once where one is missing, unless in part.

        `known` is a term that the node is known to have, or -1.
        """
        cdef const uint32_t* row = &self._arrays.words[node, 0]
        cdef Py_ssize_t i, place, column
        cdef Term* term
        cdef bint any_number = False
        cdef uint32_t any_word = 0
        self._read_row(row)
        for place in range(self._count):
            i = self._order[place]
            term = &self._terms[i]
            term.columns = 0
            term.numbered = 0
            term.is_inside = False
            if term.span_count:
                for column in range(self._cells):
                    if holds(term, row[column]):
                        term.columns |= <uint32_t>1 << column
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
        return any_number or (any_word & self._named) != 0

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
        """Whether the row has the word with the marks that were typed."""
        cdef Py_ssize_t span, column
        for span in range(term.spelt_count):
            for column in range(self._cells):
                if term.spelt[2 * span] <= row[column] < term.spelt[2 * span + 1]:
                    return True
        return False

    cdef bint _in_lists(self, uint32_t node, Py_ssize_t known) noexcept nogil:
        """Whether no term's own lists rule the node out."""
        cdef Py_ssize_t i, one
        cdef Term* term
        cdef bint found
        for i in range(self._count):
            term = &self._terms[i]
            if i == known:
                continue
            if term.marks:
                if not term.marks[node >> 6] >> (node & 63) & 1:
                    return False
            elif term.list_count:
                found = False
                for one in range(term.list_count):
                    if stands_in(&term.lists[one], node):
                        found = True
                        break
                if not found:
                    return False
        return True

    def through(self, const uint32_t[::1] nodes, Py_ssize_t known=-1, Py_ssize_t enough=0):
        """Looks through nodes and keeps those that have every term.

        Args:
            nodes: ascending, for the sake of speed.
            known: a term that all of them are known to have, or -1.
            enough: with so many kept, the others need not be looked at; 0: look at all.

        Returns:
            How many are kept, those of earlier calls included.
        """
        cdef Py_ssize_t i
        cdef bint many = nodes.shape[0] > MANY
        if many:
            for i in range(self._count):
                if i != known and not self._terms[i].list_count:
                    if nodes.shape[0] * MARKS_A_ROW > self._terms[i].count:
                        self._mark(i)
        for i in range(nodes.shape[0]):
            if many and not self._in_lists(nodes[i], known):
                continue
            if self._look(nodes[i], known, False):
                self._keep(nodes[i], self._weigh(nodes[i]))
                if enough and self._found_count >= enough:
                    break
        return self._found_count

    cdef int _mark(self, Py_ssize_t i) except -1:
        """Marks all nodes of a term, as a word, a postcode or a number inside."""
        cdef Term* term = &self._terms[i]
        cdef Ascending posting
        cdef Py_ssize_t span
        if term.marks:
            return 0
        term.marks = <uint64_t*>PyMem_Calloc((self._arrays.words.shape[0] >> 6) + 1, 8)
        if not term.marks:
            raise MemoryError
        for span in range(term.span_count):
            posting = self._arrays.posting(term.starts[span] >> SHIFT, term.ends[span] >> SHIFT)
            mark_all(term.marks, &posting)
        mark_all(term.marks, &term.number)
        mark_all(term.marks, &term.unit)
        return 0

    def all_of(self, *places):
        """All nodes of any of some terms, ascending, each once."""
        cdef Py_ssize_t marks = (self._arrays.words.shape[0] >> 6) + 1, word, i, count = 0
        cdef uint64_t bits
        cdef uint32_t[::1] cells
        if len(places) == 1 and self._terms[<Py_ssize_t>places[0]].list_count == 1:
            return _as_array(&self._terms[<Py_ssize_t>places[0]].lists[0])
        for i in places:
            self._mark(i)
            count += self._terms[i].count
        nodes = np.empty(count, dtype=np.uint32)
        cells = nodes
        count = 0
        for word in range(marks if len(places) else 0):
            bits = 0
            for i in places:
                bits |= self._terms[i].marks[word]
            while bits:
                cells[count] = <uint32_t>(word << 6) + lowest_bit(bits)
                count += 1
                bits &= bits - 1
        return nodes[:count]

    def keep_all(self, const uint32_t[::1] nodes):
        """Keeps nodes, weighed by the terms that they have."""
        cdef Py_ssize_t i
        self._in_part = True
        for i in range(nodes.shape[0]):
            self._look(nodes[i], -1, True)
            self._keep(nodes[i], self._weigh(nodes[i]))

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

    cdef int _keep(self, uint32_t node, double score) except -1:
        if self._found_count == self._room:
            self._room = max(256, 2 * self._room)
            self._found = <uint32_t*>PyMem_Realloc(self._found, self._room * sizeof(uint32_t))
            self._scores = <double*>PyMem_Realloc(self._scores, self._room * sizeof(double))
            if not (self._found and self._scores):
                raise MemoryError
        self._found[self._found_count] = node
        self._scores[self._found_count] = score
        self._found_count += 1
        return 0

    def kept(self):
        """The nodes kept, in the order in which they were looked at."""
        found = np.empty(self._found_count, dtype=np.uint32)
        cdef uint32_t[::1] cells = found
        cdef Py_ssize_t i
        for i in range(self._found_count):
            cells[i] = self._found[i]
        return found

    def best(self, Py_ssize_t wanted, const float[::1] more=None):
        """The best nodes kept, each once: best first, equal ones in the order of their numbers.

        Args:
            more: what is added to the score of each kept node.

        Returns:
            For each its number, its score, the places of the terms that are none of its words,
            and whether one of these is a number inside it.
        """
        cdef uint32_t* nodes = <uint32_t*>PyMem_Malloc((wanted + 1) * sizeof(uint32_t))
        cdef double* scores = <double*>PyMem_Malloc((wanted + 1) * sizeof(double))
        cdef Py_ssize_t i, count = 0
        if not nodes or not scores:
            PyMem_Free(nodes)
            PyMem_Free(scores)
            raise MemoryError
        try:
            for i in range(self._found_count):
                count = _insert(
                    nodes, scores, count, wanted, self._found[i],
                    self._scores[i] + (more[i] if more is not None else 0),
                )
            return [self._one(nodes[i], scores[i]) for i in range(count)]
        finally:
            PyMem_Free(nodes)
            PyMem_Free(scores)

    cdef tuple _one(self, uint32_t node, double score):
        cdef Py_ssize_t i
        cdef bint numbered = False
        cdef list wordless = []
        self._look(node, -1, True)
        for i in range(self._count):
            if self._terms[i].columns:
                continue
            if not self._in_part or self._terms[i].numbered or self._terms[i].is_inside:
                wordless.append(i)
                numbered |= self._terms[i].numbered > 0
        return node, score, wordless, numbered

    def parts(self, uint32_t node):
        """What the score of a node is made of, nearness left out, by the names of `PARTS`."""
        cdef Py_ssize_t i
        self._look(node, -1, True)
        self._weigh(node)
        return {name: self._parts[i] for i, name in enumerate(PARTS)}


cdef Py_ssize_t _insert(
    uint32_t* nodes, double* scores, Py_ssize_t count, Py_ssize_t wanted, uint32_t node,
    double score,
) noexcept nogil:
    """Puts a node into its place among the best; returns how many there are then."""
    cdef Py_ssize_t place, i
    if count == wanted and (
        wanted == 0
        or score < scores[count - 1]
        or (score == scores[count - 1] and node > nodes[count - 1])
    ):
        return count
    place = count
    while place and (
        scores[place - 1] < score or (scores[place - 1] == score and nodes[place - 1] > node)
    ):
        place -= 1
    if place and nodes[place - 1] == node and scores[place - 1] == score:
        return count
    if count < wanted:
        count += 1
    for i in range(count - 1, place, -1):
        nodes[i] = nodes[i - 1]
        scores[i] = scores[i - 1]
    nodes[place] = node
    scores[place] = score
    return count
