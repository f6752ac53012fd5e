# cython: language_level=3, boundscheck=False, wraparound=False
"""How many edits two words are apart. Compiled: asked of hundreds of words for one typing error.

Optimal string alignment (the restricted distance of Damerau, 1964, by the method of Wagner and
Fischer, 1974): a letter put in, left out or exchanged, and two neighbours swapped, are one edit.
"""

from cpython.unicode cimport PyUnicode_GET_LENGTH, PyUnicode_READ_CHAR
from libc.stdint cimport uint64_t

import numpy as np

from ..arrays import distinct_sorted

cdef enum:
    LONGEST = 127
    # The letters of a key, eight bits each, the first one highest.
    KEY_LETTERS = 8

cdef const char* LETTERS = b"0123456789abcdefghijklmnopqrstuvwxyz"


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


def keys_one_edit_away(str token):
    """The keys of all texts of small letters and digits that are one edit away from a token.

    Args:
        token: one to eight small letters and digits.

    Returns:
        As `pools.WordPool` has them: the letters of each text as the bytes of a number. Ascending,
        each once; texts of more than eight letters are left out.

    Raises:
        ValueError: the token is none of one to eight ASCII characters.
    """
    cdef Py_ssize_t length = PyUnicode_GET_LENGTH(token), place, count = 0
    cdef uint64_t[2 * KEY_LETTERS * 37] keys
    cdef uint64_t own = 0, before, behind, letter, following
    if not (0 < length <= KEY_LETTERS and token.isascii()):
        raise ValueError(f"{token!r} is not one to {KEY_LETTERS} ASCII characters")
    for place in range(length):
        own |= _at(place, PyUnicode_READ_CHAR(token, place))
    for place in range(length + 1):
        before = own & ~_from(place)
        behind = own & _from(place)
        if place < KEY_LETTERS and length < KEY_LETTERS:
            for letter in LETTERS[:36]:
                keys[count] = before | _at(place, letter) | behind >> 8
                count += 1
        if place == length:
            break
        letter = own >> 8 * (KEY_LETTERS - 1 - place) & 0xFF
        keys[count] = before | (own & _from(place + 1)) << 8
        count += 1
        if place + 1 < length:
            following = own >> 8 * (KEY_LETTERS - 2 - place) & 0xFF
            keys[count] = (
                before | _at(place, following) | _at(place + 1, letter) | own & _from(place + 2)
            )
            count += 1
        for letter in LETTERS[:36]:
            keys[count] = before | _at(place, letter) | own & _from(place + 1)
            count += 1
    found = distinct_sorted(np.asarray(<uint64_t[:count]>keys))
    return found[found != own]


cdef inline uint64_t _at(Py_ssize_t place, uint64_t letter) noexcept nogil:
    """A letter at a place of a key."""
    return letter << 8 * (KEY_LETTERS - 1 - place)


cdef inline uint64_t _from(Py_ssize_t place) noexcept nogil:
    """The bits of a key from a place on."""
    return 0 if place >= KEY_LETTERS else (<uint64_t>0 - 1) >> 8 * place
