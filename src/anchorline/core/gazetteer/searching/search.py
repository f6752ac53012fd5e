"""Searching one edition: interpretations of what was typed, tried until one finds something."""

from __future__ import annotations

from collections.abc import Collection
from operator import attrgetter

from ...abbreviations import UNIT_DESIGNATORS, typed_transliterated
from ...text import tokens as tokens_of
from ..arrays import FIELD_BITS
from ..suggestion import SearchAnswer, SearchRequest, Suggestion
from .candidates import NodeFilter
from .correcting import MANY_TOKENS, corrected, known_alone, one_corrected, postcode_corrected
from .highlight import Highlighter
from .in_part import nodes_in_part
from .interpretation_search import FoundRow, InterpretationSearch
from .interpretations import (
    Interpretation,
    begun,
    joined,
    put_together,
    split,
    taken_apart,
    without_country,
    without_designators,
    without_numbers,
)
from .misspelt import corrected_from
from .suggestions import NEIGHBOURS, SuggestionBuilder, addresses_begun, nearest_numbers
from .terms import Token, as_tokens

_SCORE = attrgetter("row.score")


class EditionSearch(InterpretationSearch):
    """One search of one edition: first literally, then more loosely if nobody found anything."""

    def __init__(
        self, builder: SuggestionBuilder, request: SearchRequest, keep: NodeFilter | None = None
    ) -> None:
        super().__init__(builder, request, keep)
        typed = tokens_of(request.text)
        others = typed_transliterated(request.text)
        self.tokens = as_tokens(typed, others) if typed else []
        apart = taken_apart(builder.look_up, self.tokens)
        if apart is not None:
            self.tokens = apart
            self.step("taken apart", self.terms(apart), 0)
        self._together = put_together(self.edition, self.tokens)

    def literal(self) -> SearchAnswer:
        """Rows that have everything as it was typed."""
        tokens = self.tokens
        if not tokens:
            return SearchAnswer()
        sure, perhaps = self._together
        # Only now are designators taken out: the NR of a postcode is none.
        rows = self.interpret("put together", without_designators(sure)) if sure else []
        if not rows:
            rows = self.interpret("as typed", without_designators(tokens))
            for interpretation in perhaps:
                rows += self.interpret("put together", without_designators(interpretation))
        return self._answer(rows)

    def loose(self) -> SearchAnswer:
        """Rows of the first looser interpretation that finds something."""
        tokens = self.tokens
        if not tokens:
            return SearchAnswer()
        tokens = without_designators(self._together[0] or tokens)
        ways = [self._number_begun, self._as_unit, self._begun, self._joined_or_split]
        misspelt = self._misspelt(tokens)
        for find in ways[-1:] if misspelt else ways:
            rows = find(tokens)
            if rows:
                return self._answer(rows)
        return self._guessed(tokens, misspelt)

    def _misspelt(self, tokens: Interpretation) -> frozenset[Token]:
        """Words, the last one aside, that begin no word of the edition."""
        return frozenset(
            token
            for token in tokens[:-1]
            if token.text.isalpha()
            and not self.builder.look_up(token._replace(unfinished=True)).found
        )

    def _as_unit(self, tokens: Interpretation) -> list[FoundRow]:
        """Rows for a number that is a unit's, or for `ap` on the way to `apto 3`."""
        rows = self.find("unit", self.terms(tokens, units=True))
        if rows or len(tokens) < 2 or not tokens[-1].unfinished:
            return rows
        words = self.edition.lettered_units | UNIT_DESIGNATORS
        if any(word.startswith(tokens[-1].text) for word in words):
            return self.interpret("unit", tokens[:-1])
        return []

    def _begun(self, tokens: Interpretation) -> list[FoundRow]:
        longer = begun(tokens)
        return self.interpret("begun", longer) if longer else []

    def _guessed(self, tokens: Interpretation, misspelt: frozenset[Token]) -> SearchAnswer:
        """Rows that lack something that was typed, or have it spelt otherwise."""
        rows = postcode_corrected(self, tokens, misspelt)
        if rows:
            return self._answer(rows, unmatched=self._unread(tokens, rows[0]))
        for kept, numbers in () if misspelt else without_numbers(tokens):
            for interpretation in (kept, begun(kept)):
                rows = self.interpret("without number", interpretation) if interpretation else []
                if rows:
                    rows = self._with_neighbours(rows, numbers)
                    rows += self._numbered_otherwise(tokens, rows[0])
                    return self._answer(rows, unmatched=numbers)
        foreign = without_country(tokens, self.builder.country_names)
        if foreign:
            rows = self.interpret("without country", foreign[0])
            if rows:
                return self._answer(rows)
            tokens = foreign[0]
        rows = known_alone(self, tokens) or corrected(self, tokens)
        if rows:
            return self._answer(rows, unmatched=self._unread(tokens, rows[0]))
        for kept, numbers in without_numbers(tokens):
            rows = corrected(self, kept) if len(tokens) < MANY_TOKENS else []
            if rows:
                return self._answer(self._with_neighbours(rows, numbers), unmatched=numbers)
        return self._in_part(tokens)

    def _with_neighbours(self, rows: list[FoundRow], numbers: tuple[str, ...]) -> list[FoundRow]:
        """The rows, behind the first street the addresses nearest to a number that it lacks."""
        first = rows[0]
        if first.row.kind != "street" or not numbers[0][:1].isdigit():
            return rows
        near = nearest_numbers(self.edition, first.node, numbers[0])
        beside = [
            FoundRow(row, first.node, first.terms)
            for row in self.builder.by_number(first.node, near)
            if self.is_wanted(row)
        ]
        for place, found in enumerate(beside, start=1):
            self._put_behind(first, found.row, place * 1e-3)
        return [first, *beside, *rows[1:]]

    def _put_behind(self, first: FoundRow, row: Suggestion, step: float) -> None:
        """Gives a row the worth of the first one, less a step that only puts it behind."""
        row.score = first.row.score - step
        row.why = {"behind the street": round(row.score, 2)} if self.request.trace else {}

    def _numbered_otherwise(self, tokens: Interpretation, first: FoundRow) -> list[FoundRow]:
        """Rows that have the number and a word spelt otherwise, for behind some neighbours."""
        rows = one_corrected(self, tokens)
        for place, found in enumerate(rows):
            self._put_behind(first, found.row, (NEIGHBOURS + 0.5) * 1e-3 + place * 1e-6)
        return rows

    def _unread(self, tokens: Interpretation, first: FoundRow) -> tuple[str, ...]:
        """The unknown tokens that the first row has in no corrected form either."""
        read = {term.token.text for term in first.terms if term.edits}
        unknown = (term.token.text for term in self.terms(tokens) if not term.found)
        return tuple(text for text in unknown if not any(text in whole for whole in read))

    # Looser interpretations

    def _joined_or_split(self, tokens: Interpretation) -> list[FoundRow]:
        rows: list[FoundRow] = []
        for interpretation in joined(self.builder.look_up, tokens):
            rows += self.interpret("joined or split", interpretation)
        for place, token in enumerate(tokens):
            if token.text.isalpha() and not self.builder.look_up(token).found:
                for interpretation in split(self.builder.look_up, tokens, place):
                    rows += self.interpret("joined or split", interpretation)
        return rows

    def _number_begun(self, tokens: Interpretation) -> list[FoundRow]:
        """Rows whose street number, or whose postcode, begins as the last token."""
        last, words = tokens[-1], tokens[:-1]
        if not words or not last.text[:1].isdigit():
            return []
        rows: list[FoundRow] = []
        for interpretation in (words, begun(words)):
            terms = self.terms(interpretation) if interpretation else []
            ranked = self.ranked(terms) if terms and all(term.found for term in terms) else []
            all_terms = [*terms, *self.terms([last])]
            for best in ranked:
                inside = addresses_begun(self.builder, best.node, best.narrowing, last.text, ())
                why = self.why(best.node, terms) if inside and self.request.trace else {}
                for row in self.builder.by_number(best.node, inside[: 2 * self.request.limit]):
                    row.score, row.why = best.score, why
                    rows.append(FoundRow(row, best.node, all_terms))
            self.step("number begun", terms, len(rows))
            if rows:
                break
        if not rows and last.unfinished:
            postcode = self.builder.look_up(last, alone=True)
            rows = self.find("number begun", [*self.terms(words), postcode])
        return [found for found in rows if self.is_wanted(found.row)]

    def _in_part(self, tokens: Interpretation) -> SearchAnswer:
        """Rows of the nodes that have most of the tokens."""
        terms = self.terms(tokens)
        known = [term for term in terms if term.found]
        found = nodes_in_part(self.edition, known, len(tokens), self.keep)
        ranked = self.best(found, known)
        self.step("in part", known, len(ranked))
        if not ranked:
            return SearchAnswer()
        has = found.held(ranked[0].node)
        missing = [term for term, held in zip(known, has, strict=True) if not held]
        missing += [term for term in terms if not term.found]
        read = [
            right
            for term in missing
            for right in corrected_from(self.edition, ranked[:1], [term]) or ()
        ]
        rows = self.rows(ranked, [*known, *read])
        texts = {term.token.text for term in read}
        return self._answer(rows, tuple(t.token.text for t in missing if t.token.text not in texts))

    # Answers

    def _answer(self, rows: list[FoundRow], unmatched: tuple[str, ...] = ()) -> SearchAnswer:
        best: dict[str, FoundRow] = {}
        for found in sorted(rows, key=_SCORE, reverse=True):
            best.setdefault(found.row.id, found)
        skip, limit = self.request.skip, self.request.limit
        shown = list(best.values())[skip : skip + limit]
        corrected: dict[str, str] = {}
        spelt = bool(self.edition.alternate_names)
        highlighters: dict[int, Highlighter] = {}
        for found in shown:
            highlighter = highlighters.get(id(found.terms))
            if highlighter is None:
                highlighter = highlighters[id(found.terms)] = Highlighter(found.terms)
            read = self._read_words(found) if highlighter.edited else {}
            corrected = read if found is shown[0] else corrected
            if spelt:
                found.row = self._best_spelt(found.row, highlighter, read.values())
            else:
                found.row.matches = highlighter.ranges(found.row.label, read.values())
        return SearchAnswer([found.row for found in shown], corrected, unmatched)

    def _best_spelt(
        self, row: Suggestion, highlighter: Highlighter, read: Collection[str]
    ) -> Suggestion:
        """A row, highlighted, in the language asked for or that what was typed fits best."""
        wanted, builder = self.request.language, self.builder
        rows = [builder.in_language(row, wanted)] if wanted else builder.in_all_languages(row)
        for candidate in rows:
            candidate.matches = highlighter.ranges(candidate.label, read)
        # That in which most letters were typed: its own where all are equal.
        return max(rows, key=lambda row: sum(end - start for start, end in row.matches))

    def _read_words(self, found: FoundRow) -> dict[str, str]:
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
