"""The arrays that an edition consists of, in memory and on disk.

Addresses are kept in one order: country, region, town, district, street, then number and unit
in natural order. So the addresses of a street, district, town or region stand together and a
node of that kind is a range [first, end). Other nodes (postcode, building, organisation,
place) own a range of `members`, which lists addresses.

Every text stands once in a pool: `texts` is UTF-8, text i is bytes [ends[i-1], ends[i]).

Nodes are numbered by weight, the heaviest first (`ranking.node_weights`), so that a list of
nodes in ascending order is a list in descending order of weight and can be cut short.

| array | one entry a | what |
|---|---|---|
| text_bytes, text_ends | | the pool of component values; text 0 is empty |
| id_bytes, id_ends, id_order | address | row ids, and the addresses in the order of their ids |
| address_inner | address | its entry among the inner texts: what tells it from its neighbours |
| address_named | address | its entry among the named texts, 0 none |
| address_postcode | address | text of its postcode |
| latitudes, longitudes | address | 1e-7 degrees; `NO_DEGREES` where unknown |
| uses | address | index into USES + 1, 0 unknown |
| inner_texts | inner × INNER_COMPONENTS | distinct combinations of texts |
| named_texts | named × NAMED_COMPONENTS | distinct combinations of texts; 0 is the empty one |
| node_kind, node_country | node | index into NODE_KINDS; index into the manifest's countries |
| node_texts | node × NODE_COMPONENTS | text of a component that all its addresses share |
| node_first, node_end | node | range of addresses, or of `members` for listed kinds |
| node_anchor | node | its first address |
| node_weight | node | what its kind and size are worth (`ranking.node_weights`) |
| node_words | node × width | its words as `word << FIELD_BITS | Field`, its own name's first |
| alternate_nodes, alternate_node_languages | alternate name of a node | node; place of its language in the manifest |
| alternate_node_texts | spelling × NODE_COMPONENTS | text; 0 as in the node itself |
| alternate_addresses, alternate_address_languages | alternate name of an address | address; as above |
| alternate_address_texts | spelling × INNER_, NAMED_COMPONENTS | text; 0 as in the address itself |
| node_hashes, node_hash_order | node | name of a node that stays the same between editions |
| crowded_nodes | | nodes with more words than `node_words` has room for |
| anchor_order | node inside a street, or street-level | nodes in the order of their first address |
| street_firsts, street_nodes | street-level node | its first address, ascending; its node |
| members | member | address |
| word_bytes, word_ends, word_keys | word | the sorted vocabulary; its first 8 bytes as a number |
| posting_ends, posting_nodes | word / posting | nodes with the word, ascending |
| name_ends, name_nodes | word / posting | nodes that have the word in their own name, ascending |
| number_bytes, number_ends, number_keys | number term | the sorted terms of `address_inner` |
| number_posting_ends, number_posting_nodes | term / posting | nodes that have it inside |
| number_posting_counts | posting | how many of the node's addresses have it, 255 at most |
| number_inner_ends, number_inners | term / inner | entries of `inner_texts` that have it |
| head_words | head | range [first, end) of words that more than `HEAVY` postings begin with |
| head_ends, head_nodes | head / node | the heaviest nodes of it for every country and kind |
| bitmap_words, bitmap_names | bitmap | range [first, end) of words that many nodes have, or in their names |
| bitmap_numbers | bitmap | the same of number terms |
| bitmap_word_bits, bitmap_name_bits, bitmap_number_bits | mark × 64 nodes | a bit for each node that has it, lowest first |
| typo_keys, typo_prefixes | deletion | hash of a prefix with letters left out; the prefix |
| typo_prefix_words | prefix | range [first, end) of the words that begin with it; its length |
| band_order, band_starts | address with a position | for nearest: by latitude band, then longitude |
"""  # noqa: E501

from __future__ import annotations

from collections.abc import Mapping, Sequence
from enum import IntEnum
from typing import TypeVar

import numpy as np
import numpy.typing as npt

FORMAT_VERSION = 8
NO_DEGREES = np.iinfo(np.int32).max
DEGREE_UNITS = 10_000_000
INNER_COMPONENTS: tuple[str, ...] = ("number", "unit", "po_box")
NAMED_COMPONENTS: tuple[str, ...] = ("organisation", "place", "building")
NODE_COMPONENTS: tuple[str, ...] = (
    "organisation", "place", "building", "street", "district", "town", "region", "region_code",
    "nation", "postcode", "language",
)  # fmt: skip
LISTED_KINDS = frozenset({"postcode", "building", "organisation", "place"})
# A beginning with more postings than this has its heaviest nodes listed beforehand.
HEAVY = 1024
FIELD_BITS = 3
FIELD_MASK = (1 << FIELD_BITS) - 1
# A search reads a few cells of these or none, so they are the last to be read from disk.
SELDOM_SEARCHED = frozenset({
    "address_inner", "address_named", "address_postcode", "band_order", "id_bytes", "id_ends",
    "id_order", "latitudes", "longitudes", "node_hash_order", "node_hashes", "uses",
})  # fmt: skip
# Before a number term that is of a unit or a box, and not of a street number.
UNIT_MARK = "#"
MOST_WORDS = 24

_Whole = TypeVar("_Whole", bound=np.integer)
NodeNumbers = npt.NDArray[np.uint32]
Flags = npt.NDArray[np.bool_]
Arrays = Mapping[str, npt.NDArray[np.generic]]


class Field(IntEnum):
    """Where in a node a word stands; the greater, the more a match there is worth."""

    NOTHING = 0
    REGION = 2
    AROUND = 3
    TOWN = 4
    # Another form of the word of the name before it: `saint` beside the `street` of St.
    NAME_ALSO = 5
    NAME = 6
    NAME_START = 7


def pool_arrays(name: str, texts: Sequence[str]) -> dict[str, npt.NDArray[np.generic]]:
    """The two arrays of a pool with these texts, in this order."""
    encoded = [text.encode() for text in texts]
    lengths = np.fromiter(map(len, encoded), dtype=np.uint32, count=len(encoded))
    return {
        f"{name}_bytes": np.frombuffer(b"".join(encoded) or b"\0", dtype=np.uint8),
        f"{name}_ends": np.cumsum(lengths, dtype=np.uint32),
    }


def sorted_pool_arrays(name: str, texts: Sequence[str]) -> dict[str, npt.NDArray[np.generic]]:
    """The arrays of a sorted pool; `texts` are in the order of their bytes."""
    heads = b"".join(text.encode()[:8].ljust(8, b"\0") for text in texts)
    return {
        **pool_arrays(name, texts),
        f"{name}_keys": np.frombuffer(heads, dtype=">u8").astype(np.uint64),
    }


def distinct_sorted(values: npt.NDArray[_Whole]) -> npt.NDArray[_Whole]:
    """The values in ascending order, each once: `numpy.unique`, which hashes millions slowly."""
    ordered = np.sort(values)
    if len(ordered) < 2:
        return ordered
    kept = np.empty(len(ordered), dtype=np.bool_)
    kept[0] = True
    np.not_equal(ordered[1:], ordered[:-1], out=kept[1:])
    return ordered[kept]
