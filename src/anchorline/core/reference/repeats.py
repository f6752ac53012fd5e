"""Finding rows that occur twice in a file, by id or by content, in sixteen bytes a row.

Rows with the same id in several languages are one address, not repeats. Rows are compared by 64-bit
hashes under a key that is new in every process (SipHash, PEP 456). Among ten million rows, the
chance that two different ones are taken for the same is about 3 in a million (n² / 2⁶⁵).
"""

from __future__ import annotations

from collections.abc import Hashable, Iterable

import numpy as np
import numpy.typing as npt

from ..gazetteer.rows import COMPONENT_COLUMNS, RowBlock

Places = npt.NDArray[np.int64]
_CONTENT = ("country_code", "language", *COMPONENT_COLUMNS)


class RowHashes:
    """The hashes of all rows of a file; rows are numbered in the order of its blocks."""

    def __init__(self) -> None:
        self._ids: list[Places] = []
        self._contents: list[Places] = []

    def add(self, block: RowBlock) -> None:
        """Takes in the next block."""
        nothing = [""] * len(block)
        columns = [block.texts.get(name, nothing) for name in _CONTENT]
        names = zip(block.texts["id"], block.texts.get("language", nothing), strict=True)
        self._ids.append(_hashes(names, len(block)))
        self._contents.append(_hashes(zip(*columns, strict=True), len(block)))

    def repeated_ids(self) -> Places:
        """The numbers of rows whose id and language a row before them has, ascending."""
        return _repeated(self._ids)

    def repeated_addresses(self) -> Places:
        """The numbers of rows whose components a row before them has, ascending."""
        return _repeated(self._contents)


def _hashes(keys: Iterable[Hashable], count: int) -> Places:
    return np.fromiter(map(hash, keys), dtype=np.int64, count=count)


def _repeated(parts: list[Places]) -> Places:
    if not parts:
        return np.zeros(0, dtype=np.int64)
    hashes = np.concatenate(parts)
    order = np.argsort(hashes, kind="stable")
    ordered = hashes[order]
    return np.sort(order[1:][ordered[1:] == ordered[:-1]])
