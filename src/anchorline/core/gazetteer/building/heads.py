"""For every beginning that many words share, a list of the heaviest nodes.

One typed letter is the beginning of hundreds of thousands of words, and people read only the first
rows. For every beginning with more than `HEAVY` postings, the heaviest nodes that have it in their
own name are listed for each country and kind, so that filters work as well.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence

import numpy as np

from ..arrays import HEAVY, distinct_sorted
from .nodes import Nodes
from .words import Words

HEAD_SIZE = 16


def head_arrays(nodes: Nodes, words: Words) -> dict[str, np.ndarray]:
    """`head_words`, `head_ends` and `head_nodes`."""
    order = np.lexsort((words.own_nodes, words.own_words))
    word, node, start = words.own_words[order], words.own_nodes[order], words.own_starts[order]
    ends = np.cumsum(np.bincount(word, minlength=len(words.vocabulary)))
    begins = np.concatenate([[0], ends])
    every = np.concatenate([[0], words.arrays["posting_ends"]]).astype(np.int64)
    _, country = np.unique(nodes.country, return_inverse=True)
    shelf = country.astype(np.int64) << 8 | nodes.kind
    found: list[np.ndarray] = []
    ranges: list[tuple[int, int]] = []
    for first, end in _heavy_ranges(words.vocabulary, every):
        span = slice(int(begins[first]), int(begins[end]))
        # One number that sorts by shelf, by whether the name begins so, and by weight.
        key = shelf[node[span]] << 40 | (~start[span]).astype(np.int64) << 39 | node[span]
        key = distinct_sorted(key)
        shelves = key >> 40
        new = np.concatenate([[True], shelves[1:] != shelves[:-1]])
        starts = np.flatnonzero(new)
        place = np.arange(len(key)) - np.repeat(starts, np.diff(np.append(starts, len(key))))
        kept = key[place < HEAD_SIZE] & 0x7FFFFFFFFF
        found.append(distinct_sorted(kept))
        ranges.append((first, end))
    lengths = [len(part) for part in found]
    return {
        "head_words": np.array(ranges, dtype=np.uint32).reshape(-1, 2),
        "head_ends": np.cumsum(lengths).astype(np.uint32),
        "head_nodes": np.concatenate([*found, np.zeros(1, np.int64)]).astype(np.uint32),
    }


def _heavy_ranges(vocabulary: Sequence[str], begins: np.ndarray) -> Iterator[tuple[int, int]]:
    """Ranges of words with a common beginning and more than HEAVY postings, each once."""
    seen: set[tuple[int, int]] = set()
    stack = [(0, len(vocabulary), 0)]
    while stack:
        first, end, depth = stack.pop()
        if begins[end] - begins[first] <= HEAVY:
            continue
        if depth and (first, end) not in seen:
            seen.add((first, end))
            yield first, end
        position = first
        while position < end:
            letter = vocabulary[position][depth : depth + 1]
            stop = position + 1
            while stop < end and vocabulary[stop][depth : depth + 1] == letter:
                stop += 1
            if letter:
                stack.append((position, stop, depth + 1))
            position = stop
