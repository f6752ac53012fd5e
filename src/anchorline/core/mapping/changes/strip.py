"""Without some signs."""

from __future__ import annotations

from .kind import Changed, Context, Setting, Settings, change

_USUAL = ".,;:'’\"-–/\\()#"


@change(
    "strip",
    "without signs",
    "Takes signs out: St. Mary's → St Marys.",
    Setting("signs", "Signs that are taken out", "text", default=_USUAL),
)
def strip(text: str, settings: Settings, _context: Context) -> Changed:
    """A text without signs; blanks that meet then are one."""
    signs = settings.get("signs") or _USUAL
    return Changed(" ".join("".join(c for c in text if c not in signs).split()))
