"""A number with so many decimals."""

from __future__ import annotations

from decimal import ROUND_HALF_UP, Decimal, InvalidOperation

from .kind import Changed, Context, Setting, Settings, change

_POINTS = {".": "a point", ",": "a comma"}


@change(
    "decimals",
    "with decimals",
    "A number with so many digits behind the point: 51.502345 → 51.50.",
    Setting("places", "Digits behind the point", "count", default=2, least=0, most=10),
    Setting("point", "Written with", "choice", _POINTS, "."),
)
def decimals(text: str, settings: Settings, _context: Context) -> Changed:
    """A number, rounded half up (away from zero); what is no number stays as it is."""
    places = settings.get("places", 2)
    try:
        value = Decimal(text.strip()).quantize(Decimal(1).scaleb(-places), ROUND_HALF_UP)
    except InvalidOperation:
        return Changed(text, warning=f"{text!r} is no number; it stays as it is")
    return Changed(f"{value:f}".replace(".", settings.get("point") or "."))
