"""Shorter at a word's end, the country's abbreviations first."""

from __future__ import annotations

from ...abbreviations import short_form
from .kind import Changed, Context, Setting, Settings, change


@change(
    "shorten",
    "shortened to the field",
    "Not longer than the field: words are abbreviated as the country does it (Street → St), then "
    "the text ends with the last word that fits.",
    Setting("to", "Characters, where not those of the field", "count", default=0, least=0),
)
def shorten(text: str, settings: Settings, context: Context) -> Changed:
    """A text that is not longer than the field.

    Words are abbreviated from the last to the first, each only while that is needed. Then the text
    ends at a word's end; one word alone is cut inside.
    """
    limit = settings.get("to") or context.limit
    if not limit or len(text) <= limit:
        return Changed(text)
    shorter = abbreviated(text, limit, context.layout.languages)
    if len(shorter) <= limit:
        return Changed(shorter, shortened=True)
    blanks = [at for at in range(1, limit + 1) if shorter[at].isspace()]
    kept = shorter[: blanks[-1] if blanks else limit].rstrip(" ,;-/")
    return Changed(kept, lost=shorter[len(kept) :].strip(" ,;"), shortened=True)


def abbreviated(text: str, limit: int, languages: tuple[str, ...]) -> str:
    """A text with so few words abbreviated that it fits; with all that can be, where none do."""
    words = text.split(" ")
    for at in reversed(range(len(words))):
        if len(" ".join(words)) <= limit:
            break
        words[at] = short_form(words[at], languages) or words[at]
    return " ".join(words)
