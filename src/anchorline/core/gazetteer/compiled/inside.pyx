# cython: language_level=3, boundscheck=False, wraparound=False, initializedcheck=False
# cython: cdivision=True
"""Which addresses of a node have a street number or unit. Compiled: asked of every row shown."""

from libc.stdint cimport uint32_t

from .pools cimport TextPool


cdef class InsideNodes:
    """The arrays of an edition that tell addresses apart inside a node."""

    cdef const uint32_t[::1] _address_inner
    cdef const uint32_t[::1] _inners
    cdef const uint32_t[::1] _inner_ends
    cdef const uint32_t[:, ::1] _inner_texts
    cdef const uint32_t[::1] _street_firsts
    cdef const uint32_t[::1] _street_nodes
    cdef TextPool _texts

    def __init__(self, arrays, TextPool texts):
        """Takes the arrays by their names in `arrays`, and the pool of their texts."""
        self._inner_texts = arrays["inner_texts"]
        self._texts = texts
        self._address_inner = arrays["address_inner"]
        self._inners = arrays["number_inners"]
        self._inner_ends = arrays["number_inner_ends"]
        self._street_firsts = arrays["street_firsts"]
        self._street_nodes = arrays["street_nodes"]

    def number_of(self, Py_ssize_t index):
        """The street number of an address, empty where it has none."""
        if index < 0 or index >= self._address_inner.shape[0]:
            raise IndexError(index)
        return self._texts.text(self._inner_texts[self._address_inner[index], 0])

    def street_of(self, Py_ssize_t index):
        """The street-level node of an address."""
        cdef Py_ssize_t low = 0, high = self._street_firsts.shape[0], middle
        if index < 0 or index >= self._address_inner.shape[0]:
            raise IndexError(index)
        while high - low > 1:
            middle = (low + high) >> 1
            if self._street_firsts[middle] <= index:
                low = middle
            else:
                high = middle
        return self._street_nodes[low]

    def having(self, among, Py_ssize_t number, Py_ssize_t unit):
        """Those of some addresses that have a number term as street number, or another as unit.

        Args:
            among: a range or a list of addresses.
            number, unit: number terms, or -1.
        """
        cdef list found = []
        cdef Py_ssize_t index
        cdef uint32_t inner
        if isinstance(among, range):
            for index in range(<Py_ssize_t>among.start, <Py_ssize_t>among.stop):
                inner = self._address_inner[index]
                if self._has(number, inner) or self._has(unit, inner):
                    found.append(index)
            return found
        for index in among:
            inner = self._address_inner[index]
            if self._has(number, inner) or self._has(unit, inner):
                found.append(index)
        return found

    cdef bint _has(self, Py_ssize_t term, uint32_t inner) noexcept nogil:
        """Whether an entry of the inner texts has a number term."""
        cdef Py_ssize_t low, high, end, middle
        if term < 0:
            return False
        low = self._inner_ends[term - 1] if term else 0
        high = end = self._inner_ends[term]
        while low < high:
            middle = (low + high) >> 1
            if self._inners[middle] < inner:
                low = middle + 1
            else:
                high = middle
        return low < end and self._inners[low] == inner
