"""Looking through nodes for those that have every term, and keeping the best of them."""

from collections.abc import Sequence

import numpy as np
import numpy.typing as npt

from ..searching.terms import Term
from .nodelists import NodeArrays

_Nodes = npt.NDArray[np.uint32]

class NodeScan:
    """One search through nodes for the same terms; keeps those that have all of them."""

    def __init__(self, arrays: NodeArrays, terms: Sequence[Term], side: bool | None) -> None: ...
    def through(self, nodes: _Nodes, known: int = -1, enough: int = 0) -> int:
        """Looks through nodes and keeps those that have every term; how many are kept by now."""

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
