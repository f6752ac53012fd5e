"""A country's postcodes: its masks, what they begin with, and which region they lie in."""

from __future__ import annotations

from collections.abc import Iterable, Iterator

from .masks import canonical_postcode, letters_and_digits, may_become
from .model import Layout, Region


def spelt_postcode(layout: Layout, typed: str) -> str | None:
    """The postcode as the country spells it, or None where it is none of the country's.

    What people put before it is taken away where it does not belong there (`D-10115`, `SE-111
    22`), and put there where it does (`2001` for `MD-2001`).
    """
    for candidate in _candidates(layout, typed):
        spelt = canonical_postcode(candidate, layout.masks)
        if spelt is not None and _begins_right(layout, spelt):
            return spelt
    return None


def postcode_beginnings(layout: Layout, typed: str) -> list[str]:
    """What was typed as the beginnings of postcodes of the country that it may be.

    Letters and digits alone, in capitals, with and without what people put before a postcode;
    empty where it can become none. Where the country's masks are not known, anything may.
    """
    if not layout.masks:
        return [letters_and_digits(typed)]
    candidates = dict.fromkeys(_candidates(layout, typed))
    return [one for one in candidates if may_become(one, layout.masks)]


def regions_of_postcode(layout: Layout, postcode: str) -> list[Region]:
    """The regions that a postcode may lie in, as far as the country's scheme tells; else none."""
    typed = letters_and_digits(postcode)
    return [
        region
        for region in layout.regions
        if any(_lies_in(typed, span) for span in region.postcodes)
    ]


def _candidates(layout: Layout, typed: str) -> Iterator[str]:
    plain = letters_and_digits(typed)
    yield plain
    for prefix in (layout.country_code, *layout.postcode_prefixes):
        if plain.startswith(prefix):
            yield plain[len(prefix) :]
    if plain[:1].isdigit():
        yield from (start + plain for start in layout.postcode_starts if start.isalpha())


def _begins_right(layout: Layout, postcode: str) -> bool:
    starts, typed = layout.postcode_starts, letters_and_digits(postcode)
    if typed.startswith(tuple(layout.never_first)):
        return False
    return not starts or typed.startswith(starts)


def _lies_in(typed: str, span: str) -> bool:
    """Whether a postcode begins with one of the beginnings from `900` to `961`."""
    first, _, last = span.partition("-")
    return first <= typed[: len(first)] <= (last or first)


def well_formed_spans(spans: Iterable[str]) -> bool:
    """Whether beginnings are written as `900` or `900-961`, both ends of one length."""
    for span in spans:
        first, dash, last = span.partition("-")
        if not first.isalnum() or (dash and (len(first) != len(last) or first > last)):
            return False
    return True
