"""A country as one name or code of it."""

from __future__ import annotations

from ...layouts import Layout, alpha_3_code, numeric_code
from ...text import fold
from .kind import Changed, Context, Setting, Settings, change

_AS = {
    "name": "name in a language",
    "local": "its own name",
    "alpha_2": "two letters (GB)",
    "alpha_3": "three letters (GBR)",
    "numeric": "number (826)",
    "nation": "nation (Wales), else its name",
}


@change(
    "country",
    "country as",
    "The country in the words of another system: United Kingdom → GBR.",
    Setting("as", "Written as", "choice", _AS, "name"),
    Setting("language", "Language of the name", "language", default="en"),
)
def country(text: str, settings: Settings, context: Context) -> Changed:
    """The country that a text names, as its name or a code (ISO 3166-1)."""
    meant = _meant(text, context)
    if meant is None:
        return Changed(text, warning=f"{text!r} is no country that is known; it stays as it is")
    return Changed(_written(meant, settings, context))


def _meant(text: str, context: Context) -> Layout | None:
    if text in (context.layout.name, context.layout.country_code):
        return context.layout
    wanted = fold(text)
    layouts: tuple[Layout, ...] = (context.layout, *(context.layouts or ()))
    for layout in layouts:
        codes = (layout.country_code, alpha_3_code(layout.country_code))
        if text.strip().upper() in codes or wanted in map(fold, layout.known_names()):
            return layout
    return None


def _written(meant: Layout, settings: Settings, context: Context) -> str:
    style, code = settings.get("as") or "name", meant.country_code
    if style == "alpha_2":
        return code
    if style == "alpha_3":
        return alpha_3_code(code)
    if style == "numeric":
        return numeric_code(code)
    if style == "local":
        return meant.name_in(meant.languages[0]) if meant.languages else meant.name
    nation = context.components.get("nation", "")
    if style == "nation" and nation and meant is context.layout:
        return nation
    return meant.name_in(settings.get("language") or "en")
