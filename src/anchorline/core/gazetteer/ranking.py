"""The order of rows: the rule, as weights that are added up.

What was typed comes first. Each token counts by the field of the node in which it is found: its own
name most, its town less, its street, district or postcode less again, its region least; a whole
word counts more than the beginning of one. A name counts more that is typed completely, from its
first word on, with its words in their order or with its diacritics, and so does a number typed on
the side of the words on which the country writes it. Then come the kind of the node, its distance
(`near`), and how many addresses it has, or has with the typed number. Rows with equal scores are in
the edition's own order, which is natural: 2 before 10, `12` before `12a`.

Whether something was corrected or left out is decided by `interpretations`, not by these weights:
a row with a correction never comes before one without, whatever its score.
"""

from __future__ import annotations

import numpy as np
import numpy.typing as npt

from ..kinds import NODE_KINDS

# A token scores half the number of the `Field` that it is found in: 3 in the name (its first word
# like the others), 2 in the town, 1.5 in street, district or postcode, 1 in the region.
FIELD_WEIGHT = 0.5
NUMBER_WEIGHT = 2.4  # half of it for a unit
POSTCODE_WEIGHT = 1.5
EXACT_WEIGHT = 0.6
COVERAGE_WEIGHT = 2.0
# What a word of a name counts for that is only begun, where a whole one counts 1.
BEGUN_SHARE = 0.5
START_WEIGHT = 1.5
ORDER_WEIGHT = 0.5
WRITTEN_WEIGHT = 0.7
SPELT_WEIGHT = 0.5
# For each doubling of a node's addresses, and of those that have the typed street number.
SIZE_WEIGHT = 0.12
# Taken off where the street number is not just the typed one: `12a` for 12.
OTHER_NUMBER = 0.6
NEAR_WEIGHT = 1.2
NEAR_HALF_M = 10_000.0
KIND_WEIGHTS: dict[str, float] = {
    "town": 0.2,
    "postcode": 1.5,
    "district": 0.6,
    "street": 1.0,
    "place": 1.1,
    "organisation": 0.9,
    "building": 0.8,
    "region": -0.6,
}
# What a score is made of, nearness aside, in the order in which it is added up.
PARTS = (
    "words", "whole words", "name covered", "from the start", "in order", "number as written",
    "diacritics as typed", "kind and size",
)  # fmt: skip
_KINDS = np.array([KIND_WEIGHTS[kind] for kind in NODE_KINDS])


def node_weights(
    kind: npt.NDArray[np.uint8], counts: npt.NDArray[np.integer]
) -> npt.NDArray[np.float32]:
    """What kind and size are worth: known beforehand, and what nodes are numbered by."""
    weight: npt.NDArray[np.float32] = (_KINDS[kind] + np.log2(counts) * SIZE_WEIGHT).astype(
        np.float32
    )
    return weight


def nearness(metres: npt.NDArray[np.float64]) -> npt.NDArray[np.float32]:
    """NEAR_WEIGHT here, half of it at NEAR_HALF_M, falling toward 0; 0 where unknown (inf)."""
    worth: npt.NDArray[np.float32] = (NEAR_WEIGHT / (1 + metres / NEAR_HALF_M)).astype(np.float32)
    return worth
