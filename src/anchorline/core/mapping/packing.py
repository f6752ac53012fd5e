"""Packing the parts of an address into so many lines of so many characters.

What a careful clerk does, in this order of importance: lose nothing, cut no word, keep number and
street together, tear no part apart, abbreviate as few words as can be, use as few lines as that
takes, leave no part alone in a line, break between the country's own lines, make lines alike in
length. Of all ways to break the words into lines the best one is found (by dynamic programming
over places to break, as in Knuth and Plass, 1981); only where none holds everything are words
given up, from the parts that mail needs least.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass, replace

from ..text import has_spaceless_script

# Places to break, the dearer the later; a cut is inside a word that is longer than a line.
LINE, PIECE, INNER, BOUND, CUT = range(5)
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


@dataclass(frozen=True, slots=True)
class _Word:
    text: str
    before: str
    at: int  # the place of its part
    breaks: int
    short: str = ""


def pack(parts: Sequence[Part], count: int, width: int, short_form: Callable[[str], str]) -> Packed:
    """Parts in at most `count` lines of at most `width` characters.

    Args:
        short_form: of a word; empty where it has none.
    """
    words, lost = _words(parts, width, short_form), []
    best = _best(words, count, width)
    while best is None:
        at = _least_needed(parts, words)
        of_part = [n for n, word in enumerate(words) if word.at == at]
        # What is left of a long name is no name: its last word goes with the one before it.
        gone = of_part if len(of_part) == 2 and len(parts[at].text.split()) > 2 else of_part[-1:]
        lost += [(at, words[n].text) for n in reversed(gone)]
        words = _begun_anew([word for n, word in enumerate(words) if n not in gone], parts)
        best = _best(words, count, width) if _may_fit(words, count, width) else None
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


def _may_fit(words: Sequence[_Word], count: int, width: int) -> bool:
    """Whether as many characters as are left can be in the lines at all."""
    return sum(len(word.short or word.text) for word in words) <= count * width


def _words(parts: Sequence[Part], width: int, short_form: Callable[[str], str]) -> list[_Word]:
    found: list[_Word] = []
    for at, part in enumerate(parts):
        breaks = LINE if part.begins_line else BOUND if part.is_bound else PIECE
        before = part.before
        for word in _cut_words(part.text):
            text, space = word
            if breaks == INNER:
                before = space
            short = short_form(text)
            if len(text) > width >= len(short) > 0:
                short, text = "", short
            found += _pieces(_Word(text, before, at, breaks, short), width)
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


def _pieces(word: _Word, width: int) -> Iterator[_Word]:
    """A word, in pieces where it is longer than a line."""
    if len(word.text) <= width:
        yield word
        return
    yield replace(word, text=word.text[:width])
    for start in range(width, len(word.text), width):
        yield _Word(word.text[start : start + width], "", word.at, CUT)


@dataclass(frozen=True, slots=True)
class _Row:
    """A line as it is written: its text, its parts, and the words that are abbreviated in it."""

    text: str
    places: tuple[int, ...]
    abbreviated: tuple[tuple[str, str], ...]


def _best(words: Sequence[_Word], count: int, width: int) -> list[_Row] | None:
    """The best way to break words into lines; None where there is none that holds them all."""
    if not words:
        return []
    ruler = _Ruler(words, width)
    if ruler.length(0, len(words)) <= width:
        return [ruler.line(0, len(words))]
    if not _may_fit(words, count, width):
        return None
    # Where no part has to be torn, no way that tears one can be better.
    whole = [n for n, word in enumerate(words) if word.breaks in (LINE, PIECE)]
    found = _breaks(ruler, whole, count)
    if found is None and len(whole) < len(words):
        found = _breaks(ruler, list(range(len(words))), count)
    return None if found is None else [ruler.line(start, end) for start, end in found]


def _breaks(ruler: _Ruler, places: Sequence[int], count: int) -> list[tuple[int, int]] | None:
    """The lines, from word to word, of the least cost that begin at some places."""
    stops = [*places, len(ruler.words)]
    # Of each number of lines: the least cost of the words before a stop, and where the last began.
    rows: list[dict[int, tuple[int, int]]] = [{0: (0, 0)}]
    costs: dict[tuple[int, int], int | None] = {}
    for _ in range(min(count, len(places))):
        here: dict[int, tuple[int, int]] = {}
        for first, (cost, _before) in rows[-1].items():
            for last in range(first + 1, len(stops)):
                key = (stops[first], stops[last])
                if key not in costs:
                    costs[key] = ruler.cost(*key)
                more = costs[key]
                if more is None:
                    break
                if last not in here or cost + more < here[last][0]:
                    here[last] = (cost + more, first)
        rows.append(here)
    end = len(stops) - 1
    ends = [(row[end][0], number) for number, row in enumerate(rows) if end in row]
    if not ends:
        return None
    number = min(ends)[1]
    found: list[tuple[int, int]] = []
    while number:
        first = rows[number][end][1]
        found.insert(0, (stops[first], stops[end]))
        end, number = first, number - 1
    return found


# What a line costs, the dearest first; each has room for the sum over all lines.
_BOUND, _INNER, _ABBREVIATED, _LINES, _ALONE, _PIECE = (1 << n for n in (88, 76, 64, 56, 48, 40))


class _Ruler:
    """Measures lines of words."""

    def __init__(self, words: Sequence[_Word], width: int) -> None:
        self.words, self.width = words, width
        self._ends = [0]
        self._savings = [0]
        for word in words:
            self._ends.append(self._ends[-1] + len(word.before) + len(word.text))
            saved = len(word.text) - len(word.short) if word.short else 0
            self._savings.append(self._savings[-1] + max(saved, 0))
        self._has_several = words[0].at != words[-1].at

    def length(self, start: int, end: int) -> int:
        """Characters of a line without abbreviations."""
        return self._ends[end] - self._ends[start] - len(self.words[start].before)

    def cost(self, start: int, end: int) -> int | None:
        """What a line costs; None where it does not fit."""
        length, abbreviated = self.length(start, end), 0
        if length > self.width:
            if length - (self._savings[end] - self._savings[start]) > self.width:
                return None
            chosen = self._chosen(start, end)
            abbreviated = len(chosen)
            length -= sum(len(self.words[n].text) - len(self.words[n].short) for n in chosen)
        first = self.words[start]
        breaks = first.breaks if start else LINE
        is_alone = self._has_several and first.at == self.words[end - 1].at
        slack = self.width - length
        cost = _LINES + abbreviated * _ABBREVIATED + is_alone * _ALONE + slack * slack
        if breaks == PIECE:
            return cost + _PIECE
        if breaks == BOUND:
            return cost + _BOUND
        return cost + _INNER if breaks == INNER else cost

    def line(self, start: int, end: int) -> _Row:
        """A line that fits."""
        chosen = set(self._chosen(start, end))
        text = ""
        for n in range(start, end):
            word = self.words[n]
            text += ("" if n == start else word.before) + (word.short if n in chosen else word.text)
        places = tuple(dict.fromkeys(word.at for word in self.words[start:end]))
        pairs = tuple((self.words[n].text, self.words[n].short) for n in sorted(chosen))
        return _Row(text, places, pairs)

    def _chosen(self, start: int, end: int) -> list[int]:
        """The fewest words whose abbreviations make a line fit."""
        left, chosen = self.length(start, end) - self.width, list[int]()
        if left <= 0:
            return chosen
        saving = [
            (len(word.text) - len(word.short), n)
            for n in range(start, end)
            if (word := self.words[n]).short
        ]
        for saved, n in sorted(saving, reverse=True):
            chosen.append(n)
            left -= saved
            if left <= 0:
                break
        return chosen


def _least_needed(parts: Sequence[Part], words: Sequence[_Word]) -> int:
    """The part that a word is given up of next."""
    there = {word.at for word in words}

    def need(at: int) -> int:
        ranks = [_GIVEN_UP.index(name) for name in parts[at].components if name in _GIVEN_UP]
        return max(ranks, default=0)

    return min(there, key=lambda at: (need(at), -at))


def _begun_anew(words: Sequence[_Word], parts: Sequence[Part]) -> list[_Word]:
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


def _joined(lost: Sequence[tuple[int, str]]) -> Iterator[tuple[int, str]]:
    """What was given up, put together again by part."""
    by_part: dict[int, list[str]] = {}
    for at, text in lost:
        by_part.setdefault(at, []).insert(0, text)
    for at in sorted(by_part):
        words = by_part[at]
        joint = "" if all(has_spaceless_script(word) for word in words) else " "
        yield at, joint.join(words)
