"""How nodes that match are put in order: the rule, as weights that are added up.

First what was typed: a token in the node's own name is worth most, one that names its town
less, its street, district or postcode less again, its region least; a whole word is worth
more than the beginning of one; a name that is typed completely, or with its first word, more.
The order in which the words were typed makes no difference.
Then what kind of thing the node is, how near it is (`near`), and how many addresses it has.
"""

from __future__ import annotations

import numpy as np
import numpy.typing as npt

from ..kinds import NODE_KINDS
from .arrays import DEGREE_UNITS, NO_DEGREES, Field
from .edition import Edition
from .hits import EXACT, NUMBER
from .nearest import distances_m

NAME_WEIGHT = 3.0
PLACE_WEIGHTS: tuple[tuple[int, float], ...] = (
    (NUMBER, 2.4),
    (Field.TOWN, 2.0),
    (Field.STREET | Field.DISTRICT | Field.POSTCODE, 1.5),
    (Field.REGION, 1.0),
)
EXACT_WEIGHT = 0.6
COVERAGE_WEIGHT = 2.0
START_WEIGHT = 1.5
SIZE_WEIGHT = 0.12
NEAR_WEIGHT = 1.2
KIND_WEIGHTS: dict[str, float] = {
    "town": 1.6,
    "postcode": 1.5,
    "district": 1.2,
    "street": 1.0,
    "place": 1.1,
    "organisation": 0.9,
    "building": 0.8,
    "region": 0.6,
}
_KINDS = np.array([KIND_WEIGHTS[kind] for kind in NODE_KINDS])

Scores = npt.NDArray[np.float64]


def node_scores(
    edition: Edition,
    nodes: npt.NDArray[np.uint32],
    bits: npt.NDArray[np.uint16],
    near: tuple[float, float] | None,
) -> dict[str, Scores]:
    """The parts of each node's score, by name; their sum is the score.

    Args:
        nodes: the nodes.
        bits: where each token stands, as node × token.
        near: prefer what is near this latitude and longitude (degrees).
    """
    in_name = (bits & Field.NAME) != 0
    words = np.where(in_name, NAME_WEIGHT, 0.0)
    for place, weight in PLACE_WEIGHTS:
        words = np.maximum(words, np.where((bits & place) != 0, weight, 0.0))
    length = np.maximum(edition.node_name_length[nodes], 1)
    covered = np.minimum(in_name.sum(axis=1) / length, 1.0)
    counts = edition.node_end[nodes].astype(np.int64) - edition.node_first[nodes]
    parts = {
        "words": words.sum(axis=1),
        "whole words": ((bits & EXACT) != 0).sum(axis=1) * EXACT_WEIGHT,
        "name covered": covered * COVERAGE_WEIGHT,
        "from the start": ((bits & Field.NAME_START) != 0).any(axis=1) * START_WEIGHT,
        "kind": _KINDS[edition.node_kind[nodes]],
        "size": np.log2(counts) * SIZE_WEIGHT,
    }
    if near is not None:
        parts["near"] = _nearness(edition, nodes, near) * NEAR_WEIGHT
    return parts


def _nearness(edition: Edition, nodes: npt.NDArray[np.uint32], near: tuple[float, float]) -> Scores:
    """1 here, 0.5 at 10 km, falling toward 0; 0 where the position is unknown."""
    first = np.array([int(edition.node_addresses(int(node))[0]) for node in nodes], dtype=np.int64)
    latitudes, longitudes = edition.latitudes[first], edition.longitudes[first]
    known = (latitudes != NO_DEGREES) & (longitudes != NO_DEGREES)
    metres = distances_m(near[0], near[1], latitudes / DEGREE_UNITS, longitudes / DEGREE_UNITS)
    return np.where(known, 1 / (1 + metres / 10_000), 0.0)


def best(scores: Scores, counts: npt.NDArray[np.integer], wanted: int) -> list[int]:
    """Positions of the `wanted` best scores, ties by size and then in the edition's order."""
    wanted = min(wanted, len(scores))
    if wanted == 0:
        return []
    if wanted < len(scores):
        bar = np.partition(scores, len(scores) - wanted)[len(scores) - wanted]
        candidates = np.flatnonzero(scores >= bar)
    else:
        candidates = np.arange(len(scores))
    order = np.lexsort((candidates, -counts[candidates], -scores[candidates]))
    return [int(i) for i in candidates[order][:wanted]]
