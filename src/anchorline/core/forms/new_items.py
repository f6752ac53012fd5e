"""New fields and slots: keys made from labels, and what a slot brings at first."""

from __future__ import annotations

from collections.abc import Collection, Sequence
from typing import Any

from ..text import fold

# One part for each of these, in this order; a country's layout shows those that it asks for.
USUAL_PARTS: tuple[str, ...] = (
    "organisation", "unit", "building", "number", "street", "po_box", "district", "town",
    "region", "region_code", "postcode",
)  # fmt: skip
_LONGEST_KEY = 40


def key_from(label: str, taken: Collection[str], otherwise: str = "field") -> str:
    """A key made from a label, which nothing has yet.

    Args:
        otherwise: where nothing of the label can stand in a key.
    """
    words = [word for word in fold(label).split() if word.isascii() and word.isalnum()]
    base = "_".join(words)[:_LONGEST_KEY].strip("_")
    if not base or not base[0].isalpha():
        base = f"{otherwise}_{base}".strip("_")
    key, number = base, 2
    while key in taken:
        key, number = f"{base}_{number}", number + 1
    return key


def new_slot(
    key: str, label: str, countries: Sequence[str], parts: Sequence[str] = USUAL_PARTS
) -> dict[str, Any]:
    """A slot with a part for each component, filled by a rule each."""
    return {
        "key": key,
        "label": label,
        "countries": list(countries),
        "parts": [{"key": f"{key}_{name}", "component": name} for name in parts],
        "mapping": [{"components": [name], "into": f"{key}_{name}"} for name in parts],
    }
