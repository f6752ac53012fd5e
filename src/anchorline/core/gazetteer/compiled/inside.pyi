"""Which addresses of a node have a street number or unit."""

from collections.abc import Mapping, Sequence

import numpy as np
import numpy.typing as npt

from .pools import TextPool

class InsideNodes:
    """The arrays of an edition that tell addresses apart inside a node."""

    def __init__(self, arrays: Mapping[str, npt.NDArray[np.generic]], texts: TextPool) -> None: ...
    def number_of(self, index: int) -> str:
        """The street number of an address, empty where it has none."""
    def street_of(self, index: int) -> int:
        """The street-level node of an address."""
    def having(self, among: Sequence[int], number: int, unit: int) -> list[int]:
        """Those of some addresses that have a number term as street number, or another as unit."""
