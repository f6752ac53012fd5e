"""What a field's label says that it is: components of an address, or one of its numbered lines.

Forms and targets read labels alike; whose words they are is in `table.address_columns`.
"""

from __future__ import annotations

import re

from ..layouts import LayoutLibrary
from .table.address_columns import component_of

STREET = ("number", "street")
# HTML's autofill tokens (WHATWG HTML, section "Autofill"), with what they stand for.
AUTOFILL: dict[str, tuple[str, ...]] = {
    "organization": ("organisation",),
    "address-line1": STREET,
    "address-line2": ("unit", "building"),
    "address-line3": ("district",),
    "street-address": (),
    "address-level1": ("region",),
    "address-level2": ("town",),
    "address-level3": ("district",),
    "postal-code": ("postcode",),
    "country": ("country_code",),
    "country-name": ("country",),
}
_LINE = re.compile(
    r"(?<![^\W_])(?:address|line|adresse|regel|zeile|ligne|linha)[\W_]*(\d)$", re.IGNORECASE
)
# Words of fields for a firm, which tables of addresses leave out.
_FIRM = frozenset(
    {"organisation", "organization", "company", "firm", "business", "firma", "unternehmen",
     "entreprise", "société", "bedrijf", "empresa", "会社名"}
)  # fmt: skip
_JOINED = re.compile(r"\s*(?:[,/&+]|\b(?:and|und|et|en|e)\b)\s*", re.IGNORECASE)


def line_number(text: str) -> int:
    """Which line of an address a label is of; 0 for none."""
    found = _LINE.search(text)
    return int(found[1]) if found else 0


def named_components(
    text: str, layouts: LayoutLibrary, *, may_join: bool = True
) -> tuple[tuple[str, ...], str]:
    """The components that a text names, in their order, and the words that name them.

    Args:
        may_join: several may be named, as in `Unit and building`.

    Returns:
        No components, and an empty text, where it names none.
    """
    joined = _joined(text, layouts) if may_join else ()
    if joined:
        return joined, text
    if text.casefold().strip() in _FIRM:
        return ("organisation",), text
    component, word = component_of(text, layouts)
    return ((component,) if component else ()), word


def _joined(text: str, layouts: LayoutLibrary) -> tuple[str, ...]:
    found = [component_of(piece, layouts)[0] for piece in _JOINED.split(text)]
    if len(found) < 2 or not all(found) or len(set(found)) < len(found):
        return ()
    return STREET if set(found) == set(STREET) else tuple(found)
