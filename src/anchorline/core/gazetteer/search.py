"""Searching one edition: readings of what was typed, tried until one finds something."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass, field
from itertools import combinations

import numpy as np

from ..text import tokens as tokens_of
from .arrays import FIELD_BITS
from .candidates import Found, NodeFilter, look_into, nodes_with_all
from .edition import Edition
from .few import explain, look_at_few
from .highlight import Highlighter
from .in_part import nodes_in_part
from .members import RowMaker, addresses_with, numbers_begun
from .misspelt import MOST_HELD, corrected_from
from .near import nodes_near
from .ranked import Ranked
from .readings import (
    Reading,
    begun,
    joined,
    perhaps_postcodes,
    put_together,
    split,
    without_country,
    without_designators,
    without_numbers,
)
from .scoring import score
from .spelling import typed_transliterated
from .suggestion import SearchAnswer, SearchRequest, Step, Suggestion
from .terms import Term, Token, as_tokens, look_up
from .typos import corrections, edits_allowed

# Tokens that are corrected at once where none of them alone explains the text.
MOST_PAIRED = 7
# With more unknown words than this, some of them do not belong to the address at all.
MOST_CORRECTED = 3
# So many known tokens that only one node has all of say enough by themselves.
LEAST_KNOWN = 4
MANY_TOKENS = 7


@dataclass(slots=True)
class _Row:
    """A row with the node it came from and the terms it was found by."""

    row: Suggestion
    node: int
    terms: Sequence[Term]


@dataclass(slots=True)
class EditionSearch:
    """One search of one edition: first literally, then more loosely if nobody found anything."""

    maker: RowMaker
    request: SearchRequest
    keep: NodeFilter | None = None
    steps: list[Step] = field(default_factory=list)
    tokens: Reading = field(init=False)
    _looked_up: dict[tuple[str, bool, bool, bool], Term] = field(default_factory=dict)

    def __post_init__(self) -> None:
        text = self.request.text
        typed = tokens_of(text)
        others = typed_transliterated(text)
        self.tokens = without_designators(as_tokens(typed, others)) if typed else []

    @property
    def edition(self) -> Edition:
        """The edition that is searched."""
        return self.maker.edition

    def literal(self) -> SearchAnswer:
        """Rows that have everything as it was typed."""
        tokens = self.tokens
        if not tokens:
            return SearchAnswer()
        sure, perhaps = put_together(self.edition, tokens)
        rows = self._read("put together", sure) if sure else []
        if not rows:
            rows = self._read("as typed", tokens)
            for reading in perhaps:
                rows += self._read("put together", reading)
        return self._answer(rows)

    def loose(self) -> SearchAnswer:
        """Rows of the first looser reading that finds something."""
        tokens = self.tokens
        if not tokens:
            return SearchAnswer()
        sure, _ = put_together(self.edition, tokens)
        tokens = sure or tokens
        rows = self._find("unit", self._terms(tokens, units=True))
        longer = begun(tokens)
        if not rows and longer:
            rows = self._read("begun", longer)
        if not rows:
            rows = self._joined_or_split(tokens)
        if rows:
            return self._answer(rows)
        rows = self._number_begun(tokens)
        if rows:
            return self._answer(rows)
        words, numbers = without_numbers(tokens)
        if words and numbers:
            for reading in (words, begun(words)):
                rows = self._read("without number", reading) if reading else []
                if rows:
                    return self._answer(rows, unmatched=numbers)
        foreign = without_country(tokens, self.maker.country_names)
        if foreign:
            rows = self._read("without country", foreign[0])
            if rows:
                return self._answer(rows)
            tokens = foreign[0]
        rows = self._known_alone(tokens) or self._corrected(tokens)
        if rows:
            return self._answer(rows, unmatched=self._unread(tokens, rows[0]))
        if words and numbers and len(tokens) < MANY_TOKENS:
            rows = self._corrected(words)
            if rows:
                return self._answer(rows, unmatched=numbers)
        return self._in_part(tokens)

    def _unread(self, tokens: Reading, first: _Row) -> tuple[str, ...]:
        """The unknown tokens that the first row has in no corrected form either."""
        read = {term.token.text for term in first.terms if term.edits}
        unknown = (term.token.text for term in self._terms(tokens) if not term.found)
        return tuple(text for text in unknown if not any(text in whole for whole in read))

    # One reading

    def _terms(self, reading: Reading, *, units: bool = False) -> list[Term]:
        alone = len(reading) == 1
        numeric = sum(token.text[0].isdigit() for token in reading)
        units = units or numeric > 1
        terms: list[Term] = []
        for token in reading:
            key = (token.text, token.unfinished, alone, units)
            if key not in self._looked_up:
                self._looked_up[key] = look_up(self.edition, token, alone=alone, units=units)
            terms.append(self._looked_up[key])
        return terms

    def _read(self, name: str, reading: Reading) -> list[_Row]:
        return self._find(name, self._terms(reading))

    def _find(self, name: str, terms: Sequence[Term]) -> list[_Row]:
        """The rows of nodes that have all terms."""
        if not all(term.found for term in terms):
            self._step(name, terms, 0)
            return []
        ranked = self._ranked(terms)
        self._step(name, terms, len(ranked))
        return self._rows(ranked, terms) if ranked else []

    def _ranked(self, terms: Sequence[Term]) -> list[Ranked]:
        """The best nodes that have all terms."""
        edition, near = self.edition, self.request.near
        extra = None if near is None else nodes_near(edition, *near)
        found = nodes_with_all(edition, terms, self.keep, extra)
        if not isinstance(found, Found):
            if near is None:
                return look_at_few(edition, found, terms)
            found = look_into(edition, found, terms).complete()
        return self._scored(found, terms)

    def _scored(self, found: Found, terms: Sequence[Term]) -> list[Ranked]:
        if not len(found.nodes):
            return []
        request = self.request
        # Some to spare: two nodes may stand for the same row.
        wanted = 2 * (request.limit + request.skip)
        return score(self.edition, found, terms, request.near, wanted)

    def _step(self, name: str, terms: Sequence[Term], nodes: int) -> None:
        if self.request.trace:
            shown = tuple(t.token.text + "…" * t.token.unfinished for t in terms)
            self.steps.append(Step(self.edition.dataset, name, shown, nodes))

    def _rows(self, ranked: Sequence[Ranked], terms: Sequence[Term]) -> list[_Row]:
        wanted = self.request.limit + self.request.skip
        rows: dict[str, _Row] = {}
        for best in ranked:
            only = len(ranked) == 1
            for place, row in enumerate(self._rows_of_node(best, terms, wanted, only=only)):
                if row.id not in rows:
                    row.score = best.score - place * 1e-3
                    if self.request.trace:
                        row.why = explain(self.edition, best.node, terms)
                    rows[row.id] = _Row(row, best.node, terms)
            if len(rows) >= wanted:
                break
        return list(rows.values())

    def _rows_of_node(
        self, best: Ranked, terms: Sequence[Term], most: int, *, only: bool
    ) -> list[Suggestion]:
        maker, node = self.maker, best.node
        if best.numbered:
            chosen = addresses_with(self.edition, node, best.narrowing, most)
            rows = maker.by_number(node, chosen)
            last = terms[-1].token
            if only and len(terms) > 1 and last.unfinished and best.narrowing[-1] is terms[-1]:
                left_out = np.array(chosen, dtype=np.uint32)
                more = numbers_begun(self.edition, node, last.text, left_out)
                rows += maker.by_number(node, more[: 20 * most])
            return [row for row in rows if self._is_wanted(row)][:most]
        row = maker.node(node)
        if self._is_wanted(row):
            return [row]
        if "address" in self.request.kinds:
            return [maker.address(a) for a in self.edition.node_addresses(node)[:most].tolist()]
        return []

    def _is_wanted(self, row: Suggestion) -> bool:
        return not self.request.kinds or row.kind in self.request.kinds

    # Looser readings

    def _joined_or_split(self, tokens: Reading) -> list[_Row]:
        rows: list[_Row] = []
        for reading in joined(self.edition, tokens):
            rows += self._read("joined or split", reading)
        for place, token in enumerate(tokens):
            if token.text.isalpha() and not look_up(self.edition, token).found:
                for reading in split(self.edition, tokens, place):
                    rows += self._read("joined or split", reading)
        return rows

    def _number_begun(self, tokens: Reading) -> list[_Row]:
        """Addresses whose street number begins as the last token, which is no whole number."""
        last, words = tokens[-1], tokens[:-1]
        if not words or not last.text[:1].isdigit():
            return []
        rows: list[_Row] = []
        for reading in (words, begun(words)):
            for found in self._read("number begun", reading) if reading else []:
                if found.row.count > 1 and found.row.id.count("~") == 1:
                    nothing = np.zeros(0, dtype=np.uint32)
                    inside = numbers_begun(self.edition, found.node, last.text, nothing)
                    for row in self.maker.by_number(found.node, inside[: 2 * self.request.limit]):
                        row.score = found.row.score
                        rows.append(_Row(row, found.node, [*found.terms, self._terms([last])[0]]))
            if rows:
                break
        return [found for found in rows if self._is_wanted(found.row)]

    def _known_alone(self, tokens: Reading) -> list[_Row]:
        """Rows for the known tokens alone, where they leave no doubt: names of people fall away."""
        terms = self._terms(tokens)
        known = [term for term in terms if term.found]
        if len(known) < LEAST_KNOWN or len(terms) - len(known) < 2:
            return []
        ranked = self._ranked(known)
        if len(ranked) != 1:
            return []
        right = [
            corrected
            for term in terms
            if not term.found
            for corrected in corrected_from(self.edition, ranked, [term]) or ()
        ]
        self._step("in part", known, len(ranked))
        return self._rows(ranked, [*known, *right])

    def _corrected(self, tokens: Reading) -> list[_Row]:
        """Rows for the fewest tokens that have to be corrected."""
        terms = self._terms(tokens)
        unknown = [place for place, term in enumerate(terms) if not term.found]
        can = [p for p, t in enumerate(terms) if t.found and edits_allowed(t.token.text)]
        if len(unknown) > MOST_CORRECTED:
            return []
        if unknown:
            rows = self._find_corrected(terms, unknown)
            if rows:
                return rows
        rows = self._postcode_corrected(tokens)
        # With many tokens, those that are right find the address without the wrong one.
        if rows or len(terms) >= MANY_TOKENS:
            return rows
        rows = self._try_all(terms, [[*unknown, place] for place in can])
        if not rows and len(terms) > 2 and len(can) <= MOST_PAIRED:
            rows = self._try_all(terms, [[*unknown, *pair] for pair in combinations(can, 2)])
        return rows

    def _postcode_corrected(self, tokens: Reading) -> list[_Row]:
        """Rows for a postcode with one edit, typed in one piece or in two."""
        rows: list[_Row] = []
        for reading, place in perhaps_postcodes(tokens):
            rows += self._find_corrected(self._terms(reading), [place])
        return rows

    def _try_all(self, terms: Sequence[Term], choices: Iterable[Sequence[int]]) -> list[_Row]:
        return [row for places in choices for row in self._find_corrected(terms, places)]

    def _find_corrected(self, terms: Sequence[Term], places: Sequence[int]) -> list[_Row]:
        """Rows that have all terms, those at some places corrected."""
        others = [term for place, term in enumerate(terms) if place not in places]
        wrong = [terms[place] for place in places]
        right: list[Term] | None = None
        if not all(term.found for term in others):
            return []
        if others:
            ranked = self._ranked(others)
            if not ranked:
                return []
            if len(ranked) <= MOST_HELD:
                right = corrected_from(self.edition, ranked, wrong)
                if right is None and all(term.token.text.isalpha() for term in wrong):
                    return []
        if right is None:
            right = [term for w in wrong if (term := self._corrected_term(w.token)) is not None]
            if len(right) < len(wrong):
                return []
        changed = list(terms)
        for place, term in zip(places, right, strict=True):
            changed[place] = term
        return self._find("corrected", changed)

    def _corrected_term(self, token: Token) -> Term | None:
        edition = self.edition
        for edits in range(1, edits_allowed(token.text) + 1):
            spans = corrections(edition, token.text, edits, unfinished=token.unfinished)
            if spans:
                count = sum(edition.posting_count(*span) for span in spans)
                return Term(token, tuple(spans), (), -1, -1, count, token.has_digit, edits)
        return None

    def _in_part(self, tokens: Reading) -> SearchAnswer:
        """Rows of the nodes that have most of the tokens."""
        terms = self._terms(tokens)
        known = [term for term in terms if term.found]
        found = nodes_in_part(self.edition, known, len(tokens), self.keep)
        self._step("in part", known, 0 if found is None else len(found.nodes))
        if found is None or not len(found.nodes):
            return SearchAnswer()
        ranked = self._scored(found, known)
        has = found.has()[:, int(np.searchsorted(found.nodes, ranked[0].node))].tolist()
        missing = [term for term, held in zip(known, has, strict=True) if not held]
        missing += [term for term in terms if not term.found]
        read = [
            right
            for term in missing
            for right in corrected_from(self.edition, ranked[:1], [term]) or ()
        ]
        rows = self._rows(ranked, [*known, *read])
        texts = {term.token.text for term in read}
        return self._answer(rows, tuple(t.token.text for t in missing if t.token.text not in texts))

    # Answers

    def _answer(self, rows: list[_Row], unmatched: tuple[str, ...] = ()) -> SearchAnswer:
        best: dict[str, _Row] = {}
        for found in sorted(rows, key=lambda found: -found.row.score):
            best.setdefault(found.row.id, found)
        skip, limit = self.request.skip, self.request.limit
        shown = list(best.values())[skip : skip + limit]
        corrected: dict[str, str] = {}
        marking: dict[int, Highlighter] = {}
        for found in shown:
            read = self._read_words(found)
            corrected = corrected or read
            key = id(found.terms)
            if key not in marking:
                marking[key] = Highlighter(found.terms)
            found.row.matches = marking[key].ranges(found.row.label, read.values())
        return SearchAnswer([found.row for found in shown], corrected, unmatched)

    def _read_words(self, found: _Row) -> dict[str, str]:
        """For each corrected token the word that the row has for it."""
        read: dict[str, str] = {}
        edition = self.edition
        for term in found.terms:
            if not term.edits:
                continue
            cells = (edition.node_words[found.node] >> FIELD_BITS).tolist()
            words = [w for w in cells if any(first <= w < end for first, end in term.spans)]
            if not words:
                words = [
                    first
                    for first, end in term.spans
                    if end - first == 1 and found.node in edition.postings(first, end)
                ]
            if words:
                read[term.token.text] = edition.words[words[0]]
        return read
