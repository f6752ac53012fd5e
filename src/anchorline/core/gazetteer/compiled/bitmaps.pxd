# cython: language_level=3
"""What other compiled modules may use of `bitmaps`."""

from libc.stdint cimport uint32_t, uint64_t


cdef class Bitmap:
    cdef uint64_t* bits
    # How many 64 bits there are.
    cdef Py_ssize_t length

    cdef void add(self, const uint32_t* nodes, Py_ssize_t count) noexcept
    cdef void join(self, const uint64_t* other) noexcept


cdef class EditionBitmaps:
    cdef const uint64_t[:, ::1] _bits
    cdef dict _places

    cdef const uint64_t* of(self, Py_ssize_t first, Py_ssize_t end)


cdef class BitmapCache:
    cdef Py_ssize_t _nodes

    cdef Bitmap new(self)
    cpdef Bitmap find(self, object key)
    cpdef void keep(self, object key, Bitmap bitmap)


cdef Py_ssize_t keep_set(
    uint32_t* nodes, Py_ssize_t count, const uint64_t* bitmap
) noexcept nogil
