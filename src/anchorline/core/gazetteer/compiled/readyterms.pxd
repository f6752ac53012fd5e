# cython: language_level=3
"""What other compiled modules may use of `readyterms`."""

from libc.stdint cimport uint32_t, uint64_t

from .bitmaps cimport Bitmap
from .nodelists cimport Ascending, NodeArrays

cdef enum:
    # So many ranges are tried one after the other; more are searched by halves.
    FEW_SPANS = 4


cdef struct Term:
    # Spans are codes of cells, [start, end), disjoint and ascending.
    uint32_t* starts
    uint32_t* ends
    Py_ssize_t span_count
    uint32_t* whole
    Py_ssize_t whole_count
    # Of the spans, those of words with the diacritics that were typed; codes of cells.
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
    const uint64_t* bitmap
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


cdef extern from *:
    int lowest_bit "__builtin_ctzll"(uint64_t bits) noexcept nogil


cdef inline bint holds(Term* term, uint32_t code) noexcept nogil:
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


cdef class ReadyTerms:
    cdef NodeArrays _arrays
    cdef Term* _terms
    cdef Py_ssize_t _count
    # The places of the terms, the rarest first.
    cdef Py_ssize_t* _order
    cdef int _side
    cdef uint32_t* _numbers
    cdef Ascending* _lists
    cdef list _kept_alive
    cdef object _source
    # A bit for each node that has a term in its own name; NULL until that pays.
    cdef const uint64_t* _named_bitmap
    # How many nodes these are at most; -1 where a number inside makes a node as good.
    cdef Py_ssize_t _named_count
    cdef Ascending _crowded

    cdef void _put_in_order(self) noexcept
    cdef void _make_ready(self, terms)
    cdef bint _stands_inside(self, Py_ssize_t i, uint32_t node) except -1
    cdef Py_ssize_t _thin_out(
        self, uint32_t* nodes, Py_ssize_t count, Py_ssize_t known, Py_ssize_t left
    ) except -1
    cdef Py_ssize_t _count_named(self) noexcept
    cdef Py_ssize_t _count_named_of(self, Term* term) noexcept
    cdef int _mark(self, Py_ssize_t i) except -1
    cdef int _set_named(self) except -1
    cdef void _set_named_of(self, Term* term, Bitmap bitmap)
    cdef void _use(self, Py_ssize_t i, Bitmap bitmap)
    cdef void _use_known(self, Py_ssize_t i, object source)
