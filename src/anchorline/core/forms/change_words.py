"""The words of what changes between two documents of a form."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from typing import Any

from ..document_changes import Document

STYLES = {"whole": "all at once", "pages": "page by page", "questions": "one question at a time"}
WHOLE = {
    "title": "The title",
    "intro": "The introduction",
    "thanks": "What is said after sending",
    "language": "The language that the form is written in",
}
CONDITIONS = {
    "shown_when": ("is now always shown", "is now shown only when"),
    "required_when": ("is no longer required on a condition", "is now required when"),
}
PUBLIC = {
    "closed": "Whether the form is closed",
    "closed_text": "What is said while the form is closed",
    "sites": "The pages that may show the form in a frame",
    "without_trap": "Whether there is no field that only programs fill, the setting",
    "least_seconds": "The least time between opening and sending, in seconds,",
    "most_per_minute": "The most records a minute from one network address",
    "addresses_per_month": "The most addresses that its public page fetches in a month",
    "addresses_per_day": "The most addresses that its public page fetches on a day",
}
SETTINGS = {
    "help": "The help",
    "placeholder": "The placeholder",
    "max_length": "The most characters",
    "least": "The least",
    "most": "The most",
    "decimals": "The decimals",
    "unit": "The unit",
    "default": "What stands at first in the field",
    "form": "The form of the records",
    "shows": "What is shown of the records",
    "searches": "What else is searched of the records",
    "open_to_all": "Whether anyone may look the records up, the setting",
    "makes_new": "Whether a new record can be made, the setting",
    "phone": "What is said of the numbers",
    "columns": "The number of columns",
    "foldable": "Whether one can fold the section",
    "folded": "Whether the section is folded at first",
    "hidden": "Whether it is hidden, the setting",
    "component": "The component",
    "country": "The country that is chosen at first",
    "kinds": "What is offered in the finder",
}


def _differing(
    old: Sequence[Any], new: Sequence[Any], key: Callable[[Any], str]
) -> tuple[list[Any], list[Any]]:
    before, now = {key(one) for one in old}, {key(one) for one in new}
    return [o for o in old if key(o) not in now], [n for n in new if key(n) not in before]


def option_changes(called: str, old: Sequence[Document], new: Sequence[Document]) -> Iterator[str]:
    """What changes in the options of a choice."""
    gone, come = _differing(old, new, lambda option: str(option["value"]))

    def names(options: Sequence[Document]) -> str:
        return ", ".join(f"“{o.get('label') or o['value']}”" for o in options)

    if come:
        yield f"{called} offers {names(come)} too."
    if gone:
        yield f"{called} no longer offers {names(gone)}; records keep what they have."
    if not come and not gone:
        yield f"The options of {called} are called or ordered otherwise."


def country_changes(called: str, old: Sequence[str], new: Sequence[str]) -> Iterator[str]:
    """What changes in the countries of an address."""
    gone, come = _differing(old, new, str)
    if not old or not new:
        yield f"The address {called} is now there for {', '.join(new) or 'all countries'}."
        return
    if come:
        yield f"The address {called} is now there for {', '.join(come)} too."
    if gone:
        yield f"The address {called} is no longer there for {', '.join(gone)}."
    if not come and not gone:
        yield f"The countries of the address {called} stand in another order."


def example_changes(called: str, old: Sequence[Document], new: Sequence[Document]) -> Iterator[str]:
    """What changes in the examples of an address."""
    gone, come = _differing(old, new, lambda example: str(example["name"]))
    for example in come:
        yield f"The address {called} has the example “{example['name']}”."
    for example in gone:
        yield f"The address {called} no longer has the example “{example['name']}”."
    if not come and not gone:
        yield f"Examples of the address {called} expect something else."
