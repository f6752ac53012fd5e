"""Pools of texts: reading one touches only its bytes."""

import numpy as np
import numpy.typing as npt

class TextPool:
    """Texts in one byte string: text i is the bytes [ends[i-1], ends[i])."""

    def __init__(self, data: npt.NDArray[np.generic], ends: npt.NDArray[np.generic]) -> None: ...
    def __len__(self) -> int: ...
    def __getitem__(self, index: int) -> str: ...
    def raw(self, index: int) -> bytes:
        """The UTF-8 bytes of a text."""

class WordPool(TextPool):
    """A pool sorted by the bytes of its texts, in which beginnings are found."""

    def __init__(
        self,
        data: npt.NDArray[np.generic],
        ends: npt.NDArray[np.generic],
        keys: npt.NDArray[np.generic],
    ) -> None: ...
    def prefix_range(self, prefix: str) -> tuple[int, int]:
        """The range [first, end) of the texts that begin with `prefix`."""

    def find(self, text: str) -> int | None:
        """The index of a text, or None."""

    def find_keys(self, keys: npt.NDArray[np.uint64]) -> npt.NDArray[np.int64]:
        """The indices of texts of at most 8 bytes that are among the keys; others are left out."""
