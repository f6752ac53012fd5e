"""Plain Latin letters for those with marks."""

from __future__ import annotations

import unicodedata

from ...abbreviations import in_two_letters
from ...text import fold_character
from .kind import Changed, Context, Setting, Settings, change

_LETTERS = {"one": "ü as u", "two": "ü as ue, ø as oe, å as aa"}


@change(
    "ascii",
    "without accents",
    "Plain letters for those with marks: Größe → Grosse. Other scripts stay as they are.",
    Setting("letters", "Letters that can be written with two", "choice", _LETTERS, "one"),
)
def ascii_letters(text: str, settings: Settings, _context: Context) -> Changed:
    """Plain Latin letters for those with marks, in their own case; other scripts stay."""
    composed = unicodedata.normalize("NFC", text)
    if settings.get("letters") == "two":
        composed = in_two_letters(composed)
    plain = "".join(map(_plain, composed))
    warning = "" if plain.isascii() else "letters that are not Latin stay as they are"
    return Changed(plain, warning=warning)


def _plain(character: str) -> str:
    if character.isascii():
        return character
    if unicodedata.category(character) in ("Pd", "Zs"):  # dashes and blanks of any width
        return "-" if unicodedata.category(character) == "Pd" else " "
    folded = fold_character(character)
    if not folded.isascii() or not folded:
        return character if not folded.isascii() else "'" if character in "’‘ʼ´" else ""
    return folded.capitalize() if character.isupper() else folded
