"""The script of a value, and the direction in which it is read.

Scripts are ISO 15924 codes; only those that some layout has lines for are told apart.
"""

from __future__ import annotations

import re
import unicodedata
from collections.abc import Collection, Iterable

_HAN = "\u3005\u3400-\u4dbf\u4e00-\u9fff\uf900-\ufaff"
_LETTERS = {
    "Jpan": re.compile(f"[{_HAN}\u3040-\u30ff\uff66-\uff9d]"),
    "Hans": re.compile(f"[{_HAN}]"),
    "Hant": re.compile(f"[{_HAN}]"),
    "Hebr": re.compile("[\u0590-\u05ff\ufb1d-\ufb4f]"),
    "Kore": re.compile("[\uac00-\ud7a3\u1100-\u11ff\u3130-\u318f]"),
}


def is_written_in(script: str, values: Iterable[str]) -> bool:
    """Whether any of some values holds a letter of a script."""
    letters = _LETTERS[script]
    return any(letters.search(value) for value in values)


def direction(text: str) -> str:
    """`rtl` where the first letter with a direction runs from right to left, else `ltr`.

    The rule of the Unicode bidirectional algorithm for paragraphs (UAX 9, P2 and P3).
    """
    for character in text:
        kind = unicodedata.bidirectional(character)
        if kind in ("R", "AL"):
            return "rtl"
        if kind == "L":
            return "ltr"
    return "ltr"


_DOTTED = str.maketrans({"i": "İ", "ı": "I"})
_GREEK_ACCENTS = re.compile("(?<=[\u0370-\u03ff])\u0301")


def in_capitals(text: str, languages: Collection[str]) -> str:
    """A text in capitals as languages (BCP 47) write them.

    Turkish and Azerbaijani keep the dot of their i (Unicode's SpecialCasing), Greek capitals bear
    no accents. A name in ASCII letters alone may be of any language, and stays plain.
    """
    if not text.isascii() and not {"tr", "az"}.isdisjoint(languages):
        return text.translate(_DOTTED).upper()
    capitals = text.upper()
    if "el" in languages:
        bare = _GREEK_ACCENTS.sub("", unicodedata.normalize("NFD", capitals))
        return unicodedata.normalize("NFC", bare)
    return capitals
