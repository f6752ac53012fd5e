"""Rows for texts with misspelt words: as few words as possible are corrected."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from collections.abc import Set as AbstractSet
from itertools import combinations

from .interpretation_search import FoundRow, InterpretationSearch
from .interpretations import Interpretation, perhaps_postcodes
from .misspelt import MOST_HELD, corrected_from
from .terms import Term, Token
from .typos import corrections, edits_allowed

# Tokens that are corrected two at a time where none of them alone explains the text.
MOST_PAIRED = 7
# With more unknown words than this, some of them do not belong to the address at all.
MOST_CORRECTED = 3
# So many known tokens that only one node has all of say enough by themselves.
LEAST_KNOWN = 4
# With so many tokens, those that are right find the address without the wrong one.
MANY_TOKENS = 7


def known_alone(search: InterpretationSearch, tokens: Interpretation) -> list[FoundRow]:
    """Rows for the known tokens alone, where they leave no doubt: names of people fall away."""
    terms = search.terms(tokens)
    known = [term for term in terms if term.found]
    if len(known) < LEAST_KNOWN or len(terms) - len(known) < 2:
        return []
    ranked = search.ranked(known)
    if len(ranked) != 1:
        return []
    right = [
        corrected
        for term in terms
        if not term.found
        for corrected in corrected_from(search.edition, ranked, [term]) or ()
    ]
    search.step("in part", known, len(ranked))
    return search.rows(ranked, [*known, *right])


def corrected(search: InterpretationSearch, tokens: Interpretation) -> list[FoundRow]:
    """Rows for the fewest tokens that have to be corrected."""
    terms = search.terms(tokens)
    unknown = [place for place, term in enumerate(terms) if not term.found]
    can = [p for p, t in enumerate(terms) if t.found and edits_allowed(t.token.text)]
    if len(unknown) > MOST_CORRECTED:
        return []
    if unknown:
        rows = _find_corrected(search, terms, unknown)
        if rows:
            return rows
    if len(terms) >= MANY_TOKENS:
        return []
    rows = _one_corrected(search, terms, unknown)
    if not rows and len(terms) > 2 and len(can) <= MOST_PAIRED:
        rows = _try_all(search, terms, [[*unknown, *pair] for pair in combinations(can, 2)])
    return rows


def one_corrected(search: InterpretationSearch, tokens: Interpretation) -> list[FoundRow]:
    """Rows for just one token that is read as another word: the one that finds nothing, or any."""
    terms = search.terms(tokens)
    unknown = [place for place, term in enumerate(terms) if not term.found]
    if unknown:
        return _find_corrected(search, terms, unknown) if len(unknown) == 1 else []
    return _one_corrected(search, terms, [])


def _one_corrected(
    search: InterpretationSearch, terms: Sequence[Term], unknown: Sequence[int]
) -> list[FoundRow]:
    can = [p for p, t in enumerate(terms) if t.found and edits_allowed(t.token.text)]
    return _try_all(search, terms, [[*unknown, place] for place in can])


def postcode_corrected(
    search: InterpretationSearch, tokens: Interpretation, misspelt: AbstractSet[Token]
) -> list[FoundRow]:
    """Rows for a postcode with one edit, typed in one piece or in two.

    Args:
        misspelt: tokens that find nothing unless they are part of the postcode.
    """
    rows: list[FoundRow] = []
    for interpretation, place in perhaps_postcodes(tokens):
        if misspelt.isdisjoint(interpretation):
            rows += _find_corrected(search, search.terms(interpretation), [place])
    return rows


def _try_all(
    search: InterpretationSearch, terms: Sequence[Term], choices: Iterable[Sequence[int]]
) -> list[FoundRow]:
    return [row for places in choices for row in _find_corrected(search, terms, places)]


def _find_corrected(
    search: InterpretationSearch, terms: Sequence[Term], places: Sequence[int]
) -> list[FoundRow]:
    """Rows that have all terms, those at some places corrected."""
    others = [term for place, term in enumerate(terms) if place not in places]
    wrong = [terms[place] for place in places]
    right: list[Term] | None = None
    if not all(term.found for term in others):
        return []
    if others:
        ranked = search.ranked(others)
        if not ranked:
            return []
        if len(ranked) <= MOST_HELD:
            right = corrected_from(search.edition, ranked, wrong)
    # These few have one of the other words in their own name. A street that has them in its town's
    # name is not among them, so a misspelt street is looked for among all words as well.
    if right is None:
        right = [term for w in wrong if (term := _corrected_term(search, w.token)) is not None]
        if len(right) < len(wrong):
            return []
    changed = list(terms)
    for place, term in zip(places, right, strict=True):
        changed[place] = term
    return search.find("corrected", changed)


def _corrected_term(search: InterpretationSearch, token: Token) -> Term | None:
    edition = search.edition
    for edits in range(1, edits_allowed(token.text) + 1):
        spans = corrections(edition, token.text, edits, unfinished=token.unfinished)
        if spans:
            count = sum(edition.posting_count(*span) for span in spans)
            return Term(token, tuple(spans), (), -1, -1, count, token.has_digit, edits)
    return None
