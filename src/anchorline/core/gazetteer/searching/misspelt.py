"""Correcting a misspelt token from the words of the few nodes that have all the other tokens.

Where the other tokens leave only a handful of nodes, their own words show best what was meant.
Where they leave many, the index of deletions (`typos`) is used instead.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence

from ...abbreviations import same_words
from ..arrays import FIELD_BITS
from ..compiled.edits import distance
from ..edition import Edition
from .ranked import Ranked
from .terms import Term
from .typos import edits_allowed

# Fewer than are ranked at least (`interpretation_search`), so none was left out.
MOST_HELD = 15


def corrected_from(
    edition: Edition, nodes: Sequence[Ranked], terms: Sequence[Term]
) -> list[Term] | None:
    """Terms for misspelt tokens, of the words that nodes have; None where one has no such word.

    Args:
        nodes: at most MOST_HELD nodes that have all other terms.
        terms: the terms of the misspelt tokens.
    """
    held = [edition.node_words[best.node].tolist() for best in nodes]
    numbers = {code >> FIELD_BITS for cells in held for code in cells}
    # A register may write a word short, and so may the person who mistypes it: `Crees` for `Cres`.
    words = {
        number: (edition.words[number], *same_words(edition.words[number]))
        for number in sorted(numbers)
        if number < len(edition.words)
    }
    found: list[Term] = []
    for term in terms:
        near = _nearest(term, words)
        if near is None:
            return None
        edits, meant = near
        spans = tuple((number, number + 1) for number in meant)
        count = sum(edition.posting_count(*span) for span in spans)
        found.append(Term(term.token, spans, (), -1, -1, count, term.postcode, edits))
    return found


def _nearest(term: Term, words: Mapping[int, tuple[str, ...]]) -> tuple[int, list[int]] | None:
    """The words fewest edits away from a token, and how many edits these are.

    Args:
        words: for each word the forms that it is written in.
    """
    text, allowed = term.token.text, edits_allowed(term.token.text)
    if not text.isalpha():
        return None
    best: list[int] = []
    for number, forms in words.items():
        for form in forms:
            if abs(len(form) - len(text)) > allowed and not term.token.unfinished:
                continue
            edits = distance(text, form, allowed, term.token.unfinished)
            if 0 < edits <= allowed:
                if edits < allowed:
                    best = []
                    allowed = edits
                if number not in best:
                    best.append(number)
    return (allowed, best) if best else None
