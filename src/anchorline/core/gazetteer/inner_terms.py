"""The terms of numbers, units and boxes: one definition for index and query."""

from __future__ import annotations

import re

from ..layouts import Layout
from ..text import compact, tokens
from .arrays import UNIT_MARK

_LEADING_DIGITS = re.compile(r"\d+")


def terms_of(text: str) -> list[str]:
    """Folded terms by which a number or a unit is found: its parts, all of it, its digits."""
    found = tokens(text)
    digits = (m.group() for token in found if (m := _LEADING_DIGITS.match(token)))
    return list(dict.fromkeys((*found, compact(text), *digits)))


def inner_terms(number: str, unit: str, po_box: str, layout: Layout) -> list[str]:
    """Folded terms of all that tells an address from the others in its street or building.

    Terms of a unit or a box begin with `UNIT_MARK`: a number typed alone means the street's.
    """
    units = [*terms_of(unit)] if unit else []
    if po_box:
        units += [*terms_of(po_box), *layout.literal_words("po_box")]
    numbers = terms_of(number) if number else []
    return list(dict.fromkeys((*numbers, *(UNIT_MARK + term for term in units))))
