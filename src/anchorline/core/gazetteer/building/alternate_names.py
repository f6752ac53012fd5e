"""Alternate names of the same addresses: rows with the id of another row, in another language.

One row of an id is the address itself: the one in the language that its country names first,
whatever the order of the file. The others only add names: to the address, and to the nodes whose
addresses share them.
"""

from __future__ import annotations

from collections import defaultdict
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from ...kinds import NODE_KINDS
from ...layouts import LayoutLibrary
from ..arrays import INNER_COMPONENTS, LISTED_KINDS, NAMED_COMPONENTS, NODE_COMPONENTS, Arrays
from .nodes import Nodes, OrderedRows
from .order import Longs, run_starts
from .table import RowTable

_OF_ADDRESS = (*INNER_COMPONENTS, *NAMED_COMPONENTS)
_LANGUAGE = NODE_COMPONENTS.index("language")
_NO_PLACES = np.zeros(0, dtype=np.int64)
Texts = npt.NDArray[np.uint32]


@dataclass(slots=True)
class AlternateNames:
    """Alternate names, by address and by node.

    Attributes:
        languages: of all of them.
        nodes, node_languages: ascending by node, then language (a place in `languages`).
        node_texts: spelling × NODE_COMPONENTS, text numbers; 0 where it is as in the first one.
        addresses, address_languages, address_texts: the same of addresses, × INNER_COMPONENTS
            and NAMED_COMPONENTS.
    """

    languages: list[str]
    nodes: Longs
    node_languages: Longs
    node_texts: Texts
    addresses: Longs
    address_languages: Longs
    address_texts: Texts

    @property
    def arrays(self) -> Arrays:
        """What the edition keeps of them."""
        return {
            "alternate_nodes": self.nodes.astype(np.uint32),
            "alternate_node_languages": self.node_languages.astype(np.uint8),
            "alternate_node_texts": self.node_texts,
            "alternate_addresses": self.addresses.astype(np.uint32),
            "alternate_address_languages": self.address_languages.astype(np.uint8),
            "alternate_address_texts": self.address_texts,
        }


def split_alternate_names(table: RowTable, layouts: LayoutLibrary) -> tuple[Longs, Longs, Longs]:
    """The rows that are addresses, those that spell them otherwise, and whose address each is.

    Returns:
        Row numbers of the addresses, ascending; row numbers of the others; and for each of these
        the place of its address among the first.
    """
    hashes = np.fromiter(map(hash, table.ids), dtype=np.int64, count=len(table))
    distinct, counts = np.unique(hashes, return_counts=True)
    if len(distinct) == len(hashes):
        return np.arange(len(table)), _NO_PLACES, _NO_PLACES
    by_id: defaultdict[str, list[int]] = defaultdict(list)
    for row in np.flatnonzero(np.isin(hashes, distinct[counts > 1])).tolist():
        by_id[table.ids[row]].append(row)
    texts = table.texts
    codes, languages = table.column("country_code"), table.column("language")

    def rank(row: int) -> tuple[int, str, int]:
        language = texts[languages[row]]
        own = layouts.require(texts[codes[row]]).languages
        primary = language.partition("-")[0]
        place = own.index(language) if language in own else len(own)
        if primary in own and place == len(own):
            place = own.index(primary)
        return (place if language else -1, language, row)

    first_of = {row: min(rows, key=rank) for rows in by_id.values() for row in rows}
    others = [row for row, first in first_of.items() if row != first]
    is_first = np.ones(len(table), dtype=np.bool_)
    is_first[others] = False
    firsts = np.flatnonzero(is_first)
    return firsts, np.array(others, dtype=np.int64), np.searchsorted(
        firsts, np.array([first_of[row] for row in others], dtype=np.int64)
    )  # fmt: skip


