# cython: language_level=3
"""What other compiled modules may use of `nodelists`."""

from libc.stdint cimport uint8_t, uint32_t

from .bitmaps cimport EditionBitmaps, BitmapCache

cdef enum:
    # As `arrays.FIELD_BITS` and `arrays.Field`, to which `nodelists` holds them.
    SHIFT = 3
    FIELD_MASK = 7
    REGION = 2
    AROUND = 3
    TOWN = 4
    NAME_ALSO = 5
    NAME = 6
    NAME_START = 7


cdef struct Ascending:
    # Numbers in ascending order, and where the last search among them ended.
    const uint32_t* numbers
    # For each of them how often it is counted; NULL where that is not kept.
    const uint8_t* counts
    Py_ssize_t length
    Py_ssize_t place


cdef inline bint stands_in(Ascending* among, uint32_t wanted) noexcept nogil:
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


cdef class NodeArrays:
    cdef const uint32_t[:, ::1] words
    cdef const uint8_t[::1] country
    cdef const uint8_t[::1] number_first
    cdef const float[::1] weight
    cdef const uint32_t[::1] postings
    cdef const uint32_t[::1] posting_ends
    cdef const uint32_t[::1] names
    cdef const uint32_t[::1] name_ends
    cdef const uint32_t[::1] number_postings
    cdef const uint32_t[::1] number_posting_ends
    cdef const uint8_t[::1] number_posting_counts
    cdef const uint32_t[::1] crowded
    cdef EditionBitmaps word_bitmaps
    cdef EditionBitmaps name_bitmaps
    cdef EditionBitmaps number_bitmaps
    cdef uint32_t nothing
    cdef BitmapCache bitmaps

    # All nodes of the words [first, end), and those that have them in their own names.
    cdef Ascending posting(self, Py_ssize_t first, Py_ssize_t end) noexcept
    cdef Ascending named(self, Py_ssize_t first, Py_ssize_t end) noexcept
    cdef Ascending numbered(self, Py_ssize_t term) noexcept
