"""A street number apart from its suffix."""

from __future__ import annotations

import re

from .kind import Changed, Context, Setting, Settings, change

_PARTS = {"digits": "the number (12 of 12a)", "suffix": "what follows it (a of 12a)"}
# A number or a range, then whatever stands behind it.
_NUMBER = re.compile(r"\s*(\d+(?:\s*[-–]\s*\d+)*)\s*[-/ ]?\s*(.*)", re.DOTALL)


@change(
    "number",
    "part of the number",
    "A street number apart from its suffix: 12a → 12, or a.",
    Setting("part", "Which part", "choice", _PARTS, "digits"),
)
def number(text: str, settings: Settings, _context: Context) -> Changed:
    """The number, or its suffix; a number without digits is all number."""
    found = _NUMBER.fullmatch(text)
    is_suffix = settings.get("part") == "suffix"
    if found is None:
        return Changed("" if is_suffix else text)
    return Changed(found[2].strip() if is_suffix else found[1])
