"""Another text for some texts, by a table."""

from __future__ import annotations

from .kind import Changed, Context, Setting, Settings, change


@change(
    "replace",
    "replaced by a table",
    "One text for another where it is the whole text: United Kingdom → UK. Case does not matter.",
    Setting("table", "What stands for what", "table"),
)
def replace(text: str, settings: Settings, _context: Context) -> Changed:
    """What the table has for the whole text, else the text as it is."""
    table = {name.casefold(): other for name, other in settings["table"].items()}
    return Changed(table.get(text.strip().casefold(), text))
