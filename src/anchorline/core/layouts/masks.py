"""Postcode masks: `9` a digit, `A` a letter, `*` either, anything else itself.

People type postcodes sloppily: without the space, in small letters, in full-width digits.
What they type is compared with the blanks and signs left out on both sides, and the
canonical form puts the mask's own back in.
"""

from __future__ import annotations

import unicodedata
from collections.abc import Iterable
from functools import lru_cache

_WILD = "9A*"


def canonical_postcode(typed: str, masks: Iterable[str]) -> str | None:
    """The postcode spelt as the first mask it fits has it, or None where it fits none.

    `canonical_postcode(canonical_postcode(x)) == canonical_postcode(x)`.
    """
    bare = letters_and_digits(typed)
    for mask in masks:
        spelt = _fit(bare, mask)
        if spelt is not None:
            return spelt
    return None


def may_become(typed: str, masks: Iterable[str]) -> bool:
    """Whether what was typed is the beginning of a postcode of one of the masks."""
    bare = letters_and_digits(typed)
    return bool(bare) and any(
        len(bare) <= len(pattern) and all(map(_matches, bare, pattern))
        for pattern in map(_bare_mask, masks)
    )


def letters_and_digits(text: str) -> str:
    """A postcode's letters and digits alone, in capitals; full-width ones as plain ones.

    Decimal digits of every script (Arabic-Indic, Devanagari …) are digits.
    """
    plain = unicodedata.normalize("NFKC", text).upper()
    return "".join(_plain_digit(c) for c in plain if c.isalnum())


def _plain_digit(character: str) -> str:
    return str(unicodedata.decimal(character)) if character.isdecimal() else character


@lru_cache(maxsize=4096)
def _bare_mask(mask: str) -> str:
    return "".join(c for c in mask if c.isalnum() or c == "*")


def _matches(character: str, place: str) -> bool:
    if place == "9":
        return character.isascii() and character.isdigit()
    if place == "A":
        return character.isascii() and character.isalpha()
    if place == "*":
        return character.isascii() and character.isalnum()
    return character == place.upper()


def _fit(bare: str, mask: str) -> str | None:
    """`bare` laid into `mask` with the mask's own signs between, or None."""
    if len(bare) != len(_bare_mask(mask)):
        return None
    characters = iter(bare)
    spelt = []
    for place in mask:
        if place not in _WILD and not place.isalnum():
            spelt.append(place)
            continue
        character = next(characters)
        if not _matches(character, place):
            return None
        spelt.append(character)
    return "".join(spelt)
