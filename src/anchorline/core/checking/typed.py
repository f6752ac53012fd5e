"""What somebody typed into one box, laid into components so that nothing typed is lost.

This reads what a person typed before they went on by hand; it looks nothing up. Every word of the
text ends up in one of the components, in the spelling in which it was typed (the postcode in the
country's).
"""

from __future__ import annotations

import re
from collections.abc import Iterator, Mapping, Sequence

from ..address import Components
from ..layouts import Layout, says_what_it_is, spelt_postcode
from ..text import compact, fold, tokens

_PIECES = re.compile(r"[,;\n\r\t、，]+")
# A street number with its suffix: `12`, `12a`, `12-14`, `3/4b`.
_NUMBER = re.compile(r"\d+\w?([-/–]\d+\w?)*")
_MOST_POSTCODE_WORDS = 3
_MOST_UNIT_WORDS = 3


def components_from_text(layout: Layout, text: str) -> Components:
    """The components that a typed text most likely names, by the manner of a country.

    Args:
        layout: of the country that was chosen.
        text: as it was typed.

    Returns:
        Components in which every word of the text is found again; empty for an empty text. The
        name of the country at the end falls away.
    """
    pieces = [words for piece in _PIECES.split(text) if (words := piece.split())]
    known = {fold(name) for name in (*layout.known_names(), layout.country_code)}
    if len(pieces) > 1 and fold(" ".join(pieces[-1])) in known:
        pieces.pop()
    found: Components = {}
    rest = _without_postcode(layout, pieces, found)
    rest = _without_region(layout, rest, found)
    names = [" ".join(words) for words in rest]
    if len(names) > 1 and _is_unit(layout, names[0]):
        found["unit"] = names.pop(0)
    if names:
        found |= _street_and_number(layout, names.pop(0))
    if names:
        found["town"] = names.pop()
    if names:
        found["district"] = ", ".join(names)
    return found


def number_left_over(layout: Layout, typed: str, known: Mapping[str, str]) -> str:
    """The street number in a typed text that the components already known do not account for.

    `41` of `41 mill lane` where only the street is known; empty where there is none.
    """
    there = {token for value in known.values() for token in tokens(value)}
    there |= {compact(value) for value in known.values()}
    words = typed.replace(",", " ").split()
    taken = {
        place
        for start, width in _postcode_spans(layout, words)
        for place in range(start, start + width)
    }
    for place, word in enumerate(words):
        if place not in taken and _NUMBER.fullmatch(word) and compact(word) not in there:
            return word
    return ""


def _without_postcode(
    layout: Layout, pieces: Sequence[Sequence[str]], found: Components
) -> list[list[str]]:
    """The pieces without the postcode, cut in two where it stood between words."""
    rest: list[list[str]] = []
    for place, piece in enumerate(pieces):
        words = list(piece)
        spans = [] if "postcode" in found else _spans_of(layout, words, first=place == 0)
        if not spans:
            rest.append(words)
            continue
        start, width = spans[-1]
        found["postcode"] = spelt_postcode(layout, " ".join(words[start : start + width])) or ""
        rest += [part for part in (words[:start], words[start + width :]) if part]
    return rest


def _spans_of(layout: Layout, words: Sequence[str], *, first: bool) -> list[tuple[int, int]]:
    """Where a piece has a postcode; a number in front of a street is the street's."""
    return [
        (start, width)
        for start, width in _postcode_spans(layout, words)
        if not (first and start == 0 and width < len(words) and layout.number_first)
    ]


def _postcode_spans(layout: Layout, words: Sequence[str]) -> Iterator[tuple[int, int]]:
    """Where words are a whole postcode of the country: first word and count, the longest first."""
    if not layout.masks:
        return
    place = 0
    while place < len(words):
        for width in range(min(_MOST_POSTCODE_WORDS, len(words) - place), 0, -1):
            text = " ".join(words[place : place + width])
            if any(c.isdigit() for c in text) and spelt_postcode(layout, text) is not None:
                yield place, width
                place += width - 1
                break
        place += 1


def _without_region(layout: Layout, pieces: list[list[str]], found: Components) -> list[list[str]]:
    """The pieces without the last one, where that is a region of the country."""
    if len(pieces) < 2:
        return pieces
    text = " ".join(pieces[-1])
    region = layout.region_by_name(text) or layout.region_by_code(text)
    if region is None:
        return pieces
    found |= {"region": region.name, "region_code": region.code}
    return pieces[:-1]


def _is_unit(layout: Layout, text: str) -> bool:
    """Whether a piece is a unit that says what it is: `Flat 3`, and not `Flat Street 3b`."""
    words = tokens(text)
    return (
        0 < len(words) <= _MOST_UNIT_WORDS
        and words[-1][:1].isdigit()
        and says_what_it_is(layout, "unit", text)
    )


def _street_and_number(layout: Layout, text: str) -> Components:
    words = text.split()
    at_front, at_end = (bool(_NUMBER.fullmatch(words[i])) for i in (0, -1))
    if len(words) > 1 and at_front and (layout.number_first or not at_end):
        return {"number": words[0], "street": " ".join(words[1:])}
    if len(words) > 1 and at_end:
        return {"number": words[-1], "street": " ".join(words[:-1])}
    return {"street": text}
