"""The first characters."""

from .kind import Changed, Context, Setting, Settings, change


@change(
    "first",
    "first characters only",
    "So many characters from the front: Brackwater → BRA with 3 and in capitals.",
    Setting("count", "Characters", "count"),
)
def first(text: str, settings: Settings, _context: Context) -> Changed:
    """The first characters; a blank at their end falls away."""
    return Changed(text[: settings["count"]].rstrip())
