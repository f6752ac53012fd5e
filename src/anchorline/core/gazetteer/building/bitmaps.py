"""Bitmaps made in advance: one bit for each node, for what very many nodes have in common.

There is one for every beginning, word and street number that more than one node of
`BITMAP_IF_ONE_OF` has, and for every beginning and word that so many have in their own names.
Without them a search would merge the lists of thousands of words that share a beginning. They are
part of the edition's file, so they are there for the first keystroke and all processes share them.
"""

from __future__ import annotations

import numpy as np

from ..arrays import Arrays

# So that some five hundred have one whatever the size of the edition: ten bytes an address.
BITMAP_IF_ONE_OF = 64


def bitmap_arrays(arrays: Arrays, node_count: int) -> dict[str, np.ndarray]:
    """`bitmap_words`, `bitmap_names`, `bitmap_numbers`, and the bits of each.

    Args:
        arrays: with the heads, and the postings of words, names and numbers.
    """

    def bitmaps_of(ranges: np.ndarray, lists: str) -> tuple[np.ndarray, np.ndarray]:
        return _bitmaps(ranges, arrays[f"{lists}_ends"], arrays[f"{lists}_nodes"], node_count)

    # A word that begins no other one is a beginning as well, and comes twice.
    beginnings = np.vstack([arrays["head_words"], _each(arrays["posting_ends"])])
    words, word_bits = bitmaps_of(beginnings, "posting")
    names, name_bits = bitmaps_of(beginnings, "name")
    numbers, number_bits = bitmaps_of(_each(arrays["number_posting_ends"]), "number_posting")
    return {
        "bitmap_words": words,
        "bitmap_word_bits": word_bits,
        "bitmap_names": names,
        "bitmap_name_bits": name_bits,
        "bitmap_numbers": numbers,
        "bitmap_number_bits": number_bits,
    }


def _each(ends: np.ndarray) -> np.ndarray:
    """The range [place, place + 1) of every entry."""
    places = np.arange(len(ends), dtype=np.uint32)
    return np.column_stack([places, places + 1])


def _bitmaps(
    ranges: np.ndarray, ends: np.ndarray, nodes: np.ndarray, node_count: int
) -> tuple[np.ndarray, np.ndarray]:
    """Those of some ranges of lists that are worth marking, each once, and their bits."""
    bounds = np.concatenate([[0], ends]).astype(np.int64)
    counts = bounds[ranges[:, 1]] - bounds[ranges[:, 0]]
    chosen = np.unique(ranges[counts * BITMAP_IF_ONE_OF > node_count], axis=0)
    length = (node_count >> 6) + 1
    bits = np.empty((len(chosen), length), dtype="<u8")
    for row, (first, end) in zip(bits, bounds[chosen].tolist(), strict=True):
        flags = np.zeros(length << 6, dtype=np.bool_)
        flags[nodes[first:end]] = True
        row[:] = np.packbits(flags, bitorder="little").view("<u8")
    return chosen, bits
