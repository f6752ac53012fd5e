"""The lists of nodes of an edition: those of words and of numbers, as compiled code reads them."""

from collections.abc import Mapping

import numpy as np
import numpy.typing as npt

class NodeArrays:
    """The arrays of an edition that looking through its nodes reads."""

    def __init__(
        self, arrays: Mapping[str, npt.NDArray[np.generic]], number_first: npt.NDArray[np.uint8]
    ) -> None: ...
