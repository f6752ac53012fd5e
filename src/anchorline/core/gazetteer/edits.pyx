# cython: language_level=3, boundscheck=False, wraparound=False
"""How many edits two words are apart. Compiled: asked of hundreds of words for one typing error.

Optimal string alignment (the restricted distance of Damerau, 1964, by the method of Wagner and
Fischer, 1974): a letter put in, left out or exchanged, and two neighbours swapped, are one edit.
"""

from cpython.unicode cimport PyUnicode_GET_LENGTH, PyUnicode_READ_CHAR

cdef enum:
    LONGEST = 127


def distance(str typed, str word, int most, bint unfinished):
    """Edits from a typed word to another, or to the nearest beginning of it if unfinished.

    Returns:
        At most `most` + 1, which stands for any greater distance, and for words of more than
        127 letters.
    """
    cdef int rows[3][LONGEST + 1]
    cdef int* before
    cdef int* last
    cdef int* row
    cdef Py_ssize_t i, j, length = PyUnicode_GET_LENGTH(typed)
    cdef Py_ssize_t size = PyUnicode_GET_LENGTH(word)
    cdef Py_UCS4 letter
    cdef int cost, best
    if unfinished:
        size = min(size, length + most)
    if length > LONGEST or size > LONGEST or length - size > most or size - length > most:
        return most + 1
    before = last = rows[2]
    row = rows[0]
    for j in range(size + 1):
        row[j] = <int>j
    for i in range(1, length + 1):
        before, last, row = last, row, rows[i % 3]
        letter = PyUnicode_READ_CHAR(typed, i - 1)
        row[0] = best = <int>i
        for j in range(1, size + 1):
            cost = last[j - 1] + (letter != PyUnicode_READ_CHAR(word, j - 1))
            cost = min(cost, last[j] + 1, row[j - 1] + 1)
            if (
                i > 1 and j > 1
                and letter == PyUnicode_READ_CHAR(word, j - 2)
                and PyUnicode_READ_CHAR(typed, i - 2) == PyUnicode_READ_CHAR(word, j - 1)
            ):
                cost = min(cost, before[j - 2] + 1)
            row[j] = cost
            best = min(best, cost)
        # A swap reaches back two rows, and then costs one more than the row before this one.
        if best > most + 1:
            return most + 1
    best = row[size]
    if unfinished:
        for j in range(1, size):
            best = min(best, row[j])
    return min(best, most + 1)
