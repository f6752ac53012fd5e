"""Packing the parts of an address into so many lines of so many characters.

What a careful clerk does, in this order of importance: lose nothing, cut no word, keep number and
street together, tear no part apart, abbreviate as few words as can be, use as few lines as that
takes, leave no part alone in a line, break between the country's own lines, make lines alike in
length. Of all ways to break the words into lines the best one is found; only where none holds
everything are words given up, from the parts that mail needs least, and what of them fits beside
the others is taken back.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass, replace
from itertools import groupby

from ..text import has_spaceless_script
from .breaking import BOUND, CUT, INNER, LINE, PIECE, Row, Word, best_lines

# From the parts that mail can be delivered without to those that it cannot.
_GIVEN_UP = (
    "country", "country_code", "nation", "region", "region_code", "recipient", "organisation",
    "place", "building", "district", "town", "postcode", "unit", "po_box", "street", "number",
)  # fmt: skip


@dataclass(frozen=True, slots=True)
class Part:
    """A part of an address on its way into lines.

    Attributes:
        components: whose values stand in it.
        before: what parts it from the part before it, if they stand in one line.
        begins_line: whether the country begins a line with it.
        is_bound: whether it belongs together with the part before it: number and street.
    """

    components: tuple[str, ...]
    text: str
    before: str
    begins_line: bool
    is_bound: bool = False


@dataclass(frozen=True, slots=True)
class Packed:
    """Parts in lines.

    Attributes:
        lines: none of them empty or longer than wanted.
        places: of each line the places of the parts in it.
        abbreviated: words that were, with what they are now.
        lost: what found no room, by the place of its part.
        cut: words that were longer than a line and go on in the next one.
    """

    lines: tuple[str, ...]
    places: tuple[tuple[int, ...], ...] = ()
    abbreviated: tuple[tuple[str, str], ...] = ()
    lost: tuple[tuple[int, str], ...] = ()
    cut: tuple[str, ...] = ()


def pack(parts: Sequence[Part], count: int, width: int, short_form: Callable[[str], str]) -> Packed:
    """Parts in at most `count` lines of at most `width` characters.

    Args:
        short_form: of a word; empty where it has none.
    """
    words = _words(parts, width, short_form)
    lost: list[Word] = []
    best = best_lines(words, count, width)
    if best is None:
        words, lost, best = _best_of_some(words, parts, count, width)
    cut = dict.fromkeys(
        parts[word.at].text for word in words if word.breaks == CUT and not word.short
    )
    return Packed(
        lines=tuple(row.text for row in best),
        places=tuple(row.places for row in best),
        abbreviated=tuple(pair for row in best for pair in row.abbreviated),
        lost=tuple(_joined(lost)),
        cut=tuple(cut),
    )


def pack_by_lines(
    parts: Sequence[Part], count: int, width: int, short_form: Callable[[str], str]
) -> Packed:
    """Parts in the country's own lines, each broken where it is too long.

    Where they come to more than `count`, in as many lines as there are, each as short as can be.
    """
    of_country = _of_country(parts, count, width, short_form)
    if of_country is not None:
        return of_country
    best = pack(parts, count, width, short_form)
    # The narrowest in which as much is as whole as in the widest.
    narrow, wide = 1, max(map(len, best.lines), default=1)
    while narrow < wide:
        middle = (narrow + wide) // 2
        tried = pack(parts, count, middle, short_form)
        if _harm(tried, parts) == _harm(best, parts):
            best, wide = tried, middle
        else:
            narrow = middle + 1
    return best


def _harm(packed: Packed, parts: Sequence[Part]) -> tuple[object, ...]:
    """What packing has done to parts: lost, cut, abbreviated, torn, parted from their neighbour."""
    line_of: dict[int, set[int]] = {}
    for number, here in enumerate(packed.places):
        for at in here:
            line_of.setdefault(at, set()).add(number)
    torn = [at for at, lines in line_of.items() if len(lines) > 1]
    parted = [
        at for at, lines in line_of.items() if parts[at].is_bound and lines != line_of.get(at - 1)
    ]
    return packed.lost, packed.cut, packed.abbreviated, torn, parted


def _of_country(
    parts: Sequence[Part], count: int, width: int, short_form: Callable[[str], str]
) -> Packed | None:
    """Parts in the country's own lines; None where these come to more than `count`."""
    begins = [at for at, part in enumerate(parts) if part.begins_line or at == 0]
    lines: list[Packed] = []
    for first, end in zip(begins, [*begins[1:], len(parts)], strict=True):
        left = count - sum(len(one.lines) for one in lines)
        packed = pack(parts[first:end], left, width, short_form) if left > 0 else None
        if packed is None or packed.lost:
            return None
        lines.append(_moved(packed, first))
    return Packed(
        lines=tuple(text for one in lines for text in one.lines),
        places=tuple(at for one in lines for at in one.places),
        abbreviated=tuple(pair for one in lines for pair in one.abbreviated),
        cut=tuple(word for one in lines for word in one.cut),
    )


