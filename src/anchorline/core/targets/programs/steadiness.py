"""What of a screen stays the same from look to look: whole facts, and the ends of their texts."""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import dataclass

from .facts import FACT_KINDS, Fact, Look, folded

# An end of a text that stays the same says something from so many characters on.
FEWEST_STEADY = 3
_WORD_END = re.compile(r"[\W_]")


@dataclass(frozen=True, slots=True)
class Piece:
    """A part of a text, and whether it is the same in all looks."""

    text: str
    steady: bool


@dataclass(frozen=True, slots=True)
class SteadyFact:
    """A fact of the latest look, cut into what stays the same and what does not."""

    fact: Fact
    pieces: tuple[Piece, ...]


def compared(looks: Sequence[Look]) -> list[SteadyFact]:
    """The facts of the last look, with what was the same in all the others."""
    *before, latest = looks
    return [SteadyFact(fact, _pieces(fact, before)) for fact in latest.facts]


def _pieces(fact: Fact, before: Sequence[Look]) -> tuple[Piece, ...]:
    if not before:
        return (Piece(fact.text, True),)
    texts = [look.texts(fact.kind) for look in before]
    if all(folded(fact.text) in map(folded, seen) for seen in texts):
        return (Piece(fact.text, True),)
    if FACT_KINDS[fact.kind].several or not all(texts):
        return (Piece(fact.text, False),)
    others = [seen[0] for seen in texts]
    start, end = steady_start([fact.text, *others]), steady_end([fact.text, *others])
    if len(start) + len(end) > min(map(len, [fact.text, *others])):
        end = ""
    middle = fact.text[len(start) : len(fact.text) - len(end)]
    pieces = (Piece(start, True), Piece(middle, False), Piece(end, True))
    return tuple(piece for piece in pieces if piece.text)


def steady_start(texts: Sequence[str]) -> str:
    """The beginning that texts share, up to a word's end; empty where it says too little."""
    shared = _shared(texts)
    while shared and not all(_ends_word(shared, text) for text in texts):
        shared = shared[:-1]
    return shared if len(shared.strip()) >= FEWEST_STEADY else ""


def steady_end(texts: Sequence[str]) -> str:
    """The end that texts share, from a word's beginning on; empty where it says too little."""
    shared = _shared([text[::-1] for text in texts])
    while shared and not all(_ends_word(shared, text[::-1]) for text in texts):
        shared = shared[:-1]
    return shared[::-1] if len(shared.strip()) >= FEWEST_STEADY else ""


def _shared(texts: Sequence[str]) -> str:
    count = 0
    for signs in zip(*texts, strict=False):
        if len({sign.casefold() for sign in signs}) > 1:
            break
        count += 1
    return texts[0][:count]


def _ends_word(start: str, text: str) -> bool:
    """Whether a beginning stops where a word does."""
    rest = text[len(start) :]
    return not rest or bool(_WORD_END.match(rest) or _WORD_END.match(start[-1]))
