"""Marks made beforehand: a bit for each node, for what very many nodes have.

That is every beginning, word and street number that more than one node of so many has, and every
beginning and word that so many have in their own names. A search would else make the marks of a
few letters from the lists of the thousands of words that begin so, and look nodes up in the long
lists of the others one by one. Kept in the edition they are there from the first keystroke on, and
all processes share them.
"""

from __future__ import annotations

import numpy as np

from ..arrays import Arrays

# So that some five hundred are marked whatever the size of the edition: ten bytes an address.
MARKED_IF_ONE_OF = 64


def mark_arrays(arrays: Arrays, node_count: int) -> dict[str, np.ndarray]:
    """`mark_words`, `mark_names`, `mark_numbers`, and the bits of each.

    Args:
        arrays: with the heads, and the postings of words, names and numbers.
    """

    def marked(ranges: np.ndarray, lists: str) -> tuple[np.ndarray, np.ndarray]:
        return _marked(ranges, arrays[f"{lists}_ends"], arrays[f"{lists}_nodes"], node_count)

    # A word that begins no other one is a beginning as well, and comes twice.
    beginnings = np.vstack([arrays["head_words"], _each(arrays["posting_ends"])])
    words, word_bits = marked(beginnings, "posting")
    names, name_bits = marked(beginnings, "name")
    numbers, number_bits = marked(_each(arrays["number_posting_ends"]), "number_posting")
    return {
        "mark_words": words,
        "mark_word_bits": word_bits,
        "mark_names": names,
        "mark_name_bits": name_bits,
        "mark_numbers": numbers,
        "mark_number_bits": number_bits,
    }


def _each(ends: np.ndarray) -> np.ndarray:
    """The range [place, place + 1) of every entry."""
    places = np.arange(len(ends), dtype=np.uint32)
    return np.column_stack([places, places + 1])


def _marked(
    ranges: np.ndarray, ends: np.ndarray, nodes: np.ndarray, node_count: int
) -> tuple[np.ndarray, np.ndarray]:
    """Those of some ranges of lists that are worth marking, each once, and their bits."""
    bounds = np.concatenate([[0], ends]).astype(np.int64)
    counts = bounds[ranges[:, 1]] - bounds[ranges[:, 0]]
    chosen = np.unique(ranges[counts * MARKED_IF_ONE_OF > node_count], axis=0)
    length = (node_count >> 6) + 1
    bits = np.empty((len(chosen), length), dtype="<u8")
    for row, (first, end) in zip(bits, bounds[chosen].tolist(), strict=True):
        flags = np.zeros(length << 6, dtype=np.bool_)
        flags[nodes[first:end]] = True
        row[:] = np.packbits(flags, bitorder="little").view("<u8")
    return chosen, bits