def _moved(packed: Packed, by: int) -> Packed:
    return replace(packed, places=tuple(tuple(at + by for at in here) for here in packed.places))


def in_one(packed: Packed) -> Packed:
    """Lines as one text with breaks between them."""
    places = dict.fromkeys(at for here in packed.places for at in here)
    return replace(
        packed,
        lines=("\n".join(packed.lines),) if packed.lines else (),
        places=(tuple(places),) if packed.lines else (),
    )


def _best_of_some(
    words: Sequence[Word], parts: Sequence[Part], count: int, width: int
) -> tuple[list[Word], list[Word], list[Row]]:
    """Gives up words until the others fit, then takes back what fits beside them.

    Returns:
        What is kept, what is lost, and the lines.
    """
    kept = dict(enumerate(words))
    best: list[Row] | None = None
    while best is None:
        at = _least_needed(parts, list(kept.values()))
        of_part = [n for n, word in kept.items() if word.at == at]
        # What is left of a long name is no name: its last word goes with the one before it.
        gone = of_part if len(of_part) == 2 and len(parts[at].text.split()) > 2 else of_part[-1:]
        for n in gone:
            del kept[n]
        best = best_lines(_begun_anew(list(kept.values()), parts), count, width)
    given_up = {word.at for n, word in enumerate(words) if n not in kept}
    for at in sorted(given_up, key=lambda at: _need(parts[at]), reverse=True):
        more = {n: word for n, word in enumerate(words) if n in kept or word.at == at}
        better = best_lines(_begun_anew(list(more.values()), parts), count, width)
        if better is not None:
            kept, best = more, better
    lost = [word for n, word in enumerate(words) if n not in kept]
    return _begun_anew(list(kept.values()), parts), lost, best


def _words(parts: Sequence[Part], width: int, short_form: Callable[[str], str]) -> list[Word]:
    found: list[Word] = []
    for at, part in enumerate(parts):
        breaks = LINE if part.begins_line else BOUND if part.is_bound else PIECE
        before = part.before
        for word in _cut_words(part.text):
            text, space = word
            if breaks == INNER:
                before = space
            short, full = short_form(text), ""
            if len(text) > width >= len(short) > 0:
                short, text, full = "", short, text
            found += _pieces(Word(text, before, at, breaks, short, full), width)
            breaks = INNER
    if found:
        found[0] = replace(found[0], before="", breaks=LINE)
    return found


def _cut_words(text: str) -> Iterator[tuple[str, str]]:
    """The words of a text with what stands before each; without blanks, its characters."""
    for number, word in enumerate(text.split()):
        space = " " if number else ""
        if not has_spaceless_script(word):
            yield word, space
            continue
        for character in word:
            yield character, space
            space = ""


def _pieces(word: Word, width: int) -> Iterator[Word]:
    """A word, in pieces where it is longer than a line."""
    if len(word.text) <= width:
        yield word
        return
    yield replace(word, text=word.text[:width])
    for start in range(width, len(word.text), width):
        yield Word(word.text[start : start + width], "", word.at, CUT)


def _least_needed(parts: Sequence[Part], words: Sequence[Word]) -> int:
    """The part that a word is given up of next."""
    there = {word.at for word in words}

    return min(there, key=lambda at: (_need(parts[at]), -at))


def _need(part: Part) -> int:
    """How much mail needs a part; the higher, the more."""
    ranks = [_GIVEN_UP.index(name) for name in part.components if name in _GIVEN_UP]
    return max(ranks, default=0)


def _begun_anew(words: Sequence[Word], parts: Sequence[Part]) -> list[Word]:
    """Words of which some were given up: what now stands first has nothing before it.

    A part that lost the one before it in its line is parted from what is there now as lines are.
    """
    found = list(words)
    if found and (found[0].before or found[0].breaks != LINE):
        found[0] = replace(found[0], before="", breaks=LINE)
    for n in range(1, len(found)):
        word, earlier = found[n], found[n - 1]
        is_bound = parts[word.at].is_bound and word.at != earlier.at + 1
        if word.at != earlier.at and is_bound:
            found[n] = replace(word, before=", ", breaks=PIECE)
    return found


def _joined(lost: Sequence[Word]) -> Iterator[tuple[int, str]]:
    """What was given up, put together again by part."""
    for at, words in groupby(lost, key=lambda word: word.at):
        first, *others = words
        text = first.full or first.text
        yield at, text + "".join(word.before + (word.full or word.text) for word in others)
