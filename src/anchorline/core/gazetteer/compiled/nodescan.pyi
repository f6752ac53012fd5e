"""Looking through nodes for those that have every term, and keeping the best of them."""

from collections.abc import Sequence
from typing import Protocol

import numpy as np
import numpy.typing as npt

from .nodelists import NodeArrays

_Nodes = npt.NDArray[np.uint32]
_Spans = tuple[tuple[int, int], ...]

class _Token(Protocol):
    """What is read of a token."""

    @property
    def text(self) -> str: ...
    @property
    def unfinished(self) -> bool: ...
    @property
    def width(self) -> int: ...

class _Term(Protocol):
    """What is read of a term; `searching.terms.Term` says what each means."""

    @property
    def token(self) -> _Token: ...
    @property
    def spans(self) -> _Spans: ...
    @property
    def spelt(self) -> _Spans: ...
    @property
    def whole(self) -> tuple[int, ...]: ...
    @property
    def number(self) -> int: ...
    @property
    def unit(self) -> int: ...
    @property
    def count(self) -> int: ...
    @property
    def postcode(self) -> bool: ...
    @property
    def edits(self) -> int: ...

class NodeScan:
    """One search through nodes for the same terms; keeps those that have all of them."""

    def __init__(self, arrays: NodeArrays, terms: Sequence[_Term], side: bool | None) -> None: ...
    def through(self, nodes: _Nodes, known: int = -1, enough: int = 0) -> int:
        """Looks through nodes and keeps those that have every term; how many are kept by now."""

    def through_all_of(self, known: int, enough: int) -> int:
        """The same for all nodes of the term at a place, heaviest first."""

    def all_of(self, *places: int) -> _Nodes:
        """All nodes of any of the terms at some places, ascending, each once."""

    def keep_all(self, nodes: _Nodes) -> None:
        """Keeps nodes, weighed by the terms that they have."""

    def kept(self) -> _Nodes:
        """The nodes kept, in the order in which they were looked at."""

    def best(
        self, wanted: int, more: npt.NDArray[np.float32] | None = None
    ) -> list[tuple[int, float, list[int], bool]]:
        """The best nodes kept: number, score, places of terms that are no words, any a number."""

    def held(self, node: int) -> list[bool]:
        """For each term whether a node has it."""

    def worth(self, nodes: _Nodes, of_terms: npt.NDArray[np.float64]) -> npt.NDArray[np.float64]:
        """For each node the sums of what the terms that it has are worth, in several ways.

        Args:
            of_terms: way × term.

        Returns:
            way × node.
        """

    def parts(self, node: int) -> dict[str, float]:
        """What the score of a node is made of, nearness left out, by the names of `PARTS`."""
