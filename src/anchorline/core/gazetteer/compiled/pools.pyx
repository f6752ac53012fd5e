# cython: language_level=3, boundscheck=False, wraparound=False, initializedcheck=False
# cython: cdivision=True
"""Pools of texts: reading one touches only its bytes. Compiled: every search reads hundreds."""

from cpython.bytes cimport PyBytes_AS_STRING, PyBytes_FromStringAndSize, PyBytes_GET_SIZE
from cpython.unicode cimport PyUnicode_DecodeUTF8
from libc.stdint cimport uint8_t, uint32_t, uint64_t
from libc.string cimport memcmp

import numpy as np


cdef class TextPool:
    """Texts in one byte string: text i is the bytes [ends[i-1], ends[i])."""

    def __init__(self, data, ends):
        """Takes the UTF-8 of all texts, and where each ends."""
        self._data, self._ends = data, ends
        self._count = self._ends.shape[0]

    def __len__(self):
        return self._count

    cdef const char* _begin(self, Py_ssize_t index, Py_ssize_t* length) noexcept nogil:
        cdef Py_ssize_t start = self._ends[index - 1] if index else 0
        length[0] = self._ends[index] - start
        return <const char*>&self._data[0] + start

    cdef str text(self, Py_ssize_t index):
        cdef Py_ssize_t length
        cdef const char* begin = self._begin(index, &length)
        return PyUnicode_DecodeUTF8(begin, length, NULL)

    def __getitem__(self, Py_ssize_t index):
        if index < 0 or index >= self._count:
            raise IndexError(index)
        return self.text(index)

    def raw(self, Py_ssize_t index):
        """The UTF-8 bytes of a text."""
        cdef Py_ssize_t length
        cdef const char* text
        if index < 0 or index >= self._count:
            raise IndexError(index)
        text = self._begin(index, &length)
        return PyBytes_FromStringAndSize(text, length)


cdef class WordPool(TextPool):
    """A pool sorted by the bytes of its texts, in which beginnings are found."""

    def __init__(self, data, ends, keys):
        """Takes a pool's arrays, and the first eight bytes of each text as a number."""
        TextPool.__init__(self, data, ends)
        self._keys = keys
        self._all_keys = keys

    def prefix_range(self, str prefix):
        """The range [first, end) of the texts that begin with `prefix`."""
        cdef bytes key = prefix.encode()
        cdef Py_ssize_t length = PyBytes_GET_SIZE(key), size
        cdef Py_ssize_t first = self._first_not_below(PyBytes_AS_STRING(key), length)
        cdef const char* text
        if first == self._count:
            return first, first
        text = self._begin(first, &size)
        if size < length or memcmp(text, PyBytes_AS_STRING(key), length) != 0:
            return first, first
        # 0xFF is in no UTF-8 text, so it is above everything that goes on from the prefix.
        key += b"\xff" * 8
        return first, self._first_not_below(PyBytes_AS_STRING(key), length + 8)

    def find(self, str text):
        """The index of a text, or None."""
        cdef bytes key = text.encode()
        cdef Py_ssize_t length = PyBytes_GET_SIZE(key), size
        cdef Py_ssize_t index = self._first_not_below(PyBytes_AS_STRING(key), length)
        cdef const char* there
        if index == self._count:
            return None
        there = self._begin(index, &size)
        if size == length and memcmp(there, PyBytes_AS_STRING(key), length) == 0:
            return index
        return None

    def find_keys(self, keys):
        """The indices of texts of at most 8 bytes that are among the keys; others are left out."""
        places = np.searchsorted(self._all_keys, keys)
        known = self._all_keys.take(places, mode="clip") == keys
        return places[known]

    cdef Py_ssize_t _first_not_below(self, const char* key, Py_ssize_t length) noexcept nogil:
        """The index of the first text that is not below a key."""
        cdef Py_ssize_t low = 0, high = self._count, middle, size, i
        cdef uint64_t number = 0, there
        cdef const char* text
        cdef int order
        for i in range(8):
            number = number << 8 | (<uint8_t>key[i] if i < length else 0)
        while low < high:
            middle = (low + high) >> 1
            there = self._keys[middle]
            if there == number and length > 8:
                text = self._begin(middle, &size)
                order = memcmp(text, key, min(size, length))
                if order < 0 or (order == 0 and size < length):
                    low = middle + 1
                else:
                    high = middle
            elif there < number:
                low = middle + 1
            else:
                high = middle
        return low
