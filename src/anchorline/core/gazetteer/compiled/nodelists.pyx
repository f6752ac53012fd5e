# cython: language_level=3, boundscheck=False, wraparound=False, initializedcheck=False
# cython: cdivision=True
"""The lists of nodes of an edition: those of words and of numbers, as compiled code reads them."""

from .bitmaps cimport EditionBitmaps, BitmapCache

from ..arrays import FIELD_BITS, Field

if (FIELD_BITS, Field.REGION, Field.AROUND, Field.TOWN, Field.NAME_ALSO, Field.NAME) != (
    SHIFT, REGION, AROUND, TOWN, NAME_ALSO, NAME
) or Field.NAME_START != NAME_START:
    raise ImportError("nodelists.pxd has other fields than arrays.py")


cdef class NodeArrays:
    """The arrays of an edition that looking through its nodes reads."""

    def __init__(self, arrays, number_first):
        """Takes the arrays by their names in `arrays`, and the flags of its countries."""
        self.words = arrays["node_words"]
        self.country = arrays["node_country"]
        self.number_first = number_first
        self.weight = arrays["node_weight"]
        self.postings = arrays["posting_nodes"]
        self.posting_ends = arrays["posting_ends"]
        self.names = arrays["name_nodes"]
        self.name_ends = arrays["name_ends"]
        self.number_postings = arrays["number_posting_nodes"]
        self.number_posting_ends = arrays["number_posting_ends"]
        self.number_posting_counts = arrays["number_posting_counts"]
        self.crowded = arrays["crowded_nodes"]
        self.word_bitmaps = EditionBitmaps(arrays["bitmap_words"], arrays["bitmap_word_bits"])
        self.name_bitmaps = EditionBitmaps(arrays["bitmap_names"], arrays["bitmap_name_bits"])
        self.number_bitmaps = EditionBitmaps(arrays["bitmap_numbers"], arrays["bitmap_number_bits"])
        self.bitmaps = BitmapCache(self.words.shape[0])
        self.nothing = <uint32_t>len(arrays["word_ends"]) << SHIFT

    cdef Ascending posting(self, Py_ssize_t first, Py_ssize_t end) noexcept:
        return _of_words(self.postings, self.posting_ends, first, end)

    cdef Ascending named(self, Py_ssize_t first, Py_ssize_t end) noexcept:
        return _of_words(self.names, self.name_ends, first, end)

    cdef Ascending numbered(self, Py_ssize_t term) noexcept:
        cdef Ascending found
        cdef Py_ssize_t start = 0
        found.length = found.place = 0
        found.numbers = NULL
        found.counts = NULL
        if term >= 0:
            start = self.number_posting_ends[term - 1] if term else 0
            found.length = self.number_posting_ends[term] - start
            if found.length:
                found.numbers = &self.number_postings[start]
                found.counts = &self.number_posting_counts[start]
        return found


cdef Ascending _of_words(
    const uint32_t[::1] nodes, const uint32_t[::1] ends, Py_ssize_t first, Py_ssize_t end
) noexcept:
    """The lists of the words [first, end), one after the other."""
    cdef Ascending found
    cdef Py_ssize_t start = ends[first - 1] if first else 0
    found.length = ends[end - 1] - start
    found.numbers = &nodes[start] if found.length else NULL
    found.counts = NULL
    found.place = 0
    return found
