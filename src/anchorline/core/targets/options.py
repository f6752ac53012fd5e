"""Which option of a list a text means; pages do it in the same way (embed, `attach/options.ts`).

Both are held together by `tests/vectors/options.json`.
"""

from __future__ import annotations

import re
import unicodedata
from collections.abc import Callable, Iterable
from dataclasses import dataclass

# By what an option is chosen.
WRITES: dict[str, str] = {
    "any": "its value, its text or a code in it, whichever fits first",
    "value": "its value",
    "text": "its text",
}
_BRACKETS_AT_END = re.compile(r"\s*[(\[][^()\[\]]*[)\]]\s*$")
_NO_WORD = re.compile(r"[\W_]+")


@dataclass(frozen=True, slots=True)
class Option:
    """An option by what its page or program calls it, and by what people read."""

    value: str
    text: str


def fitting(options: Iterable[Option], text: str, writes: str = "any") -> Option | None:
    """The option that is meant; None for none.

    By its value, by its text, by its text without what stands in brackets at its end, or by a word
    in one of them, such as a code.

    Args:
        writes: a key of WRITES.
    """
    wanted = plain(text)
    listed = list(options)
    if not wanted:
        return next((one for one in listed if not plain(one.value)), None)
    ways: list[Callable[[Option], bool]] = []
    if writes != "text":
        ways.append(lambda one: plain(one.value) == wanted)
    if writes != "value":
        ways.append(lambda one: plain(one.text) == wanted)
        ways.append(lambda one: plain(_BRACKETS_AT_END.sub("", one.text)) == wanted)
    if writes == "any":
        ways.append(lambda one: wanted in map(plain, _NO_WORD.split(f"{one.value} {one.text}")))
    for way in ways:
        found = next((one for one in listed if way(one)), None)
        if found is not None:
            return found
    return None


def plain(text: str) -> str:
    """A text without case, blanks and signs (Unicode NFC, categories P and Z)."""
    normal = unicodedata.normalize("NFC", text).lower()
    return "".join(
        sign for sign in normal if not sign.isspace() and unicodedata.category(sign)[0] != "P"
    )
