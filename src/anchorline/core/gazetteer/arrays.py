"""The arrays that an edition consists of, in memory and on disk.

Addresses are kept in one order: country, region, town, district, street, then number and unit
in natural order. So the addresses of a street, district, town or region stand together and a
node of that kind is a range [first, end). Other nodes (postcode, building, organisation,
place) own a range of `members`, which lists addresses.

Every text stands once in a pool: `texts` is UTF-8, text i is bytes [ends[i-1], ends[i]).

| array | one entry a | what |
|---|---|---|
| text_bytes, text_ends | | the pool of component values; text 0 is empty |
| id_bytes, id_ends, id_order | address | row ids, and the addresses in the order of their ids |
| address_texts | address × ADDRESS_COMPONENTS | text of a component |
| address_street | address | its street node |
| latitudes, longitudes | address | 1e-7 degrees; `NO_DEGREES` where unknown |
| uses | address | index into USES + 1, 0 unknown |
| node_kind, node_country | node | index into NODE_KINDS; index into the manifest's countries |
| node_texts | node × NODE_COMPONENTS | text of a component that all its addresses share |
| node_first, node_end | node | range of addresses, or of `members` for listed kinds |
| node_name_length | node | how many tokens its own name has |
| node_hashes, node_hash_order | node | name of a node that stays the same between editions |
| members | member | address |
| word_bytes, word_ends | word | the sorted vocabulary |
| posting_ends, posting_nodes, posting_fields | word / posting | nodes with the word, ascending, and where it stands in them (bits of `Field`) |
| number_bytes, number_ends | number | the sorted compact street numbers and units |
| number_posting_ends, number_posting_nodes | number / posting | street nodes that have it |
| band_order, band_starts | address with a position | for nearest: by latitude band, then longitude |
"""  # noqa: E501

from __future__ import annotations

from collections.abc import Mapping, Sequence
from enum import IntFlag

import numpy as np
import numpy.typing as npt

FORMAT_VERSION = 1
NO_DEGREES = np.iinfo(np.int32).max
DEGREE_UNITS = 10_000_000
ADDRESS_COMPONENTS: tuple[str, ...] = (
    "organisation", "place", "unit", "building", "number", "po_box", "postcode",
)  # fmt: skip
NODE_COMPONENTS: tuple[str, ...] = (
    "organisation", "place", "building", "street", "district", "town", "region", "region_code",
    "nation", "postcode", "language",
)  # fmt: skip
LISTED_KINDS = frozenset({"postcode", "building", "organisation", "place"})

Arrays = Mapping[str, npt.NDArray[np.generic]]
IntArray = npt.NDArray[np.integer]


class Field(IntFlag):
    """Where in a node a word stands."""

    NAME = 1
    NAME_START = 2
    STREET = 4
    DISTRICT = 8
    TOWN = 16
    REGION = 32
    POSTCODE = 64


class TextPool:
    """Texts in one byte string; reading one touches only its bytes."""

    def __init__(self, data: npt.NDArray[np.generic], ends: npt.NDArray[np.generic]) -> None:
        self._data = data.data
        self._ends = ends

    def __len__(self) -> int:
        return len(self._ends)

    def __getitem__(self, index: int) -> str:
        start = int(self._ends[index - 1]) if index else 0
        return str(self._data[start : int(self._ends[index])], "utf-8")

    def raw(self, index: int) -> bytes:
        """The UTF-8 bytes of a text."""
        start = int(self._ends[index - 1]) if index else 0
        return bytes(self._data[start : int(self._ends[index])])

    def first_not_below(self, key: bytes) -> int:
        """In a sorted pool: the index of the first text that is not below `key`."""
        low, high = 0, len(self)
        while low < high:
            middle = (low + high) // 2
            if self.raw(middle) < key:
                low = middle + 1
            else:
                high = middle
        return low

    def prefix_range(self, prefix: str) -> tuple[int, int]:
        """In a sorted pool: the range [first, end) of the texts that begin with `prefix`."""
        key = prefix.encode()
        # 0xFF is in no UTF-8 text, so it is above everything that goes on from the prefix.
        return self.first_not_below(key), self.first_not_below(key + b"\xff")

    def find(self, text: str) -> int | None:
        """In a sorted pool: the index of a text, or None."""
        key = text.encode()
        index = self.first_not_below(key)
        return index if index < len(self) and self.raw(index) == key else None


def pool_arrays(name: str, texts: Sequence[str]) -> dict[str, npt.NDArray[np.generic]]:
    """The two arrays of a pool with these texts, in this order."""
    encoded = [text.encode() for text in texts]
    lengths = np.fromiter(map(len, encoded), dtype=np.uint32, count=len(encoded))
    return {
        f"{name}_bytes": np.frombuffer(b"".join(encoded) or b"\0", dtype=np.uint8),
        f"{name}_ends": np.cumsum(lengths, dtype=np.uint32),
    }
