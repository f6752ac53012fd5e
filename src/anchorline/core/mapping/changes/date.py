"""A date in another form."""

from __future__ import annotations

import re
from collections.abc import Iterable
from datetime import date as calendar_date

from babel.dates import format_date

from .kind import Changed, Context, Setting, Settings, change

# Letters of Unicode's date patterns (UTS 35) that stand for days, months and years.
_PATTERN = re.compile(r"(?:d{1,2}|M{1,4}|y{1,4}|E{1,4}|[^A-Za-z'])+")


def _faults(settings: Settings) -> Iterable[tuple[str, str]]:
    if not _PATTERN.fullmatch(settings.get("form") or "yyyy-MM-dd"):
        yield "form", "Write the form with d, M and y, such as dd.MM.yyyy or d MMMM yyyy."


@change(
    "date",
    "date as",
    "A date in another form: 2027-03-01 → 01.03.2027.",
    Setting("form", "Form, with d, M and y", "text", default="dd.MM.yyyy"),
    Setting("language", "Language of names of months", "language", default="en"),
    faults=_faults,
)
def date(text: str, settings: Settings, _context: Context) -> Changed:
    """An ISO 8601 date in the form of a Unicode pattern; what is no date stays as it is."""
    try:
        day = calendar_date.fromisoformat(text.strip())
    except ValueError:
        return Changed(text, warning=f"{text!r} is no date; it stays as it is")
    language = (settings.get("language") or "en").replace("-", "_")
    return Changed(format_date(day, settings.get("form") or "dd.MM.yyyy", locale=language))
