"""The changes that a rule can make to its text."""

from __future__ import annotations

import unicodedata
from collections.abc import Callable

from ..text import fold_character

# A change takes the text and the receiving field's length in characters, if it has one.
Change = Callable[[str, int | None], str]


def upper(text: str, _length: int | None) -> str:
    """Capitals."""
    return text.upper()


def ascii_letters(text: str, _length: int | None) -> str:
    """Plain Latin letters for those with marks, in their own case; other scripts stay."""
    return "".join(map(_plain, unicodedata.normalize("NFC", text)))


def shorten(text: str, length: int | None) -> str:
    """Cut at the end of a word so that it fits the field; one long word is cut inside."""
    if length is None or len(text) <= length:
        return text
    blanks = [at for at in range(1, length + 1) if text[at].isspace()]
    return text[: blanks[-1] if blanks else length].rstrip(" ,;-/")


def _plain(character: str) -> str:
    if character.isascii():
        return character
    folded = fold_character(character)
    if not folded.isascii() or not folded:
        return character if not folded.isascii() else ""
    return folded.capitalize() if character.isupper() else folded


CHANGES: dict[str, Change] = {"upper": upper, "ascii": ascii_letters, "shorten": shorten}
