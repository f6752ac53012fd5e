# cython: language_level=3, boundscheck=False, wraparound=False, initializedcheck=False
# cython: cdivision=True
"""Looking through nodes for those that have every term, and keeping the best of them."""

from cpython.mem cimport PyMem_Free, PyMem_Malloc, PyMem_Realloc
from libc.stdint cimport uint32_t, uint64_t
from libc.string cimport memcpy

from .nodelists cimport Ascending
from .nodelook cimport NodeLook
from .readyterms cimport Term, lowest_bit

import numpy as np

# With more nodes than this, terms' lists are gone through before rows are read.
cdef Py_ssize_t MANY = 64
# Rows are fetched from memory so many nodes ahead of being read.
cdef Py_ssize_t AHEAD = 8
# So many nodes are thinned out by the lists at a time: enough may be found by then.
cdef enum:
    BLOCK = 2048


cdef extern from *:
    void fetch "__builtin_prefetch"(const void* place) noexcept nogil


cdef class NodeScan(NodeLook):
    """One search through nodes for the same terms; keeps those that have all of them."""

    cdef bint _in_part
    cdef uint32_t* _found
    cdef double* _scores
    cdef Py_ssize_t _found_count, _room

    def __dealloc__(self):
        PyMem_Free(self._found)
        PyMem_Free(self._scores)

    def through(self, const uint32_t[::1] nodes, Py_ssize_t known=-1, Py_ssize_t enough=0):
        """Looks through nodes and keeps those that have every term.

        Args:
            nodes: ascending, for the sake of speed.
            known: a term that all of them are known to have, or -1.
            enough: with so many kept, the others need not be looked at; 0: look at all.

        Returns:
            How many are kept, those of earlier calls included.
        """
        cdef Ascending listed
        listed.length = nodes.shape[0]
        listed.numbers = &nodes[0] if listed.length else NULL
        return self._through_list(&listed, known, enough)

    def through_all_of(self, Py_ssize_t known, Py_ssize_t enough):
        """The same for all nodes of a term, given by its place, heaviest first.

        Where its nodes are in one list already, or enough are found early, most of them are never
        touched.
        """
        cdef Term* term = &self._terms[known]
        cdef Py_ssize_t count = 0, left = term.count, word = 0
        cdef Py_ssize_t length = (self._arrays.words.shape[0] >> 6) + 1
        cdef uint32_t[BLOCK] some
        cdef uint64_t bits
        if term.list_count == 1:
            return self._through_list(&term.lists[0], known, enough)
        self._mark(known)
        bits = term.bitmap[0]
        while True:
            while not bits and word + 1 < length:
                word += 1
                bits = term.bitmap[word]
            while bits and count < BLOCK:
                some[count] = <uint32_t>(word << 6) + lowest_bit(bits)
                count += 1
                bits &= bits - 1
            if count == 0:
                return self._found_count
            if count == BLOCK or not bits and word + 1 == length:
                if self._through_some(some, count, known, max(left, count), enough):
                    return self._found_count
                left -= count
                count = 0

    cdef Py_ssize_t _through_list(
        self, Ascending* nodes, Py_ssize_t known, Py_ssize_t enough
    ) except -1:
        cdef Py_ssize_t count, start = 0
        cdef uint32_t[BLOCK] some
        while start < nodes.length:
            count = min(BLOCK, nodes.length - start)
            memcpy(some, nodes.numbers + start, count * sizeof(uint32_t))
            if self._through_some(some, count, known, nodes.length - start, enough):
                break
            start += BLOCK
        return self._found_count

    cdef bint _through_some(
        self, uint32_t* some, Py_ssize_t count, Py_ssize_t known, Py_ssize_t left,
        Py_ssize_t enough,
    ) except -1:
        """Looks through a block of nodes; whether enough are kept by now.

        `left` is how many nodes are still to come, these included.
        """
        cdef Py_ssize_t i
        if left > MANY:
            count = self._thin_out(some, count, known, left)
        for i in range(min(AHEAD, count)):
            fetch(&self._arrays.words[some[i], 0])
        for i in range(count):
            if i + AHEAD < count:
                fetch(&self._arrays.words[some[i + AHEAD], 0])
                fetch(&self._arrays.weight[some[i + AHEAD]])
            if self._look(some[i], known, False):
                self._keep(some[i], self._weigh(some[i]))
                if enough and self._found_count >= enough:
                    return True
        return False

    def keep_all(self, const uint32_t[::1] nodes):
        """Keeps nodes, weighed by the terms that they have."""
        cdef Py_ssize_t i
        self._in_part = True
        for i in range(nodes.shape[0]):
            self._look(nodes[i], -1, True)
            self._keep(nodes[i], self._weigh(nodes[i]))

    cdef int _keep(self, uint32_t node, double score) except -1:
        if self._found_count == self._room:
            self._room = max(256, 2 * self._room)
            self._found = <uint32_t*>PyMem_Realloc(self._found, self._room * sizeof(uint32_t))
            self._scores = <double*>PyMem_Realloc(self._scores, self._room * sizeof(double))
            if not (self._found and self._scores):
                raise MemoryError
        self._found[self._found_count] = node
        self._scores[self._found_count] = score
        self._found_count += 1
        return 0

    def kept(self):
        """The nodes kept, in the order in which they were looked at."""
        found = np.empty(self._found_count, dtype=np.uint32)
        cdef uint32_t[::1] cells = found
        cdef Py_ssize_t i
        for i in range(self._found_count):
            cells[i] = self._found[i]
        return found

    def best(self, Py_ssize_t wanted, const float[::1] more=None):
        """The best nodes kept, each once: best first, equal ones in the order of their numbers.

        Args:
            more: what is added to the score of each kept node.

        Returns:
            For each its number, its score, the places of the terms that are none of its words,
            and whether one of these is a number inside it.
        """
        cdef uint32_t* nodes = <uint32_t*>PyMem_Malloc((wanted + 1) * sizeof(uint32_t))
        cdef double* scores = <double*>PyMem_Malloc((wanted + 1) * sizeof(double))
        cdef Py_ssize_t i, count = 0
        if not nodes or not scores:
            PyMem_Free(nodes)
            PyMem_Free(scores)
            raise MemoryError
        try:
            for i in range(self._found_count):
                count = _insert(
                    nodes, scores, count, wanted, self._found[i],
                    self._scores[i] + (more[i] if more is not None else 0),
                )
            return [self._one(nodes[i], scores[i]) for i in range(count)]
        finally:
            PyMem_Free(nodes)
            PyMem_Free(scores)

    cdef tuple _one(self, uint32_t node, double score):
        cdef Py_ssize_t i
        cdef bint numbered = False
        cdef list wordless = []
        self._look(node, -1, True)
        for i in range(self._count):
            if self._terms[i].columns:
                continue
            if not self._in_part or self._terms[i].numbered or self._terms[i].is_inside:
                wordless.append(i)
                numbered |= self._terms[i].numbered > 0
        return node, score, wordless, numbered


cdef Py_ssize_t _insert(
    uint32_t* nodes, double* scores, Py_ssize_t count, Py_ssize_t wanted, uint32_t node,
    double score,
) noexcept nogil:
    """Puts a node into its place among the best; returns how many there are then."""
    cdef Py_ssize_t place, i
    if count == wanted and (
        wanted == 0
        or score < scores[count - 1]
        or (score == scores[count - 1] and node > nodes[count - 1])
    ):
        return count
    place = count
    while place and (
        scores[place - 1] < score or (scores[place - 1] == score and nodes[place - 1] > node)
    ):
        place -= 1
    if place and nodes[place - 1] == node and scores[place - 1] == score:
        return count
    if count < wanted:
        count += 1
    for i in range(count - 1, place, -1):
        nodes[i] = nodes[i - 1]
        scores[i] = scores[i - 1]
    nodes[place] = node
    scores[place] = score
    return count
