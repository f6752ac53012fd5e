"""As many characters as are wanted, with others put before or behind."""

from __future__ import annotations

from collections.abc import Iterable

from .kind import Changed, Context, Setting, Settings, change

_SIDES = {"before": "before it", "behind": "behind it"}


def _faults(settings: Settings) -> Iterable[tuple[str, str]]:
    if len(settings.get("with") or "0") != 1:
        yield "with", "Give one character to fill up with."


@change(
    "pad",
    "filled up",
    "At least so many characters: 7 → 007.",
    Setting("to", "Characters", "count"),
    Setting("with", "Filled up with", "text", default="0"),
    Setting("side", "Put", "choice", _SIDES, "before"),
    faults=_faults,
)
def pad(text: str, settings: Settings, _context: Context) -> Changed:
    """A text of at least so many characters."""
    width, sign = settings["to"], settings.get("with") or "0"
    fill = text.ljust if settings.get("side") == "behind" else text.rjust
    return Changed(fill(width, sign))
