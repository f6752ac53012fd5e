"""The index of deletions: which words a misspelt one may have been meant for.

A word and its misspelling become equal when as many letters are left out of each as there are edits
(deletion neighbourhoods, after Mor and Fraenkel, 1982). The index has the beginnings of words, of
`SHORTEST` to `LONGEST` letters, with one letter left out, and those of `LONGEST` letters with two:
so unfinished words are corrected as well, and long words take no more room than short ones.
"""

from __future__ import annotations

from collections.abc import Iterable, Sequence

import numpy as np

from ..arrays import distinct_sorted
from ..typo_keys import LONGEST, SHORTEST, shortened, typo_key


def typo_arrays(vocabulary: Sequence[str]) -> dict[str, np.ndarray]:
    """`typo_keys`, `typo_prefixes` and `typo_prefix_words`."""
    ranges = _prefix_ranges(vocabulary)
    pairs: list[int] = []
    for number, prefix in enumerate(ranges):
        deepest = 2 if len(prefix) == LONGEST else 1
        for letters in range(deepest + 1):
            pairs += [typo_key(text) << 32 | number for text in shortened(prefix, letters)]
    sorted_pairs = distinct_sorted(np.array(pairs, dtype=np.uint64))
    return {
        "typo_keys": (sorted_pairs >> np.uint64(32)).astype(np.uint32),
        "typo_prefixes": (sorted_pairs & np.uint64(0xFFFFFFFF)).astype(np.uint32),
        "typo_prefix_words": np.array(
            [(first, end, len(prefix)) for prefix, (first, end) in ranges.items()] or [(0, 0, 0)],
            dtype=np.uint32,
        ),
    }


def _prefix_ranges(vocabulary: Sequence[str]) -> dict[str, tuple[int, int]]:
    """Every beginning of SHORTEST to LONGEST letters, and the range of words that have it.

    Only words of letters have one: digits are never corrected.
    """
    first: dict[str, int] = {}
    last: dict[str, int] = {}
    for number, word in enumerate(vocabulary):
        if word.isalpha():
            for prefix in _prefixes(word):
                first.setdefault(prefix, number)
                last[prefix] = number + 1
    return {prefix: (number, last[prefix]) for prefix, number in first.items()}


def _prefixes(word: str) -> Iterable[str]:
    return (word[:length] for length in range(SHORTEST, min(len(word), LONGEST) + 1))
