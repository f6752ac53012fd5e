"""Bitmaps: a bit for each node of an edition, set for the nodes of a term."""

from collections.abc import Hashable

import numpy as np
import numpy.typing as npt

class Bitmap:
    """A bit for each node; nobody changes it once it is kept."""

    def __init__(self, nodes: int) -> None: ...

class EditionBitmaps:
    """The bitmaps that an edition brings along, of ranges of words or of numbers."""

    def __init__(self, ranges: npt.NDArray[np.uint32], bits: npt.NDArray[np.uint64]) -> None: ...

class BitmapCache:
    """The bitmaps of an edition that were used last, as far as other editions leave room."""

    def __init__(self, nodes: int) -> None: ...
    def __len__(self) -> int: ...
    def find(self, key: Hashable) -> Bitmap | None:
        """The bitmap kept under a key, or None; it is the last to be forgotten now."""

    def keep(self, key: Hashable, bitmap: Bitmap) -> None:
        """Keeps a bitmap under a key, and forgets those of any edition not used for longest."""
