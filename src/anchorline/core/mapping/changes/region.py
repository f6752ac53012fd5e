"""A region as its name or its code."""

from __future__ import annotations

from .kind import Changed, Context, Setting, Settings, change

_AS = {"name": "name", "code": "code (CA)", "full_code": "code with the country (US-CA)"}


@change(
    "region",
    "region as",
    "The region by its name or its code (ISO 3166-2): California → CA.",
    Setting("as", "Written as", "choice", _AS, "name"),
)
def region(text: str, settings: Settings, context: Context) -> Changed:
    """The region that a text names; where its country lists none, the text as it is."""
    layout = context.layout
    found = layout.region_by_name(text) or layout.region_by_code(text)
    if found is None:
        is_listed = bool(layout.regions)
        warning = f"{text!r} is no region of {layout.name}; it stays as it is" if is_listed else ""
        return Changed(text, warning=warning)
    style = settings.get("as") or "name"
    if style == "name":
        return Changed(found.name)
    return Changed(found.code if style == "code" else f"{layout.country_code}-{found.code}")
