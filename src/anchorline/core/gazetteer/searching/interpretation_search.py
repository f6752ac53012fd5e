"""Searching an edition by one interpretation: its terms, the nodes that have them all, rows."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field

from ..arrays import NodeNumbers
from ..compiled.nodescan import NodeScan
from ..edition import Edition
from ..ranking import OTHER_NUMBER
from ..suggestion import SearchRequest, Step, Suggestion
from .candidates import NodeFilter, nodes_with_all, scan_for
from .interpretations import Interpretation
from .near import nearness_of, nodes_near
from .ranked import Ranked
from .suggestions import SuggestionBuilder, addresses_begun, addresses_with
from .terms import Term

# So many nodes are ranked at least, however few rows are wanted.
LEAST_RANKED = 16


@dataclass(slots=True)
class FoundRow:
    """A row with the node it came from and the terms it was found by."""

    row: Suggestion
    node: int
    terms: Sequence[Term]


@dataclass(slots=True)
class InterpretationSearch:
    """Finds rows for interpretations of one request in one edition, and keeps count of them."""

    builder: SuggestionBuilder
    request: SearchRequest
    keep: NodeFilter | None = None
    steps: list[Step] = field(default_factory=list)
    _near: NodeNumbers | None = None
    # What is known to lead to no node: several interpretations come to the same terms.
    _in_vain: set[tuple[object, ...]] = field(default_factory=set)

    @property
    def edition(self) -> Edition:
        """The edition that is searched."""
        return self.builder.edition

    def terms(self, interpretation: Interpretation, *, units: bool = False) -> list[Term]:
        """The terms of an interpretation's tokens."""
        alone = len(interpretation) == 1
        numeric = sum([token.text[0].isdigit() for token in interpretation])
        words = self.edition.lettered_units
        units = (
            units or numeric > 1 or any(t.text in words and len(t.text) > 1 for t in interpretation)
        )
        look_up = self.builder.look_up
        return [look_up(token, alone=alone, units=units) for token in interpretation]

    def interpret(self, name: str, interpretation: Interpretation) -> list[FoundRow]:
        """The rows of an interpretation."""
        return self.find(name, self.terms(interpretation))

    def find(self, name: str, terms: Sequence[Term]) -> list[FoundRow]:
        """The rows of nodes that have all terms."""
        if not all(term.found for term in terms):
            self.step(name, terms, 0)
            return []
        ranked = self.ranked(terms)
        self.step(name, terms, len(ranked))
        return self.rows(ranked, terms) if ranked else []

    def ranked(self, terms: Sequence[Term]) -> list[Ranked]:
        """The best nodes that have all terms."""
        edition, near = self.edition, self.request.near
        if self._in_vain and _sought(terms) in self._in_vain:
            return []
        if near is not None and self._near is None:
            self._near = nodes_near(edition, *near)
        ranked = self.best(nodes_with_all(edition, terms, self.keep, self._near), terms)
        if not ranked:
            self._in_vain.add(_sought(terms))
        return ranked

    def best(self, scan: NodeScan, terms: Sequence[Term]) -> list[Ranked]:
        """The best of the nodes that a scan for these terms has kept."""
        request = self.request
        # Some to spare: two nodes may stand for the same row.
        wanted = max(LEAST_RANKED, 2 * (request.limit + request.skip))
        more = None
        if request.near is not None:
            more = nearness_of(self.edition, scan.kept(), request.near)
        return [
            Ranked(node, score, [terms[place] for place in wordless], numbered)
            for node, score, wordless, numbered in scan.best(wanted, more)
        ]

    def step(self, name: str, terms: Sequence[Term], nodes: int) -> None:
        """Notes a step for the trace."""
        if self.request.trace:
            shown = tuple(t.token.text + "…" * t.token.unfinished for t in terms)
            self.steps.append(Step(self.edition.dataset, name, shown, nodes))

    def rows(self, ranked: Sequence[Ranked], terms: Sequence[Term]) -> list[FoundRow]:
        """The rows of nodes, as many as are wanted."""
        wanted, trace = self.request.limit + self.request.skip, self.request.trace
        rows: dict[str, FoundRow] = {}
        enough = 0
        only = len(ranked) == 1
        for best in ranked:
            for place, row in enumerate(self._rows_of_node(best, terms, wanted, only=only)):
                if row.id not in rows:
                    if trace:
                        row.why = self.why(best.node, terms)
                        if row.score:
                            row.why["as another number"] = row.score
                    row.score += best.score - place * 1e-3
                    enough += row.score > best.score - OTHER_NUMBER
                    rows[row.id] = FoundRow(row, best.node, terms)
            if enough >= wanted:
                break
        return list(rows.values())

    def _rows_of_node(
        self, best: Ranked, terms: Sequence[Term], most: int, *, only: bool
    ) -> list[Suggestion]:
        builder, node = self.builder, best.node
        if best.numbered:
            just, others = addresses_with(self.edition, node, best.narrowing, most)
            rows = builder.by_number(node, just)
            for row in builder.by_number(node, others) if others else ():
                row.score = -OTHER_NUMBER
                rows.append(row)
            last = terms[-1].token
            may_go_on = last.unfinished and not last.unit and best.narrowing[-1] is terms[-1]
            if only and len(terms) > 1 and may_go_on:
                before = best.narrowing[:-1]
                more = addresses_begun(builder, node, before, last.text, just + others)
                rows += builder.by_number(node, more[: 20 * most])
            if self.request.kinds:
                rows = [row for row in rows if self.is_wanted(row)]
            return rows[:most]
        row = builder.node(node)
        # A firm with one address stands for itself as that address.
        if self.is_wanted(row) or self.edition.node_kind_name(node) in self.request.kinds:
            return [row]
        if "address" in self.request.kinds:
            return [builder.address(a) for a in self.edition.node_addresses(node)[:most].tolist()]
        return []

    def why(self, node: int, terms: Sequence[Term]) -> dict[str, float]:
        """What the score of a node is made of, for a trace; nothing where it lacks a term."""
        scan = scan_for(self.edition, terms)
        if not all(scan.held(node)):
            return {}
        return {name: round(part, 2) for name, part in scan.parts(node).items()}

    def is_wanted(self, row: Suggestion) -> bool:
        """Whether a row is of a kind that was asked for."""
        return not self.request.kinds or row.kind in self.request.kinds


def _sought(terms: Sequence[Term]) -> tuple[object, ...]:
    """What settles which nodes have some terms."""
    return tuple([(term.spans, term.inside, term.postcode) for term in terms])
