"""Rows in, an edition's arrays out.

Rows are put in the one order that `arrays` describes, then nodes are collected (street,
district, town and region as ranges, the others as lists), then every node's words and the
numbers inside it are gathered into postings.
"""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass, field

import numpy as np

from ..address import USES
from ..errors import EditionError
from ..kinds import NODE_KINDS
from ..layouts import LayoutLibrary
from ..text import fold, natural_key
from .arrays import (
    ADDRESS_COMPONENTS,
    DEGREE_UNITS,
    FORMAT_VERSION,
    NO_DEGREES,
    NODE_COMPONENTS,
    Arrays,
    pool_arrays,
)
from .bands import band_arrays
from .build_nodes import Node, collect_nodes
from .build_postings import posting_arrays
from .rows import Row


@dataclass(slots=True)
class Built:
    """A built edition: its arrays, and the manifest that says what they are."""

    arrays: Arrays
    manifest: dict[str, object]


@dataclass(slots=True)
class _Texts:
    """The pool while it is being filled; text 0 is the empty one."""

    ids: dict[str, int] = field(default_factory=lambda: {"": 0})

    def id_of(self, text: str) -> int:
        return self.ids.setdefault(text, len(self.ids))


def build_edition(rows: Iterable[Row], layouts: LayoutLibrary) -> Built:
    """Builds an edition.

    Args:
        rows: checked rows with distinct ids, in any order.
        layouts: those of the rows' countries: the words that their lines add are found too.

    Raises:
        EditionError: there is no row at all.
    """
    ordered = sorted(rows, key=_storage_key)
    if not ordered:
        raise EditionError("An edition needs at least one address.")
    nodes = collect_nodes(ordered)
    texts = _Texts()
    arrays: dict[str, np.ndarray] = {}
    arrays |= _address_arrays(ordered, texts)
    arrays |= _node_arrays(nodes, texts)
    arrays |= pool_arrays("text", list(texts.ids))
    arrays |= posting_arrays(ordered, nodes, layouts)
    arrays |= band_arrays(arrays["latitudes"], arrays["longitudes"])
    countries = sorted({row.country_code for row in ordered})
    codes = {code: index for index, code in enumerate(countries)}
    arrays["node_country"] = np.array([codes[n.country_code] for n in nodes], dtype=np.uint8)
    return Built(
        arrays=arrays,
        manifest={
            "format": FORMAT_VERSION,
            "addresses": len(ordered),
            "nodes": len(nodes),
            "countries": countries,
        },
    )


def _storage_key(row: Row) -> tuple[object, ...]:
    get = row.components.get
    return (
        row.country_code,
        fold(get("region", "")),
        get("region", ""),
        fold(get("town", "")),
        get("town", ""),
        fold(get("district", "")),
        get("district", ""),
        natural_key(get("street", "")),
        get("street", ""),
        natural_key(get("number", "")),
        natural_key(get("building", "")),
        natural_key(get("unit", "")),
        row.id,
    )


def _address_arrays(rows: Sequence[Row], texts: _Texts) -> dict[str, np.ndarray]:
    def degrees(value: float | None) -> int:
        return NO_DEGREES if value is None else round(value * DEGREE_UNITS)

    ids = [row.id for row in rows]
    by_id = sorted(range(len(ids)), key=lambda index: ids[index].encode())
    return {
        **pool_arrays("id", ids),
        "id_order": np.array(by_id, dtype=np.uint32),
        "address_texts": np.array(
            [
                [texts.id_of(row.components.get(name, "")) for name in ADDRESS_COMPONENTS]
                for row in rows
            ],
            dtype=np.uint32,
        ),
        # Longitudes need the full 32 bits at 1e-7 degrees: 180 degrees is 1.8e9 of 2.1e9.
        "latitudes": np.array([degrees(row.latitude) for row in rows], dtype=np.int32),
        "longitudes": np.array([degrees(row.longitude) for row in rows], dtype=np.int32),
        "uses": np.array(
            [USES.index(row.use) + 1 if row.use else 0 for row in rows], dtype=np.uint8
        ),
    }


def _node_arrays(nodes: Sequence[Node], texts: _Texts) -> dict[str, np.ndarray]:
    members: list[int] = []
    first: list[int] = []
    end: list[int] = []
    for node in nodes:
        if node.listed:
            first.append(len(members))
            members.extend(node.addresses)
            end.append(len(members))
        else:
            first.append(node.addresses[0])
            end.append(node.addresses[-1] + 1)
    address_street = np.zeros(sum(len(n.addresses) for n in nodes if n.street_level), np.uint32)
    for index, node in enumerate(nodes):
        if node.street_level:
            address_street[node.addresses[0] : node.addresses[-1] + 1] = index
    hashes = np.array([node.stable_hash() for node in nodes], dtype=np.uint64)
    return {
        "node_kind": np.array([NODE_KINDS.index(n.kind) for n in nodes], dtype=np.uint8),
        "node_texts": np.array(
            [[texts.id_of(n.components.get(name, "")) for name in NODE_COMPONENTS] for n in nodes],
            dtype=np.uint32,
        ),
        "node_first": np.array(first, dtype=np.uint32),
        "node_end": np.array(end, dtype=np.uint32),
        "node_name_length": np.array([len(n.name_tokens()) for n in nodes], dtype=np.uint8),
        "node_hashes": hashes,
        "node_hash_order": np.argsort(hashes, kind="stable").astype(np.uint32),
        "members": np.array(members or [0], dtype=np.uint32),
        "address_street": address_street,
    }
