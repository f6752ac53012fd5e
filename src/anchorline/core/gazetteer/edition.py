"""An opened edition: looking things up in its arrays, whatever memory they lie in."""

from __future__ import annotations

from typing import cast

import numpy as np
import numpy.typing as npt

from ..address import COMPONENTS, USES, Address, Components, Facts
from ..errors import EditionError
from ..kinds import NODE_KINDS
from .arrays import (
    ADDRESS_COMPONENTS,
    DEGREE_UNITS,
    FORMAT_VERSION,
    LISTED_KINDS,
    NO_DEGREES,
    NODE_COMPONENTS,
    Arrays,
    TextPool,
)

Numbers = npt.NDArray[np.integer]


class Edition:
    """Arrays and manifest of one edition of one dataset."""

    def __init__(self, dataset: str, number: int, manifest: dict[str, object], arrays: Arrays):
        if manifest.get("format") != FORMAT_VERSION:
            raise EditionError(
                f"Edition {number} of {dataset} has form {manifest.get('format')!r}; this release "
                f"reads form {FORMAT_VERSION}. Build it again from its rows."
            )
        self.dataset, self.number = dataset, number
        self.address_count = int(cast(int, manifest["addresses"]))
        self.countries = tuple(cast(list[str], manifest["countries"]))
        self.texts = TextPool(arrays["text_bytes"], arrays["text_ends"])
        self.ids = TextPool(arrays["id_bytes"], arrays["id_ends"])
        self.words = TextPool(arrays["word_bytes"], arrays["word_ends"])
        self.numbers = TextPool(arrays["number_bytes"], arrays["number_ends"])
        self._arrays = arrays
        self.address_texts = self._numbers("address_texts")
        self.address_street = self._numbers("address_street")
        self.latitudes = self._numbers("latitudes")
        self.longitudes = self._numbers("longitudes")
        self.node_kind = self._numbers("node_kind")
        self.node_country = self._numbers("node_country")
        self.node_texts = self._numbers("node_texts")
        self.node_first = self._numbers("node_first")
        self.node_end = self._numbers("node_end")
        self.node_name_length = self._numbers("node_name_length")
        self.members = self._numbers("members")
        self.posting_ends = self._numbers("posting_ends")
        self.posting_nodes = self._numbers("posting_nodes")
        self.posting_fields = self._numbers("posting_fields")
        self.number_posting_ends = self._numbers("number_posting_ends")
        self.number_posting_nodes = self._numbers("number_posting_nodes")
        self.band_order = self._numbers("band_order")
        self.band_starts = self._numbers("band_starts")
        self.street_level_count = int(self.address_street[-1]) + 1

    def _numbers(self, name: str) -> npt.NDArray[np.uint32]:
        return cast(npt.NDArray[np.uint32], self._arrays[name])

    # Addresses

    def find_address(self, row_id: str) -> int | None:
        """The index of the address with a row id, or None."""
        order = self._numbers("id_order")
        key = row_id.encode()
        low, high = 0, len(order)
        while low < high:
            middle = (low + high) // 2
            if self.ids.raw(int(order[middle])) < key:
                low = middle + 1
            else:
                high = middle
        if low < len(order) and self.ids.raw(int(order[low])) == key:
            return int(order[low])
        return None

    def address_id(self, index: int) -> str:
        """The id by which the address is asked for: dataset and row id."""
        return f"{self.dataset}:{self.ids[index]}"

    def address(self, index: int) -> Address:
        """The whole address, with the country's code but not its name."""
        street = int(self.address_street[index])
        known = {
            **self.address_components(index),
            **self.node_components(street),
            "country_code": self.node_country_code(street),
        }
        components = {name: known[name] for name in COMPONENTS if name in known}
        use = int(self._arrays["uses"][index])
        language = self.node_text(street, "language")
        facts = Facts(
            latitude=self._degrees(self.latitudes, index),
            longitude=self._degrees(self.longitudes, index),
            use=USES[use - 1] if use else None,
            languages=(language,) if language else (),
        )
        return Address(self.address_id(index), components, facts)

    def address_components(self, index: int) -> Components:
        """The components that the address has beside those of its street."""
        row = self.address_texts[index]
        return {
            name: self.texts[int(text)]
            for name, text in zip(ADDRESS_COMPONENTS, row, strict=True)
            if text
        }

    def address_text(self, index: int, component: str) -> str:
        """One of ADDRESS_COMPONENTS of an address, empty where it has none."""
        return self.texts[int(self.address_texts[index, ADDRESS_COMPONENTS.index(component)])]

    def _degrees(self, units: Numbers, index: int) -> float | None:
        value = int(units[index])
        return None if value == NO_DEGREES else value / DEGREE_UNITS

    # Nodes

    def find_node(self, stable_hash: int) -> int | None:
        """The node with a stable hash, or None."""
        order, hashes = self._numbers("node_hash_order"), self._arrays["node_hashes"]
        wanted = np.uint64(stable_hash)
        position = int(np.searchsorted(hashes, wanted, sorter=order))
        if position < len(order) and hashes[order[position]] == wanted:
            return int(order[position])
        return None

    def node_id(self, node: int) -> str:
        """The id by which a group is asked for; the same in every edition that has it."""
        return f"{self.dataset}:~{int(self._arrays['node_hashes'][node]):016x}"

    def node_kind_name(self, node: int) -> str:
        """One of NODE_KINDS."""
        return NODE_KINDS[int(self.node_kind[node])]

    def node_country_code(self, node: int) -> str:
        """ISO 3166-1 alpha-2."""
        return self.countries[int(self.node_country[node])]

    def node_count(self, node: int) -> int:
        """How many addresses the node has."""
        return int(self.node_end[node]) - int(self.node_first[node])

    def node_text(self, node: int, component: str) -> str:
        """One of NODE_COMPONENTS that the node's addresses share, or nothing."""
        return self.texts[int(self.node_texts[node, NODE_COMPONENTS.index(component)])]

    def node_components(self, node: int) -> Components:
        """The components that all the node's addresses share, and their language."""
        return {
            name: self.texts[int(text)]
            for name, text in zip(NODE_COMPONENTS, self.node_texts[node], strict=True)
            if text
        }

    def node_addresses(self, node: int) -> Numbers:
        """The node's addresses, ascending, which is natural order inside a street."""
        first, end = int(self.node_first[node]), int(self.node_end[node])
        if self.node_kind_name(node) in LISTED_KINDS:
            return self.members[first:end]
        return np.arange(first, end, dtype=np.uint32)

    def street_level_nodes(self, node: int) -> range:
        """The street-level nodes inside a node that is a range of addresses."""
        firsts = self.node_first[: self.street_level_count]
        low, high = np.searchsorted(firsts, [self.node_first[node], self.node_end[node]])
        return range(int(low), int(high))
