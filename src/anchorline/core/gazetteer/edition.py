"""An opened edition: looking things up in its arrays, whatever memory they lie in."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from functools import cached_property
from typing import cast

import numpy as np
import numpy.typing as npt

from ..address import COMPONENTS, USES, Address, Components, Facts
from ..errors import EditionError
from ..kinds import NODE_KINDS
from .alternate_names import AlternateNames, with_language
from .arrays import (
    DEGREE_UNITS,
    FORMAT_VERSION,
    INNER_COMPONENTS,
    LISTED_KINDS,
    NAMED_COMPONENTS,
    NO_DEGREES,
    NODE_COMPONENTS,
    UNIT_MARK,
    Arrays,
)
from .compiled.inside import InsideNodes
from .compiled.nodelists import NodeArrays
from .compiled.pools import TextPool, WordPool
from .compiled.textrows import TextRows

Numbers = npt.NDArray[np.uint32]
_LISTED = frozenset(NODE_KINDS.index(kind) for kind in LISTED_KINDS)


class Edition:
    """Arrays and manifest of one edition of one dataset.

    Attributes are the arrays of `arrays` under their names. Where single cells are looked up
    often, a memoryview stands beside the array (`..._at`): it hands out plain numbers faster.
    """

    def __init__(self, dataset: str, number: int, manifest: dict[str, object], arrays: Arrays):
        require_form(dataset, number, manifest)
        self.dataset, self.number = dataset, number
        self.address_count = int(cast(int, manifest["addresses"]))
        self.node_count_total = int(cast(int, manifest["nodes"]))
        self.countries = tuple(cast(list[str], manifest["countries"]))
        first = set(cast(list[str], manifest["number_first"]))
        self.number_first = np.array([code in first for code in self.countries])
        self.texts = TextPool(arrays["text_bytes"], arrays["text_ends"])
        self.ids = TextPool(arrays["id_bytes"], arrays["id_ends"])
        self.words = _word_pool(arrays, "word")
        self.numbers = _word_pool(arrays, "number")
        # Plain views: a memory map's own indexing costs several times as much.
        arrays = {name: array.view(np.ndarray) for name, array in arrays.items()}
        self._arrays = arrays
        numbers = self._numbers
        self.node_kind, self.node_country = numbers("node_kind"), numbers("node_country")
        self.node_anchor = numbers("node_anchor")
        self.node_words = numbers("node_words")
        self.node_weight = cast(npt.NDArray[np.float32], arrays["node_weight"])
        self.crowded_nodes = numbers("crowded_nodes")
        self.anchor_order = numbers("anchor_order")
        self.street_nodes = numbers("street_nodes")
        self.members = numbers("members")
        self.posting_nodes = numbers("posting_nodes")
        self.number_posting_nodes = numbers("number_posting_nodes")
        self.head_nodes = numbers("head_nodes")
        self.typo_keys = numbers("typo_keys")
        self.band_order, self.band_starts = numbers("band_order"), numbers("band_starts")
        self.posting_ends_at = arrays["posting_ends"].data
        self.number_posting_ends_at = arrays["number_posting_ends"].data
        self.typo_prefixes_at = arrays["typo_prefixes"].data
        self.typo_prefix_words = numbers("typo_prefix_words")
        self._node_hash_at = arrays["node_hashes"].data
        self.node_first_at = arrays["node_first"].data
        self.node_end, self.node_end_at = numbers("node_end"), arrays["node_end"].data
        self.node_kind_at = arrays["node_kind"].data
        self._node_texts = numbers("node_texts")
        self.alternate_names = AlternateNames(
            cast(list[str], manifest["languages"]), arrays, self.texts
        )
        self.node_country_at = arrays["node_country"].data
        self._node_rows = TextRows(NODE_COMPONENTS, self._node_texts, self.texts)
        self.scanned = NodeArrays(arrays, self.number_first.view(np.uint8))
        self._view_addresses()
        self._heads = self._head_spans()

    def _view_addresses(self) -> None:
        arrays, numbers = self._arrays, self._numbers
        self.address_inner = numbers("address_inner")
        self.address_named = numbers("address_named")
        self.address_postcode = numbers("address_postcode")
        self.latitudes, self.longitudes = numbers("latitudes"), numbers("longitudes")
        self._address_inner_at = arrays["address_inner"].data
        self._address_named_at = arrays["address_named"].data
        self._address_postcode_at = arrays["address_postcode"].data
        self._inner_rows = TextRows(INNER_COMPONENTS, numbers("inner_texts"), self.texts)
        self._named_rows = TextRows(NAMED_COMPONENTS, numbers("named_texts"), self.texts)
        self.inside = InsideNodes(arrays, self.texts)
        # The street number of an address, empty where it has none.
        self.number_of = self.inside.number_of
        # The street-level node of an address.
        self.street_of = self.inside.street_of

    def _head_spans(self) -> dict[tuple[int, int], tuple[int, int]]:
        """Where among the heads' nodes those of a range of words are."""
        ends = [0, *self._numbers("head_ends").tolist()]
        words = self._numbers("head_words").tolist()
        return {
            (first, end): (ends[place], ends[place + 1]) for place, (first, end) in enumerate(words)
        }

    @property
    def arrays(self) -> Arrays:
        """All arrays by name."""
        return self._arrays

    def _numbers(self, name: str) -> Numbers:
        return cast(Numbers, self._arrays[name])

    # Addresses

    def find_address(self, row_id: str) -> int | None:
        """The index of the address with a row id, or None."""
        order = self._numbers("id_order").data
        key = row_id.encode()
        low, high = 0, len(order)
        while low < high:
            middle = (low + high) // 2
            if self.ids.raw(order[middle]) < key:
                low = middle + 1
            else:
                high = middle
        if low < len(order) and self.ids.raw(order[low]) == key:
            return int(order[low])
        return None

    def address_id(self, index: int) -> str:
        """The id by which the address is asked for: dataset and row id."""
        return f"{self.dataset}:{self.ids[index]}"

    def languages_of(self, index: int) -> list[str]:
        """The languages in which an address is spelt, its own first; empty for an unknown one."""
        street = self.street_of(index)
        others = {**self.alternate_names.of_node(street), **self.alternate_names.of_address(index)}
        return [self.node_text(street, "language"), *sorted(others)]

    def address(self, index: int, language: str = "") -> Address:
        """The whole address, with the country's code but not its name.

        Args:
            language: the alternate name that is wanted; empty for its own.
        """
        street = self.street_of(index)
        if language and language not in self.languages_of(index)[1:]:
            language = ""
        shared = self.node_components(street, language)
        own = shared.pop("language", "")
        languages = [name for name in (language or own, *self.languages_of(index)) if name]
        known = {
            **shared,
            **self.address_components(index, language),
            "country_code": self.node_country_code(street),
        }
        components = {name: known[name] for name in COMPONENTS if name in known}
        use = int(self._arrays["uses"][index])
        facts = Facts(
            latitude=self._degrees(self.latitudes, index),
            longitude=self._degrees(self.longitudes, index),
            use=USES[use - 1] if use else None,
            languages=tuple(dict.fromkeys(languages)),
        )
        return Address(with_language(self.address_id(index), language), components, facts)

    def address_components(self, index: int, language: str = "") -> Components:
        """The components that the address has beside those of its street."""
        found = self._inner_rows.of(self._address_inner_at[index])
        named = self._address_named_at[index]
        if named:
            found |= self._named_rows.of(named)
        postcode = self._address_postcode_at[index]
        if postcode:
            found["postcode"] = self.texts[postcode]
        if language:
            found |= self.alternate_names.of_address(index).get(language, {})
        return found

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
        return f"{self.dataset}:~{self._node_hash_at[node]:016x}"

    def node_kind_name(self, node: int) -> str:
        """One of NODE_KINDS."""
        return NODE_KINDS[self.node_kind_at[node]]

    def node_country_code(self, node: int) -> str:
        """ISO 3166-1 alpha-2."""
        return self.countries[self.node_country_at[node]]

    def node_count(self, node: int) -> int:
        """How many addresses the node has."""
        return int(self.node_end_at[node] - self.node_first_at[node])

    def node_text(self, node: int, component: str) -> str:
        """One of NODE_COMPONENTS, empty where the node's addresses do not share it."""
        return self.texts[int(self._node_texts[node, NODE_COMPONENTS.index(component)])]

    def node_components(self, node: int, language: str = "") -> Components:
        """The components that all the node's addresses share, and their language."""
        own = self._node_rows.of(node)
        return own | self.alternate_names.of_node(node).get(language, {}) if language else own

    def node_addresses(self, node: int) -> Numbers:
        """The node's addresses, ascending, which is natural order inside a street."""
        first, end = self.node_first_at[node], self.node_end_at[node]
        if self.node_kind_at[node] in _LISTED:
            return self.members[first:end]
        return np.arange(first, end, dtype=np.uint32)

    def address_range(self, node: int) -> Sequence[int]:
        """The same as plain numbers."""
        first, end = self.node_first_at[node], self.node_end_at[node]
        if self.node_kind_at[node] in _LISTED:
            listed: list[int] = self.members[first:end].tolist()
            return listed
        return range(first, end)

    def last_member(self, ends: Numbers) -> Numbers:
        """The last addresses of listed nodes with these ends; of no meaning for ranges."""
        return self.members.take(ends - 1, mode="clip")

    def is_listed(self, node: int) -> bool:
        """Whether the node lists its addresses and is not a range of them."""
        return self.node_kind_at[node] in _LISTED

    def is_street_level(self, node: int) -> bool:
        """Whether it is one of the nodes that every address has exactly one of."""
        first = self.node_first_at[node]
        return not self.is_listed(node) and self.street_of(first) == node

    def street_level_nodes(self, node: int) -> Numbers:
        """The street-level nodes inside a node that is a range of addresses."""
        firsts = self._numbers("street_firsts")
        bounds = np.array([self.node_first_at[node], self.node_end_at[node]], dtype=np.uint32)
        low, high = np.searchsorted(firsts, bounds)
        return self.street_nodes[low:high]

    # Postings

    def postings(self, first: int, end: int) -> Numbers:
        """The nodes of the words [first, end), ascending for each word."""
        ends = self.posting_ends_at
        return self.posting_nodes[ends[first - 1] if first else 0 : ends[end - 1]]

    def posting_count(self, first: int, end: int) -> int:
        """How many postings the words [first, end) have."""
        ends = self.posting_ends_at
        return int(ends[end - 1] - (ends[first - 1] if first else 0)) if end > first else 0

    def numbered(self, term: int) -> Numbers:
        """The nodes inside which a number term is found, ascending."""
        ends = self.number_posting_ends_at
        return self.number_posting_nodes[ends[term - 1] if term else 0 : ends[term]]

    @cached_property
    def lettered_units(self) -> frozenset[str]:
        """The terms of units and boxes that begin with no digit: `flat`, `box`, letters."""
        low, high = self.numbers.prefix_range(UNIT_MARK)
        terms = (self.numbers[place][1:] for place in range(low, high))
        return frozenset(term for term in terms if not term[0].isdigit())

    def head(self, first: int, end: int) -> Numbers | None:
        """The heaviest nodes whose own name has one of the words [first, end), where listed."""
        span = self._heads.get((first, end))
        return None if span is None else self.head_nodes[span[0] : span[1]]


def require_form(dataset: str, number: int, manifest: Mapping[str, object]) -> None:
    """Raises EditionError where an edition was built for another release."""
    if manifest.get("format") != FORMAT_VERSION:
        raise EditionError(
            f"Edition {number} of {dataset} has form {manifest.get('format')!r}; this release "
            f"reads form {FORMAT_VERSION}. Build it again from its rows."
        )


def _word_pool(arrays: Arrays, name: str) -> WordPool:
    return WordPool(arrays[f"{name}_bytes"], arrays[f"{name}_ends"], arrays[f"{name}_keys"])
