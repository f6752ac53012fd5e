"""A node found by a search, with its score."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from .terms import Term


@dataclass(slots=True)
class Ranked:
    """One node of a search.

    Attributes:
        score: higher is better.
        narrowing: the terms that stand for numbers or postcodes alone: they settle which of
            its addresses are meant.
        numbered: whether one of them is a number.
    """

    node: int
    score: float
    narrowing: Sequence[Term]
    numbered: bool
