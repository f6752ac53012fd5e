"""Rows of texts under names."""

from collections.abc import Sequence

import numpy as np
import numpy.typing as npt

from .pools import TextPool

class TextRows:
    """A matrix of text numbers, each column of which has a name."""

    def __init__(
        self, names: Sequence[str], rows: npt.NDArray[np.uint32], texts: TextPool
    ) -> None: ...
    def of(self, row: int) -> dict[str, str]:
        """The texts of a row by their names, empty ones (number 0) left out."""