def collect_alternate_names(
    rows: OrderedRows, nodes: Nodes, others: RowTable, addresses: Longs
) -> AlternateNames:
    """The alternate names of an edition's addresses and nodes.

    Args:
        others: rows that spell addresses otherwise.
        addresses: whose names each of them has, in storage order.
    """
    language = others.column("language")
    texts = others.texts
    numbers = np.unique(language)
    of_nodes: list[tuple[Longs, Longs, Texts]] = []
    of_addresses: list[tuple[Longs, Longs, Texts]] = []
    for place, number in enumerate(numbers.tolist()):
        chosen = np.flatnonzero(language == number)
        chosen = chosen[np.argsort(addresses[chosen], kind="stable")]
        chosen = chosen[run_starts(addresses[chosen])]
        spelt, at = OrderedRows(others, chosen), addresses[chosen]
        of_nodes.append(_of_nodes(nodes, spelt, at, place))
        of_addresses.append(_of_addresses(rows, spelt, at, place))
    return AlternateNames([texts[n] for n in numbers], *_sorted(of_nodes, len(NODE_COMPONENTS)),
                     *_sorted(of_addresses, len(_OF_ADDRESS)))  # fmt: skip


def _sorted(parts: list[tuple[Longs, Longs, Texts]], width: int) -> tuple[Longs, Longs, Texts]:
    if not parts:
        return _NO_PLACES, _NO_PLACES, np.zeros((0, width), dtype=np.uint32)
    which, language, texts = (np.concatenate([part[i] for part in parts]) for i in range(3))
    order = np.lexsort((language, which))
    return which[order], language[order], texts[order].astype(np.uint32)


def _of_addresses(
    rows: OrderedRows, spelt: OrderedRows, at: Longs, language: int
) -> tuple[Longs, Longs, Texts]:
    columns = []
    for name in _OF_ADDRESS:
        text = spelt.column(name)
        columns.append(np.where(text != rows.column(name)[at], text, 0))
    texts = np.column_stack(columns).astype(np.uint32)
    kept = texts.any(axis=1)
    return at[kept], np.full(int(kept.sum()), language), texts[kept]


def _of_nodes(
    nodes: Nodes, spelt: OrderedRows, at: Longs, language: int
) -> tuple[Longs, Longs, Texts]:
    """Of each node the texts that all its spelt addresses share, where they differ from its own."""
    node, place = _pairs(nodes, at)
    starts = run_starts(node) if len(node) else _NO_PLACES
    which = node[starts]
    texts = np.zeros((len(which), len(NODE_COMPONENTS)), dtype=np.uint32)
    for column, name in enumerate(NODE_COMPONENTS):
        if not len(which):
            break
        values = spelt.column(name)[place]
        least = np.minimum.reduceat(values, starts)
        most = np.maximum.reduceat(values, starts)
        own = nodes.texts[which, column]
        differs = (least == most) & (own != 0) & (least != own)
        texts[:, column] = np.where(differs, least, 0)
    named = np.delete(texts, _LANGUAGE, axis=1).any(axis=1)
    texts[:, _LANGUAGE] = spelt.column("language")[0] if len(at) else 0
    return which[named], np.full(int(named.sum()), language), texts[named]


def _pairs(nodes: Nodes, at: Longs) -> tuple[Longs, Longs]:
    """Pairs of a node and a place in `at` whose address it has, by node; `at` ascends."""
    listed = np.isin(nodes.kind, [NODE_KINDS.index(kind) for kind in LISTED_KINDS])
    low, high = np.searchsorted(at, nodes.first), np.searchsorted(at, nodes.end)
    has = np.flatnonzero(~listed & (high > low))
    counts = (high - low)[has]
    flat = np.arange(counts.sum()) - np.repeat(np.cumsum(counts) - counts, counts)
    ranges = np.repeat(has, counts), flat + np.repeat(low[has], counts)
    members = [_NO_PLACES], [_NO_PLACES]
    for kind in sorted(LISTED_KINDS):
        node, address = nodes.addresses_of(nodes.kind == NODE_KINDS.index(kind))
        place = np.minimum(np.searchsorted(at, address), max(len(at) - 1, 0))
        known = at[place] == address if len(at) else np.zeros(len(address), dtype=np.bool_)
        members[0].append(node[known])
        members[1].append(place[known])
    node = np.concatenate([ranges[0], *members[0]])
    places = np.concatenate([ranges[1], *members[1]])
    order = np.argsort(node, kind="stable")
    return node[order], places[order]
