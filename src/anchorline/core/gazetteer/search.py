"""Searching one edition: from what was typed to rows with scores.

Every token must hit a node somewhere, and at least one of them its own name or a number inside
it; the last token may be unfinished. The best nodes become rows: a node whose numbers were
typed gives the addresses with these numbers, any other stands for itself as a group.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from dataclasses import replace

import numpy as np
import numpy.typing as npt

from ..kinds import NODE_KINDS
from ..layouts import LayoutLibrary
from ..match_ranges import match_ranges
from ..text import tokens
from .arrays import Field
from .edition import Edition
from .hits import NUMBER, hit_by_all, token_hits
from .members import address_row, fitting_addresses, member_rows, node_row
from .ranking import best, node_scores
from .suggestion import SearchRequest, Suggestion

# A node's own words; a token found only elsewhere in it narrows its addresses.
_WORDS = int(Field.NAME | Field.STREET | Field.DISTRICT | Field.TOWN | Field.REGION)
_NARROWING = int(NUMBER | Field.POSTCODE)

# Words from this length on may be read as unfinished also before the last one.
SHORTEST_BEGUN = 3

NodeFilter = Callable[[npt.NDArray[np.uint32]], npt.NDArray[np.bool_]]


def search_edition(
    edition: Edition,
    request: SearchRequest,
    layouts: LayoutLibrary,
    inside: NodeFilter | None = None,
) -> list[Suggestion]:
    """The best rows of an edition, best first.

    Args:
        inside: keeps only nodes for which it is true (a search within a group).
    """
    typed = tokens(request.text)
    for reading, begun in _readings(typed):
        rows = _search_tokens(edition, reading, begun, request, layouts, inside)
        if rows:
            prefixes = [reading[position] for position in begun]
            return [
                replace(row, matches=tuple(match_ranges(row.label, reading, prefixes)))
                for row in rows
            ]
    return []


def _readings(typed: Sequence[str]) -> Iterator[tuple[Sequence[str], frozenset[int]]]:
    """Ways to read what was typed, best first: tokens, and places of those perhaps unfinished.

    As it stands, with the last word unfinished; with every longer word unfinished (`kiln cres
    brack`); without its numbers, so that one a street does not have does not hide the street.
    """
    if not typed:
        return
    last = frozenset([len(typed) - 1])
    yield typed, last
    longer = _longer_words(typed) | last
    if longer != last:
        yield typed, longer
    words = [token for token in typed if not _has_digit(token)]
    if words and len(words) < len(typed):
        yield words, _longer_words(words)


def _longer_words(typed: Sequence[str]) -> frozenset[int]:
    """The places of words that are long enough to be read as unfinished anywhere."""
    return frozenset(
        place
        for place, token in enumerate(typed)
        if len(token) >= SHORTEST_BEGUN and not _has_digit(token)
    )


def _has_digit(token: str) -> bool:
    return any(character.isdigit() for character in token)


def _search_tokens(
    edition: Edition,
    typed: Sequence[str],
    begun: frozenset[int],
    request: SearchRequest,
    layouts: LayoutLibrary,
    inside: NodeFilter | None,
) -> list[Suggestion]:
    hits = [
        token_hits(edition, token, unfinished=place in begun) for place, token in enumerate(typed)
    ]
    nodes, bits = hit_by_all(hits)
    kept = _wanted(edition, nodes, request, inside)
    nodes, bits = nodes[kept], bits[kept]
    if not len(nodes):
        return []
    parts = node_scores(edition, nodes, bits, request.near)
    scores = np.sum(list(parts.values()), axis=0)
    counts = edition.node_end[nodes].astype(np.int64) - edition.node_first[nodes]
    wanted = request.limit + request.skip
    rows: dict[str, Suggestion] = {}
    for position in best(scores, counts, 3 * wanted):
        why = {name: round(float(part[position]), 2) for name, part in parts.items()}
        found = _rows_of_node(
            edition, int(nodes[position]), bits[position], typed, request, layouts
        )
        for place, row in enumerate(found):
            score = round(float(scores[position]) - place * 1e-3, 3)
            rows.setdefault(row.id, replace(row, score=score, why=why))
        if len(rows) >= wanted:
            break
    return list(rows.values())[request.skip : wanted]


def _wanted(
    edition: Edition,
    nodes: npt.NDArray[np.uint32],
    request: SearchRequest,
    inside: NodeFilter | None,
) -> npt.NDArray[np.bool_]:
    kept = np.ones(len(nodes), dtype=bool)
    if request.countries:
        codes = [i for i, code in enumerate(edition.countries) if code in request.countries]
        kept &= np.isin(edition.node_country[nodes], codes)
    if request.kinds and "address" not in request.kinds:
        kinds = [i for i, kind in enumerate(NODE_KINDS) if kind in request.kinds]
        kept &= np.isin(edition.node_kind[nodes], kinds)
    if inside is not None:
        kept &= inside(nodes)
    return kept


def _rows_of_node(
    edition: Edition,
    node: int,
    bits: npt.NDArray[np.uint16],
    typed: Sequence[str],
    request: SearchRequest,
    layouts: LayoutLibrary,
) -> list[Suggestion]:
    narrowing = [
        token
        for token, places in zip(typed, bits.tolist(), strict=True)
        if places & _NARROWING and not places & _WORDS
    ]
    most = request.limit + request.skip
    if any(places & NUMBER and not places & _WORDS for places in bits.tolist()):
        unfinished = bool(narrowing) and narrowing[-1] == typed[-1]
        fitting = fitting_addresses(
            edition,
            edition.node_addresses(node).tolist(),
            narrowing,
            layouts,
            unfinished=unfinished,
        )
        rows = member_rows(edition, node, fitting[: 20 * most], layouts, by_number=True)
        return [row for row in rows if _is_wanted(row, request)][:most]
    row = node_row(edition, node, layouts)
    if _is_wanted(row, request):
        return [row]
    if "address" in request.kinds:
        addresses = edition.node_addresses(node)[:most].tolist()
        return [address_row(edition, address, layouts) for address in addresses]
    return []


def _is_wanted(row: Suggestion, request: SearchRequest) -> bool:
    return not request.kinds or row.kind in request.kinds
