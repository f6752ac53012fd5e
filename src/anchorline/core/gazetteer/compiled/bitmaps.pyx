# cython: language_level=3, boundscheck=False, wraparound=False, initializedcheck=False
# cython: cdivision=True
"""Bitmaps: a bit for each node of an edition, set for the nodes of a term.

Marking the tens of thousands of nodes of a short beginning takes longer than all the rest of a
search. Of what very many nodes have the edition brings the bitmaps along; others are kept from one
search to the next, as people type the same few hundred short beginnings.
"""

from cpython.mem cimport PyMem_Calloc, PyMem_Free
from libc.stdint cimport uint32_t, uint64_t

# So much memory all bitmaps that are kept may take, in bytes: those of all editions together.
cdef Py_ssize_t BYTES_KEPT = 8 << 20

# Bitmaps by whose they are and their key, those used last at the end; and the bytes that they take.
cdef dict _kept = {}
cdef Py_ssize_t _bytes = 0


cdef class Bitmap:
    """A bit for each node; nobody changes it once it is kept."""

    def __cinit__(self, Py_ssize_t nodes):
        """A bitmap of so many nodes, none of them set."""
        self.length = (nodes >> 6) + 1
        self.bits = <uint64_t*>PyMem_Calloc(self.length, sizeof(uint64_t))
        if not self.bits:
            raise MemoryError

    def __dealloc__(self):
        PyMem_Free(self.bits)

    cdef void add(self, const uint32_t* nodes, Py_ssize_t count) noexcept:
        """Sets the bits of some nodes."""
        cdef Py_ssize_t i
        for i in range(count):
            self.bits[nodes[i] >> 6] |= <uint64_t>1 << (nodes[i] & 63)

    cdef void join(self, const uint64_t* other) noexcept:
        """Sets what is set in another bitmap of the same edition."""
        cdef Py_ssize_t i
        for i in range(self.length):
            self.bits[i] |= other[i]


cdef class EditionBitmaps:
    """The bitmaps that an edition brings along, of ranges of words or of numbers."""

    def __cinit__(self, ranges, bits):
        """Takes the arrays `mark_…` and `mark_…_bits`."""
        self._bits = bits
        self._places = {
            (first, end): place for place, (first, end) in enumerate(ranges.tolist())
        }

    cdef const uint64_t* of(self, Py_ssize_t first, Py_ssize_t end):
        """The bitmap of a range, or NULL."""
        place = self._places.get((first, end))
        return NULL if place is None else &self._bits[<Py_ssize_t>place, 0]


cdef class BitmapCache:
    """The bitmaps of an edition that were used last, as far as other editions leave room for them."""

    def __cinit__(self, Py_ssize_t nodes):
        """Keeps none yet; of an edition with so many nodes."""
        self._nodes = nodes

    def __len__(self):
        return sum(whose is self for whose, _ in list(_kept))

    cdef Bitmap new(self):
        """A bitmap of no node yet."""
        return Bitmap(self._nodes)

    cpdef Bitmap find(self, object key):
        """The bitmap kept under a key, or None; it is the last to be forgotten now."""
        cdef Bitmap found = _kept.pop((self, key), None)
        if found is not None:
            _kept[self, key] = found
        return found

    cpdef void keep(self, object key, Bitmap bitmap):
        """Keeps a bitmap under a key, and forgets those of any edition not used for longest."""
        global _bytes
        cdef Bitmap other = _kept.pop((self, key), None)
        _bytes += (bitmap.length - (other.length if other is not None else 0)) * sizeof(uint64_t)
        _kept[self, key] = bitmap
        while _bytes > BYTES_KEPT and len(_kept) > 1:
            other = _kept.pop(next(iter(_kept)))
            _bytes -= other.length * sizeof(uint64_t)


cdef Py_ssize_t keep_set(
    uint32_t* nodes, Py_ssize_t count, const uint64_t* bitmap
) noexcept nogil:
    """Moves those of some nodes whose bits are set to the front; returns how many they are."""
    cdef Py_ssize_t i, kept = 0
    cdef uint32_t node
    for i in range(count):
        node = nodes[i]
        nodes[kept] = node
        kept += bitmap[node >> 6] >> (node & 63) & 1
    return kept
