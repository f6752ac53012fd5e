"""Terms: typed tokens with everything that each may stand for in an edition.

A token may be a word or the beginning of one, an abbreviation, a postcode or the beginning of one,
a street number or a unit. A term holds all of these; a node has the term if it has any of them.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field
from functools import lru_cache
from typing import NamedTuple

from ...abbreviations import typed_long_forms
from ..arrays import HEAVY, UNIT_MARK
from ..edition import Edition

Span = tuple[int, int]

# Postcodes begin with at most so many letters.
LONGEST_LETTERS = 3
TERMS_KEPT = 8192


class Token(NamedTuple):
    """One token as it is read.

    Attributes:
        text: folded.
        unfinished: whether it may be the beginning of a word.
        width: how many typed tokens it is made of.
        also: other foldings of the same typed word.
        unit: whether it was called a unit: `3` of `flat 3`.
        parts: the typed tokens, where it is made of several.
    """

    text: str
    unfinished: bool = False
    width: int = 1
    also: tuple[str, ...] = ()
    unit: bool = False
    parts: tuple[str, ...] = ()

    @property
    def has_digit(self) -> bool:
        """Whether it may be a number or a postcode."""
        return not self.text.isalpha()  # tokens are of letters and digits alone


@dataclass(slots=True)
class Term:
    """A token with where it is found; shared by searches, so nobody changes it.

    Attributes:
        spans: ranges [first, end) of words.
        whole: words that are completely typed.
        number: the number term of street numbers, or -1.
        unit: the number term of units and boxes, or -1.
        count: how many postings all of these have.
        postcode: whether postings may stand for postcodes inside a node.
        edits: how many letters had to be corrected.
        spelt: ranges of words that have the letters with diacritics that were typed, where they can
            be told apart: those of `müll`, not of `mull`.
        inside: the number terms that it may stand for.
        cost: of looking for candidates through this term's list first; lists sorted by weight
            are cheap, since they can be cut short.
        found: whether there is anything that the token may stand for.
    """

    token: Token
    spans: tuple[Span, ...]
    whole: tuple[int, ...]
    number: int
    unit: int
    count: int
    postcode: bool
    edits: int = 0
    spelt: tuple[Span, ...] = ()
    inside: tuple[int, ...] = field(init=False)
    found: bool = field(init=False)
    cost: float = field(init=False)

    def __post_init__(self) -> None:
        """Works out what is asked of a term again and again."""
        self.inside = tuple([term for term in (self.number, self.unit) if term >= 0])
        self.found = bool(self.spans or self.inside)
        self.cost = self.count
        if self.count >= HEAVY and len(self.spans) + len(self.inside) == 1:
            words = self.spans[0][1] - self.spans[0][0] if self.spans else 1
            if words == 1:
                self.cost = HEAVY + self.count / 8


def look_up(edition: Edition, token: Token, *, alone: bool = False, units: bool = True) -> Term:
    """The term of a token.

    Args:
        alone: nothing else was typed: one or two digits may then begin a postcode, which
            beside other words they hardly do.
        units: whether it may be a unit; a single number among words is the street's.
    """
    words = edition.words
    text = token.text
    digits = token.has_digit
    spans: list[Span] = []
    whole: list[int] = []
    # A postcode is typed in parts, the first of which stands before other words.
    if token.unfinished and text.isdigit() and len(text) < 3 and not alone:
        pass
    elif token.unfinished or (digits and not text.isdigit()):
        span = words.prefix_range(text)
        if span[0] < span[1]:
            spans.append(span)
            if words.raw(span[0]) == text.encode():
                whole.append(span[0])
    else:
        _add_word(edition, text, spans, whole)
    spelt = _spelt(edition, token, spans, whole) if token.also else ()
    exact = typed_long_forms(text)
    begun = typed_long_forms(text, unfinished=True) if token.unfinished else ()
    for other in dict.fromkeys((*exact, *begun)):
        if other != text and not (token.unfinished and other.startswith(text)):
            _add_word(edition, other, spans, whole if other in exact else [])
    number = unit = -1
    if text[0].isdigit():
        number = _number(edition, text)
    if (units or token.unit) and (text[0].isdigit() or text in edition.lettered_units):
        unit = _number(edition, UNIT_MARK + text)
        if token.unit and unit >= 0:
            number, spans, whole = -1, [], []
    postcode = digits or (token.unfinished and len(text) <= LONGEST_LETTERS)
    count = sum(edition.posting_count(*span) for span in spans)
    count += sum(len(edition.numbered(term)) for term in (number, unit) if term >= 0)
    return Term(token, tuple(spans), tuple(whole), number, unit, count, postcode, 0, spelt)


def _spelt(edition: Edition, token: Token, spans: list[Span], whole: list[int]) -> tuple[Span, ...]:
    """The words of a token's other foldings, which are added to its spans."""
    before = len(spans)
    for other in token.also:
        _add_word(edition, other, spans, whole)
        if token.unfinished:
            del spans[before:]
            span = edition.words.prefix_range(other)
            spans += [span] if span[0] < span[1] else []
    return tuple(spans[before:])


class LookUp:
    """Looks tokens up in one edition, and remembers those that come again key by key."""

    def __init__(self, edition: Edition) -> None:
        self._edition = edition
        self._look_up = lru_cache(maxsize=TERMS_KEPT)(self._look_up_once)

    def __call__(self, token: Token, *, alone: bool = False, units: bool = True) -> Term:
        """The term of a token, as `look_up` says."""
        return self._look_up(token, alone, units)

    def _look_up_once(self, token: Token, alone: bool, units: bool) -> Term:
        return look_up(self._edition, token, alone=alone, units=units)

    def knows(self, text: str, *, unfinished: bool = False) -> bool:
        """Whether a token of letters stands for any word or unit; quicker than its term."""
        words = self._edition.words
        if unfinished:
            first, end = words.prefix_range(text)
            found = first < end
        else:
            found = words.find(text) is not None
        return (
            found
            or any(words.find(word) is not None for word in typed_long_forms(text))
            or text in self._edition.lettered_units
        )


def _number(edition: Edition, text: str) -> int:
    found = edition.numbers.find(text)
    return -1 if found is None else found


def _add_word(edition: Edition, text: str, spans: list[Span], whole: list[int]) -> None:
    word = edition.words.find(text)
    if word is not None:
        spans.append((word, word + 1))
        whole.append(word)


def number_side(tokens: Sequence[Token]) -> bool | None:
    """Whether a number was typed before the words (True), behind them, or not beside any."""
    numeric = [token.text[0].isdigit() for token in tokens]
    if all(numeric) or not any(numeric):
        return None
    return numeric[0]


def as_tokens(texts: Sequence[str], others: Sequence[str] | None) -> list[Token]:
    """Tokens as typed, the last one unfinished; `others` are the same, folded another way."""
    last = len(texts) - 1
    if others is None or len(others) != len(texts):
        return [Token(text, place == last) for place, text in enumerate(texts)]
    return [
        Token(text, place == last, also=() if other == text else (other,))
        for place, (text, other) in enumerate(zip(texts, others, strict=True))
    ]
