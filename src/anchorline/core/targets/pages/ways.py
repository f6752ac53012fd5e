"""How a field is found on a page, and where the finder sits."""

from ..options import WRITES

# Ways to find a field, each with what its value is.
WAYS: dict[str, str] = {
    "css": "a CSS selector (W3C Selectors)",
    "name": "the attribute `name`",
    "id": "the attribute `id`",
    "autocomplete": "an autofill token (WHATWG HTML) of the attribute `autocomplete`",
    "label": "the text of its label",
    "class_name": "a name in the attribute `class`",
}
# What makes a way narrower where it finds several.
NARROWER: dict[str, str] = {
    "block": "the heading of the part of the page that it stands in",
    "position": "which of those that are found, counted from 1",
}
# Where the finder sits, seen from a field.
SITS: dict[str, str] = {
    "before": "in a box of ours before the field",
    "after": "in a box of ours behind the field",
    "instead": "in a box of ours, the field out of sight until it is filled",
}
# Autofill tokens of addresses and of whoever lives there (WHATWG HTML, section "Autofill").
AUTOFILL_TOKENS = (
    "name", "given-name", "family-name", "organization", "street-address", "address-line1",
    "address-line2", "address-line3", "address-level1", "address-level2", "address-level3",
    "address-level4", "country", "country-name", "postal-code", "tel", "email",
)  # fmt: skip

__all__ = ["AUTOFILL_TOKENS", "NARROWER", "SITS", "WAYS", "WRITES"]
