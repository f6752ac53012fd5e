"""Small letters."""

from .kind import Changed, Context, Settings, change


@change(
    "lower", "in small letters", "Everything in small letters: Mill Lane → mill lane.", keeps=True
)
def lower(text: str, _settings: Settings, _context: Context) -> Changed:
    """Small letters."""
    return Changed(text.lower())
