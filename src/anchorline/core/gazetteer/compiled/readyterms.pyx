# cython: language_level=3, boundscheck=False, wraparound=False, initializedcheck=False
# cython: cdivision=True
"""Terms made ready to be looked for in nodes: their words and their lists, in plain memory."""

from cpython.mem cimport PyMem_Free, PyMem_Malloc
from libc.stdint cimport uint32_t, uint64_t

from .bitmaps cimport Bitmap, keep_set
from .nodelists cimport SHIFT, Ascending, NodeArrays, stands_in

import numpy as np

# Marking a posting costs a small part of what reading a node's row costs.
cdef Py_ssize_t BITS_A_ROW = 16
# Bitmaps of terms with so many postings are worth keeping.
cdef Py_ssize_t WORTH_KEEPING = 2048
# Letters that begin more words than this are not looked for among postcodes.
cdef Py_ssize_t MOST_AMONG_POSTCODES = 4096


cdef _as_array(Ascending* among):
    if among.length == 0:
        return np.zeros(0, dtype=np.uint32)
    return np.asarray(<const uint32_t[:among.length:1]>among.numbers)


cdef class ReadyTerms:
    """Some terms, as `terms.Term`, in the memory of this object."""

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
        self._named_bitmap = NULL
        self._named_count = self._count_named()
        self._put_in_order()

    def __dealloc__(self):
        PyMem_Free(self._terms)
        PyMem_Free(self._order)
        PyMem_Free(self._numbers)
        PyMem_Free(self._lists)

    cdef void _put_in_order(self) noexcept:
        """The places of the terms, the rarest first."""
        cdef Py_ssize_t i, place
        for i in range(self._count):
            place = i
            while place and self._terms[self._order[place - 1]].count > self._terms[i].count:
                self._order[place] = self._order[place - 1]
                place -= 1
            self._order[place] = i

    cdef void _make_ready(self, terms):
        cdef uint32_t* numbers = self._numbers
        cdef Ascending* lists = self._lists
        cdef Py_ssize_t i, first, end, count, single
        cdef Term* made
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
            made.bitmap = NULL
            if made.count >= WORTH_KEEPING:
                self._use_known(i, term)
            common = term.count > MOST_AMONG_POSTCODES and term.token.text.isalpha()
            made.among_postcodes = term.postcode and not common
            made.inside_sorted = False

    cdef void _use_known(self, Py_ssize_t i, object source):
        """Takes the bitmap of a term from the edition, or the one kept of an earlier search."""
        cdef Term* term = &self._terms[i]
        if term.span_count == 1 and not term.number.length and not term.unit.length:
            term.bitmap = self._arrays.word_bitmaps.of(term.starts[0] >> SHIFT, term.ends[0] >> SHIFT)
        elif term.span_count == 0 and not term.unit.length:
            term.bitmap = self._arrays.number_bitmaps.of(source.number, source.number + 1)
        if not term.bitmap:
            self._use(i, self._arrays.bitmaps.find(_key(source)))

    cdef bint _stands_inside(self, Py_ssize_t i, uint32_t node) except -1:
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

    cdef Py_ssize_t _thin_out(
        self, uint32_t* nodes, Py_ssize_t count, Py_ssize_t known, Py_ssize_t left
    ) except -1:
        """Drops the nodes that the terms' lists rule out, as far as that costs less than looking.

        Args:
            known: a term that all of them are known to have, or -1.
            left: how many nodes are still to come, these included.

        Returns:
            How many of the nodes are kept; they come first, in their order.
        """
        cdef Py_ssize_t place, i, kept = count
        cdef double share = <double>left / count
        cdef Term* term
        if self._named_count >= 0:
            if not self._named_bitmap and left * BITS_A_ROW > self._named_count:
                self._set_named()
            if self._named_bitmap:
                kept = keep_set(nodes, kept, self._named_bitmap)
        for place in range(self._count):
            i = self._order[place]
            term = &self._terms[i]
            if i == known:
                continue
            if not term.bitmap and kept * share * BITS_A_ROW > term.count:
                self._mark(i)
            if term.bitmap:
                kept = keep_set(nodes, kept, term.bitmap)
            elif term.list_count:
                kept = _keep_listed(nodes, kept, term)
        return kept

    cdef Py_ssize_t _count_named(self) noexcept:
        cdef Py_ssize_t i, count = 0
        for i in range(self._count):
            if self._terms[i].number.length or self._terms[i].unit.length:
                return -1
            count += self._count_named_of(&self._terms[i])
        return count

    cdef Py_ssize_t _count_named_of(self, Term* term) noexcept:
        cdef Py_ssize_t span, count = 0
        for span in range(term.span_count):
            count += self._arrays.named(
                term.starts[span] >> SHIFT, term.ends[span] >> SHIFT
            ).length
        return count

    cdef int _set_named(self) except -1:
        """Sets the bits of all nodes that have a term in their own names."""
        cdef Py_ssize_t i
        cdef Bitmap bitmap = self._arrays.bitmaps.new()
        for i in range(self._count):
            self._set_named_of(&self._terms[i], bitmap)
        self._named_bitmap = bitmap.bits
        self._kept_alive.append(bitmap)
        return 0

    cdef void _set_named_of(self, Term* term, Bitmap bitmap):
        cdef Ascending named
        cdef const uint64_t* known
        cdef Py_ssize_t span, first, end
        for span in range(term.span_count):
            first, end = term.starts[span] >> SHIFT, term.ends[span] >> SHIFT
            known = self._arrays.name_bitmaps.of(first, end)
            if known:
                bitmap.join(known)
            else:
                named = self._arrays.named(first, end)
                bitmap.add(named.numbers, named.length)

    cdef int _mark(self, Py_ssize_t i) except -1:
        """Sets the bits of all nodes of a term, as a word, a postcode or a number inside."""
        cdef Term* term = &self._terms[i]
        cdef Ascending posting
        cdef Py_ssize_t span, first, end
        cdef const uint64_t* known
        cdef Bitmap bitmap
        if term.bitmap:
            return 0
        bitmap = self._arrays.bitmaps.new()
        for span in range(term.span_count):
            first, end = term.starts[span] >> SHIFT, term.ends[span] >> SHIFT
            known = self._arrays.word_bitmaps.of(first, end)
            if known:
                bitmap.join(known)
                continue
            posting = self._arrays.posting(first, end)
            bitmap.add(posting.numbers, posting.length)
        bitmap.add(term.number.numbers, term.number.length)
        bitmap.add(term.unit.numbers, term.unit.length)
        if term.count >= WORTH_KEEPING:
            self._arrays.bitmaps.keep(_key(self._source[i]), bitmap)
        self._use(i, bitmap)
        return 0

    cdef void _use(self, Py_ssize_t i, Bitmap bitmap):
        """Takes a bitmap for that of a term, if there is one."""
        if bitmap is not None:
            self._terms[i].bitmap = bitmap.bits
            self._kept_alive.append(bitmap)

    def all_of(self, *places):
        """All nodes of any of some terms, ascending, each once."""
        cdef Py_ssize_t length = (self._arrays.words.shape[0] >> 6) + 1, word, i, count = 0
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
        for word in range(length if len(places) else 0):
            bits = 0
            for i in places:
                bits |= self._terms[i].bitmap[word]
            while bits:
                cells[count] = <uint32_t>(word << 6) + lowest_bit(bits)
                count += 1
                bits &= bits - 1
        return nodes[:count]


cdef object _key(term):
    """What the bitmap of a term is kept under: all that they depend on."""
    return term.spans, term.number, term.unit


cdef Py_ssize_t _keep_listed(uint32_t* nodes, Py_ssize_t count, Term* term) noexcept nogil:
    cdef Py_ssize_t i, one, kept = 0
    for i in range(count):
        for one in range(term.list_count):
            if stands_in(&term.lists[one], nodes[i]):
                nodes[kept] = nodes[i]
                kept += 1
                break
    return kept
