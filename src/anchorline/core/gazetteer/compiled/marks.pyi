"""Marks: a bit for each node of an edition, set for the nodes of a term."""

from collections.abc import Hashable

import numpy as np
import numpy.typing as npt

class Marks:
    """A bit for each node; nobody changes it once it is kept."""

    def __init__(self, nodes: int) -> None: ...

class EditionMarks:
    """The marks that an edition brings along, of ranges of words or of numbers."""

    def __init__(self, ranges: npt.NDArray[np.uint32], bits: npt.NDArray[np.uint64]) -> None: ...

class KeptMarks:
    """The marks of an edition that were used last, as far as other editions leave room."""

    def __init__(self, nodes: int) -> None: ...
    def __len__(self) -> int: ...
    def find(self, key: Hashable) -> Marks | None:
        """The marks kept under a key, or None; they are the last to be forgotten now."""

    def keep(self, key: Hashable, marks: Marks) -> None:
        """Keeps marks under a key, and forgets those of any edition not used for longest."""
