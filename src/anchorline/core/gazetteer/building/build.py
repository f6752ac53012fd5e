"""Builds an edition's arrays from its rows.

The steps: sort the rows into the order that `arrays` describes; collect the nodes (streets,
districts, towns and regions as ranges, the others as lists) and number them by weight; gather their
words and the numbers inside them into postings; then make what keeps searches fast: the heaviest
nodes of common beginnings, bitmaps, and the index of deletions.
"""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from typing import cast

import numpy as np

from ...errors import EditionError
from ...layouts import LayoutLibrary
from ..arrays import FORMAT_VERSION, Arrays, pool_arrays
from ..bands import band_arrays
from ..rows import Row
from .alternate_names import collect_alternate_names, split_alternate_names
from .bitmaps import bitmap_arrays
from .heads import head_arrays
from .nodes import Nodes, OrderedRows, collect_nodes
from .numbers import number_arrays
from .order import id_ranks, storage_order
from .table import RowTable
from .typos import typo_arrays
from .words import word_arrays


@dataclass(slots=True)
class Built:
    """A built edition: its arrays, and the manifest that says what they are."""

    arrays: Arrays
    manifest: dict[str, object]

    @property
    def address_count(self) -> int:
        """How many addresses it has."""
        return cast(int, self.manifest["addresses"])


def build_edition(rows: Iterable[Row] | RowTable, layouts: LayoutLibrary) -> Built:
    """Builds an edition.

    Args:
        rows: checked rows, in any order; of those with the same id, each in another language.
        layouts: those of the rows' countries: the words that their lines add are found too.

    Raises:
        EditionError: there is no row at all.
    """
    table = rows if isinstance(rows, RowTable) else RowTable(rows)
    if not len(table):
        raise EditionError("An edition needs at least one address.")
    firsts, others, spells = split_alternate_names(table, layouts)
    alternates = table.only(others)
    if len(others):
        table = table.only(firsts)
    order = storage_order(table)
    ordered = OrderedRows(table, order)
    texts = table.texts
    nodes = collect_nodes(ordered, texts)
    alternate_names = collect_alternate_names(ordered, nodes, alternates, np.argsort(order)[spells])
    words = word_arrays(ordered, nodes, alternate_names, texts, layouts)
    latitudes, longitudes = table.latitudes[order], table.longitudes[order]
    codes, country = np.unique(nodes.country, return_inverse=True)
    countries = [texts[code] for code in codes]
    by_name = sorted(range(len(countries)), key=countries.__getitem__)
    numbers = np.empty(len(countries), dtype=np.uint8)
    numbers[by_name] = np.arange(len(countries))
    arrays: dict[str, np.ndarray] = {
        **pool_arrays("text", texts),
        **_id_arrays([table.ids[row] for row in order.tolist()]),
        "address_postcode": ordered.column("postcode"),
        "latitudes": latitudes,
        "longitudes": longitudes,
        "uses": table.uses[order],
        **band_arrays(latitudes, longitudes),
        **_node_arrays(nodes),
        "node_country": numbers[country],
        **words.arrays,
        **head_arrays(nodes, words),
        **typo_arrays(words.vocabulary),
        **number_arrays(ordered, nodes, texts, layouts),
        **alternate_names.arrays,
    }
    return Built(
        arrays=arrays | bitmap_arrays(arrays, len(nodes)),
        manifest={
            "format": FORMAT_VERSION,
            "addresses": len(table),
            "nodes": len(nodes),
            "countries": sorted(countries),
            "languages": alternate_names.languages,
            "number_first": [c for c in sorted(countries) if layouts.require(c).number_first],
        },
    )


def _id_arrays(ids: Sequence[str]) -> dict[str, np.ndarray]:
    return {**pool_arrays("id", ids), "id_order": np.argsort(id_ranks(ids)).astype(np.uint32)}


def _node_arrays(nodes: Nodes) -> dict[str, np.ndarray]:
    def by_anchor(wanted: np.ndarray) -> np.ndarray:
        chosen = np.flatnonzero(wanted)
        return chosen[np.argsort(nodes.anchor[chosen], kind="stable")].astype(np.uint32)

    streets = by_anchor(nodes.street_level)
    return {
        "node_kind": nodes.kind,
        "node_texts": nodes.texts,
        "node_first": nodes.first.astype(np.uint32),
        "node_end": nodes.end.astype(np.uint32),
        "node_anchor": nodes.anchor.astype(np.uint32),
        "node_weight": nodes.weight,
        "node_hashes": nodes.hashes,
        "node_hash_order": np.argsort(nodes.hashes, kind="stable").astype(np.uint32),
        "members": nodes.members,
        "anchor_order": by_anchor(nodes.street_level | nodes.inside_street),
        "street_nodes": streets,
        "street_firsts": nodes.anchor[streets].astype(np.uint32),
    }
