"""Collecting the nodes of an edition from its ordered rows.

Every address has exactly one street-level node: its street, or its district where it has no street,
or else its town. Street-level nodes, districts, towns and regions are ranges of addresses; nodes of
the other kinds list their addresses. At the end nodes are numbered by weight.
"""

from __future__ import annotations

import hashlib
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from ...kinds import NODE_KINDS
from ..arrays import LISTED_KINDS, NODE_COMPONENTS
from ..ranking import node_weights
from .order import Longs, combined, run_starts
from .table import RowTable

_KIND = {kind: number for number, kind in enumerate(NODE_KINDS)}
_PATH = ("country_code", "region", "town", "district", "street")
# Beside the path, what tells two nodes of a kind apart.
_TOLD_APART_BY: dict[str, tuple[str, ...]] = {
    "building": ("number", "building"),
    "organisation": ("organisation",),
    "place": ("place",),
}


class OrderedRows:
    """A table's columns in storage order."""

    def __init__(self, table: RowTable, order: Longs) -> None:
        self._table, self._order = table, order
        self._columns: dict[str, npt.NDArray[np.uint32]] = {}

    def __len__(self) -> int:
        return len(self._order)

    def column(self, name: str) -> npt.NDArray[np.uint32]:
        """Text numbers of one column."""
        if name not in self._columns:
            self._columns[name] = self._table.column(name)[self._order]
        return self._columns[name]


@dataclass(slots=True)
class Nodes:
    """Nodes as columns, heaviest first.

    Attributes:
        kind: index into NODE_KINDS.
        first, end: range of addresses, or of `members` for listed kinds.
        anchor: the first address.
        texts: node × NODE_COMPONENTS, text numbers of what all its addresses share.
        name: text number of its own name, 0 for none.
        country: text number of its country's code.
        hashes: names that stay the same between editions.
        weight: what its kind and size are worth.
        members: addresses of the listed nodes.
        street_level: which nodes are street-level.
    """

    kind: npt.NDArray[np.uint8]
    first: Longs
    end: Longs
    anchor: Longs
    texts: npt.NDArray[np.uint32]
    name: npt.NDArray[np.uint32]
    country: npt.NDArray[np.uint32]
    hashes: npt.NDArray[np.uint64]
    weight: npt.NDArray[np.float32]
    members: npt.NDArray[np.uint32]
    street_level: npt.NDArray[np.bool_]

    def __len__(self) -> int:
        return len(self.kind)

    def addresses_of(self, wanted: npt.NDArray[np.bool_]) -> tuple[Longs, Longs]:
        """Pairs of (node, address) for some nodes, all of them ranges or all of them listed."""
        chosen = np.flatnonzero(wanted)
        counts = self.end[chosen] - self.first[chosen]
        flat = np.arange(counts.sum()) - np.repeat(np.cumsum(counts) - counts, counts)
        places = flat + np.repeat(self.first[chosen], counts)
        if len(chosen) and NODE_KINDS[self.kind[chosen[0]]] in LISTED_KINDS:
            places = self.members[places].astype(np.int64)
        return np.repeat(chosen, counts), places

    @property
    def inside_street(self) -> npt.NDArray[np.bool_]:
        """Which nodes lie inside one street."""
        kinds = [_KIND[kind] for kind in _TOLD_APART_BY]
        return np.isin(self.kind, kinds)


@dataclass(slots=True)
class _Group:
    """Nodes of one kind, before they are put together."""

    kind: npt.NDArray[np.uint8]
    first: Longs
    end: Longs
    sequence: Longs | None  # addresses of a listed kind; None: ranges
    street_level: bool = False


def collect_nodes(rows: OrderedRows, texts: Sequence[str]) -> Nodes:
    """All nodes of the rows."""
    streets = _street_level(rows)
    groups = [
        streets,
        _districts(rows, streets),
        _ranges(rows, "town", _PATH[:3]),
        _ranges(rows, "region", _PATH[:2]),
        _listed(rows, "postcode", ("country_code", "postcode")),
        *(_listed(rows, kind, (*_PATH, *more)) for kind, more in _TOLD_APART_BY.items()),
    ]
    return _put_together(rows, groups, texts)


def _street_level(rows: OrderedRows) -> _Group:
    first = run_starts(combined([rows.column(name) for name in _PATH]))
    kind = np.where(
        rows.column("street")[first] != 0,
        _KIND["street"],
        np.where(rows.column("district")[first] != 0, _KIND["district"], _KIND["town"]),
    )
    return _Group(kind.astype(np.uint8), first, _ends(first, len(rows)), None, street_level=True)


def _ends(first: Longs, total: int) -> Longs:
    return np.append(first[1:], total)


def _ranges(rows: OrderedRows, kind: str, path: tuple[str, ...]) -> _Group:
    first = run_starts(combined([rows.column(name) for name in path]))
    end = _ends(first, len(rows))
    named = rows.column(path[-1])[first] != 0
    kinds = np.full(int(named.sum()), _KIND[kind], dtype=np.uint8)
    return _Group(kinds, first[named], end[named], None)


