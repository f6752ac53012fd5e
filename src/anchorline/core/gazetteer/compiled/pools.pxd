# cython: language_level=3
"""What other compiled modules may use of `pools`."""

from libc.stdint cimport uint8_t, uint32_t, uint64_t


cdef class TextPool:
    cdef const uint8_t[::1] _data
    cdef const uint32_t[::1] _ends
    cdef Py_ssize_t _count

    cdef const char* _begin(self, Py_ssize_t index, Py_ssize_t* length) noexcept nogil
    # The text at an index that is known to be in range.
    cdef str text(self, Py_ssize_t index)


cdef class WordPool(TextPool):
    cdef const uint64_t[::1] _keys
    cdef object _all_keys

    cdef Py_ssize_t _first_not_below(self, const char* key, Py_ssize_t length) noexcept nogil
