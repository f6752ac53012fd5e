# cython: language_level=3, boundscheck=False, wraparound=False
"""Cutting texts into folded tokens: the inner loop of `text`, which says what folding is.

Scripts that are written without spaces are left to `text`: None is returned for them.
"""

from cpython.mem cimport PyMem_Free, PyMem_Malloc
from cpython.unicode cimport (
    PyUnicode_4BYTE_KIND, PyUnicode_FromKindAndData, PyUnicode_GET_LENGTH, PyUnicode_READ_CHAR,
    Py_UNICODE_ISALNUM, Py_UNICODE_ISDECIMAL,
)

# So many letters before digits are a word of their own: `apt4` is `apt` and `4`.
cdef Py_ssize_t LETTERS_ALONE = 3
# The most characters that one is folded to; longer ones are left to `text`.
cdef Py_ssize_t MOST_FOLDED = 4


cdef bint _is_spaceless(Py_UCS4 c) noexcept:
    """Kana and kanji, half-width kana included: as in `text`."""
    return 0x3040 <= c <= 0x30FF or 0x3400 <= c <= 0x9FFF or 0xFF66 <= c <= 0xFF9D


cdef Py_ssize_t _fold(str text, object folded, Py_UCS4* into, Py_ssize_t* origin) except -2:
    """Folds a text; -1 where that is left to `text`. `origin` says where each came from."""
    cdef Py_ssize_t i, j, size, count = 0
    cdef Py_UCS4 c
    cdef str plain
    for i in range(PyUnicode_GET_LENGTH(text)):
        c = PyUnicode_READ_CHAR(text, i)
        if c < 128 and (Py_UNICODE_ISALNUM(c) or c == 32 or c == 44):
            into[count] = <Py_UCS4>(<long>c + 32) if 65 <= c <= 90 else c
            origin[count] = i
            count += 1
            continue
        plain = folded[<long>c]
        size = PyUnicode_GET_LENGTH(plain)
        if size > MOST_FOLDED:
            return -1
        for j in range(size):
            c = PyUnicode_READ_CHAR(plain, j)
            if _is_spaceless(c):
                return -1
            into[count] = c
            origin[count] = i
            count += 1
    return count


cdef Py_ssize_t _end_of_run(Py_UCS4* text, Py_ssize_t start, Py_ssize_t length) noexcept:
    """Where the token ends that begins at `start`."""
    cdef Py_ssize_t end = start
    while end < length and Py_UNICODE_ISALNUM(text[end]) and not Py_UNICODE_ISDECIMAL(text[end]):
        end += 1
    if end - start >= LETTERS_ALONE and end < length and Py_UNICODE_ISDECIMAL(text[end]):
        return end
    while end < length and Py_UNICODE_ISALNUM(text[end]):
        end += 1
    return end


cdef list _cut(str text, object folded, bint places):
    cdef Py_ssize_t room = PyUnicode_GET_LENGTH(text) * MOST_FOLDED + 1, length, start = 0, end
    cdef Py_UCS4* cells = <Py_UCS4*>PyMem_Malloc(room * sizeof(Py_UCS4))
    cdef Py_ssize_t* origin = <Py_ssize_t*>PyMem_Malloc(room * sizeof(Py_ssize_t))
    cdef list found = []
    cdef str token
    try:
        if not cells or not origin:
            raise MemoryError
        length = _fold(text, folded, cells, origin)
        if length < 0:
            return None
        while start < length:
            if not Py_UNICODE_ISALNUM(cells[start]):
                start += 1
                continue
            end = _end_of_run(cells, start, length)
            token = PyUnicode_FromKindAndData(PyUnicode_4BYTE_KIND, cells + start, end - start)
            if places:
                found.append((
                    token, origin[start], origin[end - 1] + 1, _is_even(origin, start, end),
                ))
            else:
                found.append(token)
            start = end
        return found
    finally:
        PyMem_Free(cells)
        PyMem_Free(origin)


cdef bint _is_even(Py_ssize_t* origin, Py_ssize_t start, Py_ssize_t end) noexcept:
    """Whether each character of a token comes from the one behind that of the one before it."""
    cdef Py_ssize_t i
    for i in range(start + 1, end):
        if origin[i] != origin[i - 1] + 1:
            return False
    return True


def cut_tokens(str text, folded):
    """The folded tokens of a text in Unicode's composed form.

    Args:
        folded: for each code point what it is folded to, worked out where it is missing.
    """
    return _cut(text, folded, False)


def cut_spans(str text, folded):
    """The same as the fields of `text.TokenSpan`: with the places that they came from."""
    return _cut(text, folded, True)


def match_spans(str label, tuple spans, whole, tuple prefixes, end_of_prefix):
    """Ranges of the characters of a label's spans that match, in order and without overlaps.

    Args:
        spans: all of the label, as `text.TokenSpan`.
        whole: a collection of tokens that are matched whole.
        prefixes: beginnings of tokens.
        end_of_prefix: called with the label, a span that is not even, and how many letters of it
            are matched; says where they end.
    """
    cdef list ranges = []
    cdef Py_ssize_t begun, start, end, last = -1
    cdef str prefix, text
    for span in spans:
        text, start, end, even = span
        if text not in whole:
            begun = 0
            for prefix in prefixes:
                if len(prefix) > begun and text.startswith(prefix):
                    begun = len(prefix)
            if not begun:
                continue
            end = start + begun if even else end_of_prefix(label, span, begun)
        if ranges and last >= start:
            last = max(end, last)
            ranges[len(ranges) - 1] = (ranges[len(ranges) - 1][0], last)
        else:
            ranges.append((start, end))
            last = end
    return ranges
