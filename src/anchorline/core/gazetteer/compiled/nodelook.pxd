# cython: language_level=3
"""What other compiled modules may use of `nodelook`."""

from libc.stdint cimport uint32_t

from .readyterms cimport ReadyTerms, Term

cdef enum:
    PART_COUNT = 8
    # As many cells as a row of words can have, and more.
    MOST_CELLS = 32


cdef class NodeLook(ReadyTerms):
    # What the last look at a node found.
    cdef uint32_t _named, _towns, _around
    cdef Py_ssize_t _cells
    # For each cell of the name the place of its token, and which of these places begin a name.
    cdef int[MOST_CELLS] _places
    cdef uint32_t _starts
    cdef int _tokens
    cdef double[PART_COUNT] _parts

    cdef void _read_row(self, const uint32_t* row) noexcept nogil
    cdef bint _look(self, uint32_t node, Py_ssize_t known, bint in_part) except -1
    cdef uint32_t _columns_of(self, Term* term, const uint32_t* row) noexcept nogil
    cdef double _weigh(self, uint32_t node) noexcept nogil
    cdef uint32_t _places_of(self, Term* term) noexcept nogil
    cdef void _count_in_names(
        self, Term* term, uint32_t places, const uint32_t* row, double* counts
    ) noexcept nogil
    cdef double _covered(self, double* counts) noexcept nogil
    cdef Py_ssize_t _whole_words(self, Term* term, const uint32_t* row) noexcept nogil
    cdef bint _is_spelt(self, Term* term, const uint32_t* row) noexcept nogil