def _districts(rows: OrderedRows, streets: _Group) -> _Group:
    """Districts with streets; one whose addresses have none is a street-level node already."""
    group = _ranges(rows, "district", _PATH[:4])
    has_street = np.concatenate([[0], np.cumsum(streets.kind == _KIND["street"])])
    low = np.searchsorted(streets.first, group.first)
    high = np.searchsorted(streets.first, group.end)
    kept = has_street[high] > has_street[low]
    return _Group(group.kind[kept], group.first[kept], group.end[kept], None)


def _listed(rows: OrderedRows, kind: str, key: tuple[str, ...]) -> _Group:
    named = np.flatnonzero(rows.column(key[-1]))
    if not len(named):
        nothing = np.zeros(0, dtype=np.int64)
        return _Group(np.zeros(0, dtype=np.uint8), nothing, nothing, nothing)
    code = combined([rows.column(name)[named] for name in key])
    order = np.argsort(code, kind="stable")
    first = run_starts(code[order])
    kinds = np.full(len(first), _KIND[kind], dtype=np.uint8)
    return _Group(kinds, first, _ends(first, len(named)), named[order])


def _put_together(rows: OrderedRows, groups: Sequence[_Group], texts: Sequence[str]) -> Nodes:
    kind = np.concatenate([group.kind for group in groups])
    shared = np.vstack([_shared_texts(rows, group) for group in groups])
    members: list[Longs] = []
    first, end, anchor = [], [], []
    offset = 0
    for group in groups:
        listed = group.sequence is not None
        first.append(group.first + (offset if listed else 0))
        end.append(group.end + (offset if listed else 0))
        if group.sequence is not None:
            anchor.append(group.sequence[group.first])
            members.append(group.sequence)
            offset += len(group.sequence)
        else:
            anchor.append(group.first)
    firsts, ends, anchors = (np.concatenate(parts) for parts in (first, end, anchor))
    weight = node_weights(kind, ends - firsts)
    order = np.lexsort((kind, anchors, -weight))
    street_level = np.repeat([g.street_level for g in groups], [len(g.kind) for g in groups])
    country = rows.column("country_code")[anchors]
    name = shared[np.arange(len(kind)), [NODE_COMPONENTS.index(NODE_KINDS[k]) for k in kind]]
    # The rest of a town without street or district is found by what is in it, not by the
    # town's name: that finds the town itself.
    name[street_level & (kind == _KIND["town"])] = 0
    nodes = Nodes(
        kind=kind[order],
        first=firsts[order],
        end=ends[order],
        anchor=anchors[order],
        texts=shared[order],
        name=name[order],
        country=country[order],
        hashes=np.zeros(len(kind), dtype=np.uint64),
        weight=weight[order],
        members=np.concatenate([*members, np.zeros(1, np.int64)]).astype(np.uint32),
        street_level=street_level[order],
    )
    nodes.hashes = _stable_hashes(rows, nodes, texts)
    return nodes


def _shared_texts(rows: OrderedRows, group: _Group) -> npt.NDArray[np.uint32]:
    """Node × NODE_COMPONENTS: the text that all addresses share, or 0."""
    found = np.zeros((len(group.kind), len(NODE_COMPONENTS)), dtype=np.uint32)
    if not len(group.kind):
        return found
    bounds = np.column_stack([group.first, group.end]).ravel()
    for place, name in enumerate(NODE_COMPONENTS):
        column = rows.column(name)
        values = column if group.sequence is None else column[group.sequence]
        values = np.append(values, values[-1:])  # an end may lie behind the last value
        least = np.minimum.reduceat(values, bounds)[::2]
        most = np.maximum.reduceat(values, bounds)[::2]
        found[:, place] = np.where(least == most, least, 0)
    return found


def _stable_hashes(rows: OrderedRows, nodes: Nodes, texts: Sequence[str]) -> npt.NDArray[np.uint64]:
    """64 bits a node that name it in every edition: of its kind, country and key."""
    path = np.column_stack([rows.column(name)[nodes.anchor] for name in _PATH]).tolist()
    number = rows.column("number")[nodes.anchor].tolist()
    depths = {"street": 5, "district": 4, "town": 3, "region": 2, "postcode": 1}
    hashes = np.empty(len(nodes), dtype=np.uint64)
    names, levels = nodes.name.tolist(), nodes.street_level.tolist()
    for place, kind_number in enumerate(nodes.kind.tolist()):
        kind = NODE_KINDS[kind_number]
        key = path[place] if levels[place] else path[place][: depths.get(kind, 5)]
        parts = [kind, str(levels[place]), *(texts[text] for text in key)]
        if kind in LISTED_KINDS:
            parts.append(texts[names[place]])
        if kind == "building":
            parts.append(texts[number[place]])
        digest = hashlib.blake2b("\x1f".join(parts).encode(), digest_size=8).digest()
        hashes[place] = int.from_bytes(digest, "big")
    return hashes
