"""The keys of words with letters left out: one definition for index and query."""

from __future__ import annotations

from itertools import combinations
from zlib import crc32

# Beginnings of so many letters have keys.
SHORTEST, LONGEST = 3, 7


def typo_key(text: str) -> int:
    """The 32 bits under which a beginning with letters left out is kept."""
    return crc32(text.encode())


def shortened(text: str, letters: int) -> set[str]:
    """The text with exactly so many letters left out, in all ways."""
    kept = len(text) - letters
    return {"".join(part) for part in combinations(text, kept)} if kept > 0 else set()
