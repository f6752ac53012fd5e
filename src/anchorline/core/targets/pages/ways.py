"""How an input is found on a page, what is written into a list, where the finder sits."""

# Ways to find an input, each with what its value is.
WAYS: dict[str, str] = {
    "css": "a CSS selector (W3C Selectors)",
    "name": "the attribute `name`",
    "id": "the attribute `id`",
    "autocomplete": "an autofill token (WHATWG HTML) of the attribute `autocomplete`",
    "label": "the text of its label",
    "class_name": "a name in the attribute `class`",
}
# By what an option of a list is chosen.
WRITES: dict[str, str] = {
    "any": "its value, its text or a code in it, whichever fits first",
    "value": "its value",
    "text": "its text",
}
# Where the finder sits, seen from an input.
SITS: dict[str, str] = {
    "before": "in a box of ours before the input",
    "after": "in a box of ours behind the input",
    "instead": "in a box of ours, the input out of sight until it is filled",
}
# Autofill tokens of addresses and of whoever lives there (WHATWG HTML, section "Autofill").
AUTOFILL_TOKENS = (
    "name", "given-name", "family-name", "organization", "street-address", "address-line1",
    "address-line2", "address-line3", "address-level1", "address-level2", "address-level3",
    "address-level4", "country", "country-name", "postal-code", "tel", "email",
)  # fmt: skip
