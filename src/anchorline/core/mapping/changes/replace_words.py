"""Other words for some words of a text, by a table."""

from __future__ import annotations

import re

from .kind import Changed, Context, Setting, Settings, change


@change(
    "replace_words",
    "words replaced by a table",
    "Words inside the text, by a table: Saint → St in Saint Mary's Lane. Case does not matter.",
    Setting("table", "What stands for what", "table"),
)
def replace_words(text: str, settings: Settings, _context: Context) -> Changed:
    """A text with whole words replaced, the longest first; what was replaced stays so."""
    table = {words.casefold(): other for words, other in settings["table"].items() if words}
    if not table:
        return Changed(text)
    longest_first = sorted(table, key=len, reverse=True)
    pattern = "|".join(re.escape(words) for words in longest_first)
    found = re.compile(rf"(?<!\w)(?:{pattern})(?!\w)", re.IGNORECASE)
    changed = found.sub(lambda match: table.get(match.group().casefold(), match.group()), text)
    return Changed(" ".join(changed.split()))
