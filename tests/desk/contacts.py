"""A target of the stand-in with five plain fields, as a document."""

FIELDS = ("line1", "line2", "town", "postcode", "country")
LABELS = ("Address line 1", "Address line 2", "Town", "Postcode", "Country")
MAPPING = (
    {"fit": {"into": ["line1", "line2"], "width": 60}},
    {"components": ["town"], "into": "town"},
    {"components": ["postcode"], "into": "postcode"},
    {"components": ["country"], "into": "country"},
)


def contacts_document(title="Contacts", **changes):
    """The target; every part of it is its own."""
    address = {
        "key": "home", "label": "Home", "countries": ["GB"], "practice_word": "practice",
        "mapping": [dict(rule) for rule in MAPPING], "writing": {},
    }  # fmt: skip
    return {
        "key": "contacts", "kind": "program", "title": title,
        "screens": [{"key": "contact", "conditions": [
            {"kind": "program", "text": "contacts"},
            {"kind": "title", "test": "begins", "text": "Contact"},
        ]}],
        "fields": [
            {"key": key, "label": label} for key, label in zip(FIELDS, LABELS, strict=True)
        ],
        "addresses": [address], **changes,
    }  # fmt: skip
