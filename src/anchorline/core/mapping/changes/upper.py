"""Capitals, as the language of the country writes them."""

from ...layouts import in_capitals
from .kind import Changed, Context, Settings, change


@change("upper", "in capitals", "Everything in capitals: Mill Lane → MILL LANE.", keeps=True)
def upper(text: str, _settings: Settings, context: Context) -> Changed:
    """Capitals; German ß is SS, Turkish i is İ, Greek loses its accents."""
    return Changed(in_capitals(text, context.layout.languages))
