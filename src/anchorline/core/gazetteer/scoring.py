"""Scores of nodes that have every term: where each term stands, weighed by `ranking`.

`few` states the same rule for single nodes, and says for a trace what a score is made of.
"""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np
import numpy.typing as npt

from .arrays import DEGREE_UNITS, FIELD_BITS, NO_DEGREES, Field
from .edition import Edition
from .found import FIELD_MASK, Fields, Found, Nodes
from .nearest import distances_m
from .ranked import Ranked
from .ranking import (
    COVERAGE_WEIGHT,
    EXACT_WEIGHT,
    FIELD_WEIGHT,
    NUMBER_WEIGHT,
    ORDER_WEIGHT,
    POSTCODE_WEIGHT,
    START_WEIGHT,
    WRITTEN_WEIGHT,
    nearness,
    number_side,
)
from .terms import Term

_NAME, _NAME_START = np.uint8(Field.NAME), np.uint8(Field.NAME_START)
_NAME_CODE = np.uint32(Field.NAME)
_Floats = npt.NDArray[np.float32]
_Flags = npt.NDArray[np.bool_]


def score(
    edition: Edition,
    found: Found,
    terms: Sequence[Term],
    near: tuple[float, float] | None,
    wanted: int,
) -> list[Ranked]:
    """The `wanted` best of the nodes found, best first."""
    nodes, best = found.nodes, found.best
    named = np.greater_equal(best, _NAME)
    covered = np.add.reduce(named, axis=0, dtype=np.float32)
    covered /= np.maximum(edition.node_name_length.take(nodes), 1)
    np.minimum(covered, 1, out=covered)
    covered *= np.float32(COVERAGE_WEIGHT)
    words = np.minimum(best, _NAME).astype(np.float32)
    words *= np.float32(FIELD_WEIGHT)
    numbered = postcodes = None
    if found.numbers is not None or found.postcodes is not None:
        numbered, postcodes = _inside(found)
        words += numbered * np.float32(NUMBER_WEIGHT / 2)
        words += postcodes * np.float32(POSTCODE_WEIGHT)
    if any(term.token.width > 1 for term in terms):
        words *= np.array([[term.token.width] for term in terms], dtype=np.float32)
    scores = np.add.reduce(words, axis=0)
    scores += covered
    scores += edition.node_weight.take(nodes)
    started = np.equal(np.maximum.reduce(best, axis=0), _NAME_START)
    scores += started * np.float32(START_WEIGHT)
    scores += _whole_words(found, terms, numbered) * np.float32(EXACT_WEIGHT)
    if len(terms) > 1:
        scores += _in_order(found) * np.float32(ORDER_WEIGHT)
    side = number_side([term.token for term in terms])
    if side is not None:
        written = edition.number_first.take(edition.node_country.take(nodes))
        scores += np.equal(written, side) * np.float32(WRITTEN_WEIGHT)
    if near is not None:
        scores += _nearness(edition, nodes, near)
    return _ranked(found, terms, scores, best_first(scores, wanted), numbered, postcodes)


def _inside(found: Found) -> tuple[Fields, _Flags]:
    """Term × node: as `Found.numbers` where a term is no word; where it is a postcode alone."""
    wordless = np.equal(found.best, 0)
    if found.numbers is None:
        numbered = np.zeros(wordless.shape, dtype=np.uint8)
    else:
        numbered = wordless.view(np.uint8) * found.numbers
    if found.postcodes is None:
        return numbered, np.zeros_like(wordless)
    return numbered, wordless & found.postcodes & np.equal(numbered, 0)


def _ranked(
    found: Found, terms: Sequence[Term], scores: _Floats, order: list[int],
    numbered: Fields | None, postcodes: _Flags | None,
) -> list[Ranked]:  # fmt: skip
    if numbered is None or postcodes is None:
        return [Ranked(int(found.nodes[p]), float(scores[p]), (), False) for p in order]
    nodes, best = found.nodes[order].tolist(), scores[order].tolist()
    inside = (numbered[:, order] * np.uint8(2) + postcodes[:, order]).T.tolist()
    meanings: dict[tuple[int, ...], tuple[list[Term], bool]] = {}
    ranked: list[Ranked] = []
    for place, cells in enumerate(inside):
        key = tuple(cells)
        if key not in meanings:
            narrowing = [term for term, cell in zip(terms, key, strict=True) if cell]
            meanings[key] = narrowing, max(key) > 1
        ranked.append(Ranked(nodes[place], best[place], *meanings[key]))
    return ranked


def _in_order(found: Found) -> _Floats:
    """How many terms stand in the name right behind the term before them."""
    hits = found.hits
    follows = hits[:-1, :-1] & hits[1:, 1:]
    follows &= np.equal(found.words[1:] & FIELD_MASK, _NAME_CODE)
    following = np.logical_or.reduce(follows, axis=1)
    return np.asarray(np.add.reduce(following, axis=0, dtype=np.float32))


def _whole_words(found: Found, terms: Sequence[Term], numbered: Fields | None) -> _Floats:
    """How many terms are whole words or numbers, node by node."""
    count = np.zeros(len(found.nodes), dtype=np.float32)
    if numbered is not None:
        count += np.add.reduce(numbered.view(np.bool_), axis=0, dtype=np.float32)
    for place, term in enumerate(terms):
        if term.edits:
            continue
        if not term.token.unfinished and len(term.whole) == len(term.spans):
            count += np.not_equal(found.best[place], 0)
        else:
            for word in term.whole:
                found_in = np.equal(found.words >> np.uint32(FIELD_BITS), np.uint32(word))
                count += np.logical_or.reduce(found_in, axis=0)
    return count


def _nearness(edition: Edition, nodes: Nodes, near: tuple[float, float]) -> _Floats:
    anchors = edition.node_anchor[nodes]
    latitudes, longitudes = edition.latitudes[anchors], edition.longitudes[anchors]
    known = (latitudes != NO_DEGREES) & (longitudes != NO_DEGREES)
    metres = distances_m(near[0], near[1], latitudes / DEGREE_UNITS, longitudes / DEGREE_UNITS)
    return nearness(np.where(known, metres, np.inf))


def best_first(scores: _Floats, wanted: int) -> list[int]:
    """Positions of the best scores, best first; equal ones in the order of their nodes."""
    if len(scores) > 4 * wanted:
        bar = np.partition(scores, len(scores) - wanted)[len(scores) - wanted]
        candidates = np.flatnonzero(scores >= bar)
        order = candidates[np.argsort(-scores[candidates], kind="stable")]
    else:
        order = np.argsort(-scores, kind="stable")
    found: list[int] = order[:wanted].tolist()
    return found
