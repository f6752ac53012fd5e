"""Breaking words into lines: of all ways the one of the least cost.

By dynamic programming over places to break, as in Knuth and Plass, 1981.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

# Places to break, the dearer the later; a cut is inside a word that is longer than a line.
LINE, PIECE, INNER, BOUND, CUT = range(5)


@dataclass(frozen=True, slots=True)
class Word:
    """A word on its way into lines.

    Attributes:
        before: what parts it from the word before it, if they stand in one line.
        at: the place of its part.
        breaks: what kind of place to break is before it.
        short: what it can be abbreviated to; empty where it cannot.
        full: what it stands for where it is an abbreviation already.
    """

    text: str
    before: str
    at: int
    breaks: int
    short: str = ""
    full: str = ""


@dataclass(frozen=True, slots=True)
class Row:
    """A line as it is written: its text, its parts, and the words that are abbreviated in it."""

    text: str
    places: tuple[int, ...]
    abbreviated: tuple[tuple[str, str], ...]


def best_lines(words: Sequence[Word], count: int, width: int) -> list[Row] | None:
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


def _may_fit(words: Sequence[Word], count: int, width: int) -> bool:
    """Whether as many characters as are left can be in the lines at all."""
    return sum(len(word.short or word.text) for word in words) <= count * width


# What a line costs, the dearest first; each has room for the sum over all lines.
_BOUND, _INNER, _ABBREVIATED, _LINES, _ALONE, _PIECE = (1 << n for n in (88, 76, 64, 56, 48, 40))


class _Ruler:
    """Measures lines of words."""

    def __init__(self, words: Sequence[Word], width: int) -> None:
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

    def line(self, start: int, end: int) -> Row:
        """A line that fits."""
        chosen = set(self._chosen(start, end))
        text = ""
        for n in range(start, end):
            word = self.words[n]
            text += ("" if n == start else word.before) + (word.short if n in chosen else word.text)
        places = tuple(dict.fromkeys(word.at for word in self.words[start:end]))
        pairs = tuple(
            (word.full or word.text, word.text if word.full else word.short)
            for n, word in enumerate(self.words[start:end], start)
            if n in chosen or word.full
        )
        return Row(text, places, pairs)

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
