"""Where a folded text stands in another one whose characters may fold to several (ß to ss).

`ss` is found in `straße` and `s` is not: what is found begins and ends where characters do. One
pass over both (Knuth, Morris and Pratt 1977), so that no text makes it take longer than its length.
"""

from __future__ import annotations

from collections.abc import Sequence


def place_of_whole(wanted: str, characters: Sequence[str], first: int) -> int:
    """The place of the character with which a text begins, from 0; -1 where it does not stand.

    Args:
        wanted: folded.
        characters: those of the other text, each folded by itself.
        first: the place from which it is looked for; at most as many as there are characters.
    """
    if not wanted:
        return first
    borders = _borders(wanted)
    begins_at: dict[int, int] = {}
    at = matched = 0
    for place in range(first, len(characters)):
        begins_at[at] = place
        for letter in characters[place]:
            while matched == len(wanted) or (matched and wanted[matched] != letter):
                matched = borders[matched - 1]
            matched += wanted[matched] == letter
            at += 1
        if matched == len(wanted) and at - matched in begins_at:
            return begins_at[at - matched]
    return -1


def _borders(text: str) -> list[int]:
    """For each beginning of a text the length of its longest end that is a beginning as well."""
    borders = [0] * len(text)
    length = 0
    for place in range(1, len(text)):
        while length and text[length] != text[place]:
            length = borders[length - 1]
        length += text[length] == text[place]
        borders[place] = length
    return borders
