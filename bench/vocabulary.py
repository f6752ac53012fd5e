"""How easily the words of an index are confused with one another."""

from __future__ import annotations

import random

from anchorline.core.gazetteer import Edition
from anchorline.core.gazetteer.searching.typos import corrections

SAMPLE = 500


def confusable(edition: Edition, seed: int = 1) -> float:
    """How many other words lie within one edit of a word of four letters or more, on average."""
    rng = random.Random(seed)
    words = [
        edition.words[i]
        for i in rng.sample(range(len(edition.words)), min(4 * SAMPLE, len(edition.words)))
    ]
    some = [word for word in words if word.isalpha() and len(word) > 3][:SAMPLE]
    near = [len(corrections(edition, word, 1, unfinished=False)) for word in some]
    return sum(near) / len(near)
