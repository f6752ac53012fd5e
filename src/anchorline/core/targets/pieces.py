"""A text split over several inputs: a postcode in two, a telephone number in three.

Pages do it in the same way (embed, `attach/pieces.ts`); `tests/vectors/pieces.json` holds both.
"""

from __future__ import annotations

import re
from collections.abc import Sequence

_BETWEEN = re.compile(r"[\s\-–./()]+")


def split(text: str, lengths: Sequence[int | None]) -> list[str]:
    """A text as so many pieces.

    Where it has as many groups as there are pieces, each group is one; else its characters, without
    what stood between them, are dealt out by the pieces' lengths. What is too much stays in the
    last.

    Args:
        lengths: characters that each piece takes; None where that is not known.
    """
    count = len(lengths)
    groups = [group for group in _BETWEEN.split(text.strip()) if group]
    if not groups:
        return [""] * count
    fits = all(
        length is None or len(group) <= length
        for group, length in zip(groups, lengths, strict=False)
    )
    if len(groups) == count and fits:
        return groups
    together = "".join(groups)
    pieces: list[str] = []
    for length in lengths[:-1]:
        # Of a piece that does not say what it takes, a group of its own is all that is known.
        taken = length if length is not None else len(groups[min(len(pieces), len(groups) - 1)])
        pieces.append(together[:taken])
        together = together[taken:]
    return [*pieces, together]


def joined(pieces: Sequence[str]) -> str:
    """What stands in pieces, as one text."""
    return " ".join(piece for piece in pieces if piece)
