"""In which script a value is written, and in which direction it runs.

Scripts are ISO 15924 codes; only those that a layout has lines of their own for are told apart.
"""

from __future__ import annotations

import re
import unicodedata
from collections.abc import Iterable

_HAN = "\u3005\u3400-\u4dbf\u4e00-\u9fff\uf900-\ufaff"
_LETTERS = {
    "Jpan": re.compile(f"[{_HAN}\u3040-\u30ff\uff66-\uff9d]"),
    "Hans": re.compile(f"[{_HAN}]"),
    "Hant": re.compile(f"[{_HAN}]"),
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
