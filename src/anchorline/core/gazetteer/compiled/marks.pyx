# cython: language_level=3, boundscheck=False, wraparound=False, initializedcheck=False
# cython: cdivision=True
"""Marks: a bit for each node of an edition, set for the nodes of a term.

Marking the tens of thousands of nodes of a short beginning takes longer than all the rest of a
search. Of what very many nodes have the edition brings the marks along; others are kept from one
search to the next, as people type the same few hundred short beginnings.
"""

from cpython.mem cimport PyMem_Calloc, PyMem_Free
from libc.stdint cimport uint32_t, uint64_t

# So much memory all marks that are kept may take, in bytes: those of all editions together.
cdef Py_ssize_t BYTES_KEPT = 8 << 20

# Marks by whose they are and their key, those used last at the end; and the bytes that they take.
cdef dict _kept = {}
cdef Py_ssize_t _bytes = 0


cdef class Marks:
    """A bit for each node; nobody changes it once it is kept."""

    def __cinit__(self, Py_ssize_t nodes):
        """Marks none of so many nodes."""
        self.length = (nodes >> 6) + 1
        self.bits = <uint64_t*>PyMem_Calloc(self.length, sizeof(uint64_t))
        if not self.bits:
            raise MemoryError

    def __dealloc__(self):
        PyMem_Free(self.bits)

    cdef void add(self, const uint32_t* nodes, Py_ssize_t count) noexcept:
        """Marks some nodes."""
        cdef Py_ssize_t i
        for i in range(count):
            self.bits[nodes[i] >> 6] |= <uint64_t>1 << (nodes[i] & 63)

    cdef void join(self, const uint64_t* other) noexcept:
        """Marks what is marked in the bits of others of the same edition."""
        cdef Py_ssize_t i
        for i in range(self.length):
            self.bits[i] |= other[i]


cdef class EditionMarks:
    """The marks that an edition brings along, of ranges of words or of numbers."""

    def __cinit__(self, ranges, bits):
        """Takes the arrays `mark_…` and `mark_…_bits`."""
        self._bits = bits
        self._places = {
            (first, end): place for place, (first, end) in enumerate(ranges.tolist())
        }

    cdef const uint64_t* of(self, Py_ssize_t first, Py_ssize_t end):
        """The marks of a range, or NULL."""
        place = self._places.get((first, end))
        return NULL if place is None else &self._bits[<Py_ssize_t>place, 0]


cdef class KeptMarks:
    """The marks of an edition that were used last, as far as other editions leave room for them."""

    def __cinit__(self, Py_ssize_t nodes):
        """Keeps none yet; of an edition with so many nodes."""
        self._nodes = nodes

    def __len__(self):
        return sum(whose is self for whose, _ in list(_kept))

    cdef Marks new(self):
        """Marks of no node yet."""
        return Marks(self._nodes)

    cpdef Marks find(self, object key):
        """The marks kept under a key, or None; they are the last to be forgotten now."""
        cdef Marks found = _kept.pop((self, key), None)
        if found is not None:
            _kept[self, key] = found
        return found

    cpdef void keep(self, object key, Marks marks):
        """Keeps marks under a key, and forgets those of any edition not used for longest."""
        global _bytes
        cdef Marks other = _kept.pop((self, key), None)
        _bytes += (marks.length - (other.length if other is not None else 0)) * sizeof(uint64_t)
        _kept[self, key] = marks
        while _bytes > BYTES_KEPT and len(_kept) > 1:
            other = _kept.pop(next(iter(_kept)))
            _bytes -= other.length * sizeof(uint64_t)


cdef Py_ssize_t keep_marked(
    uint32_t* nodes, Py_ssize_t count, const uint64_t* marks
) noexcept nogil:
    """Moves the marked ones of some nodes to the front; returns how many they are."""
    cdef Py_ssize_t i, kept = 0
    cdef uint32_t node
    for i in range(count):
        node = nodes[i]
        nodes[kept] = node
        kept += marks[node >> 6] >> (node & 63) & 1
    return kept
