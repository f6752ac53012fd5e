"""A postcode without its blank, or only its first part."""

from __future__ import annotations

import re

from .kind import Changed, Context, Setting, Settings, change

_AS = {"together": "without blank and hyphen (QV14AB)", "first_part": "its first part (QV1)"}


@change(
    "postcode",
    "postcode as",
    "A postcode without its blank, or its first part alone: QV1 4AB → QV14AB, QV1.",
    Setting("as", "Written as", "choice", _AS, "together"),
)
def postcode(text: str, settings: Settings, _context: Context) -> Changed:
    """A postcode without what parts it, or what stands before that."""
    if settings.get("as") == "first_part":
        return Changed(re.split(r"[\s\-–]", text.strip(), maxsplit=1)[0])
    return Changed(re.sub(r"[\s\-–]", "", text))
