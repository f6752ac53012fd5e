# cython: language_level=3, boundscheck=False, wraparound=False, initializedcheck=False
"""Rows of texts under names. Compiled: every label that is written reads three of them."""

from libc.stdint cimport uint32_t

from .pools cimport TextPool


cdef class TextRows:
    """A matrix of text numbers, each column of which has a name."""

    cdef tuple _names
    cdef const uint32_t[:, ::1] _rows
    cdef TextPool _texts

    def __init__(self, names, rows, TextPool texts):
        """Takes as many names as the matrix has columns."""
        self._names, self._rows, self._texts = tuple(names), rows, texts
        if len(self._names) != self._rows.shape[1]:
            raise ValueError(f"{len(self._names)} names for {self._rows.shape[1]} columns")

    def of(self, Py_ssize_t row):
        """The texts of a row by their names, empty ones (number 0) left out."""
        cdef dict found = {}
        cdef Py_ssize_t column
        if row < 0 or row >= self._rows.shape[0]:
            raise IndexError(row)
        for column in range(self._rows.shape[1]):
            if self._rows[row, column]:
                found[self._names[column]] = self._texts.text(self._rows[row, column])
        return found
