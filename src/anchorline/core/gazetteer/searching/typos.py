"""Words that a misspelt one may have been meant for.

Candidates are words that become equal to the typed one when letters are left out of both
(`building.typos`). Their distance is then computed: optimal string alignment, in which a letter
inserted, left out or replaced, or two neighbours swapped, is one edit. Postcodes are corrected by
looking up every text that is one edit away.
"""

from __future__ import annotations

from collections.abc import Iterator

import numpy as np

from ..compiled.edits import distance, keys_one_edit_away
from ..edition import Edition
from ..typo_keys import LONGEST, shortened, typo_key
from .terms import Span

SHORTEST_CORRECTED = 4
SHORTEST_TWICE = 8
SHORTEST_POSTCODE, LONGEST_POSTCODE = 4, 8


def edits_allowed(token: str) -> int:
    """How many edits a typed token may be away from a word: 0, 1, or 2 from eight letters on."""
    if not token.isalpha():
        return int(SHORTEST_POSTCODE <= len(token) <= LONGEST_POSTCODE and token.isascii())
    if len(token) < SHORTEST_CORRECTED:
        return 0
    return 2 if len(token) >= SHORTEST_TWICE else 1


def corrections(edition: Edition, token: str, edits: int, *, unfinished: bool) -> list[Span]:
    """Words `edits` edits away from a token, as ranges; postcodes for a token with digits.

    An unfinished token is compared with the beginnings of words.
    """
    if not token.isalpha():
        return _postcodes_near(edition, token) if edits == 1 else []
    found: dict[Span, None] = {}
    for span in _spans_near(edition, token, edits, unfinished):
        found[span] = None
    return list(found)


def _spans_near(edition: Edition, token: str, edits: int, unfinished: bool) -> Iterator[Span]:
    words = edition.words
    for first, end, length in _prefixes_near(edition, token, edits):
        if length == LONGEST and (not unfinished or len(token) >= LONGEST):
            for word in range(first, end):
                if distance(token, words[word], edits, unfinished) == edits:
                    yield word, word + 1
            continue
        word_or_prefix = words[first]
        if unfinished:
            if distance(token, word_or_prefix[:length], edits, False) == edits:
                yield first, end
        elif (
            len(word_or_prefix) == length and distance(token, word_or_prefix, edits, False) == edits
        ):
            yield first, first + 1


def _prefixes_near(edition: Edition, token: str, edits: int) -> list[list[int]]:
    """Beginnings of words that may be so near to the token's: range of words, and length."""
    head = token[:LONGEST]
    keys = {typo_key(text) for letters in range(edits + 1) for text in shortened(head, letters)}
    wanted = np.fromiter(keys, dtype=np.uint32, count=len(keys))
    low = np.searchsorted(edition.typo_keys, wanted).tolist()
    high = np.searchsorted(edition.typo_keys, wanted, side="right").tolist()
    prefixes = {
        edition.typo_prefixes_at[place]
        for first, end in zip(low, high, strict=True)
        for place in range(first, end)
    }
    spans: list[list[int]] = edition.typo_prefix_words[list(prefixes)].tolist()
    return spans


def _postcodes_near(edition: Edition, token: str) -> list[Span]:
    words = edition.words
    places = words.find_keys(keys_one_edit_away(token))
    found = sorted(place for place in set(places.tolist()) if not words[place].isalpha())
    return [(place, place + 1) for place in found]
