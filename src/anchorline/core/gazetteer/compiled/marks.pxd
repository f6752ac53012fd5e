# cython: language_level=3
"""What other compiled modules may use of `marks`."""

from libc.stdint cimport uint32_t, uint64_t


cdef class Marks:
    cdef uint64_t* bits
    # How many 64 bits there are.
    cdef Py_ssize_t length

    cdef void add(self, const uint32_t* nodes, Py_ssize_t count) noexcept
    cdef void join(self, const uint64_t* other) noexcept


cdef class EditionMarks:
    cdef const uint64_t[:, ::1] _bits
    cdef dict _places

    cdef const uint64_t* of(self, Py_ssize_t first, Py_ssize_t end)


cdef class KeptMarks:
    cdef Py_ssize_t _nodes

    cdef Marks new(self)
    cpdef Marks find(self, object key)
    cpdef void keep(self, object key, Marks marks)


cdef Py_ssize_t keep_marked(
    uint32_t* nodes, Py_ssize_t count, const uint64_t* marks
) noexcept nogil
