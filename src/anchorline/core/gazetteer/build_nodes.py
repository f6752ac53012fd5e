"""Collecting the nodes of an edition from its ordered rows."""

from __future__ import annotations

import hashlib
from collections.abc import Callable, Sequence
from dataclasses import dataclass, field

from ..text import compact, tokens
from .arrays import LISTED_KINDS, NODE_COMPONENTS
from .rows import Row

_PLACE_PATH = ("region", "town", "district", "street")


@dataclass(slots=True)
class Node:
    """One thing that is found and holds addresses.

    Attributes:
        kind: one of NODE_KINDS.
        key: what makes it this node and no other within its kind.
        addresses: indices of its addresses, ascending.
        components: the components that all its addresses share.
        street_level: one of the nodes that every address has exactly one of. It is called a
            district, or a town, where its addresses have no street.
        postcodes: the postcodes of its addresses.
    """

    kind: str
    key: tuple[str, ...]
    country_code: str
    addresses: list[int]
    components: dict[str, str]
    street_level: bool = False
    postcodes: set[str] = field(default_factory=set)

    @property
    def listed(self) -> bool:
        """Whether its addresses are a list and not a range."""
        return self.kind in LISTED_KINDS

    @property
    def name(self) -> str:
        """Its own name: the component that its kind is called after."""
        # The rest of a town without street or district is found by what is in it,
        # not by the town's name: that finds the town itself.
        if self.street_level and self.kind == "town":
            return ""
        return self.components.get(self.kind, "")

    def name_tokens(self) -> list[str]:
        """The tokens of its name; a postcode is one token, however it is spaced."""
        return [compact(self.name)] if self.kind == "postcode" else tokens(self.name)

    def stable_hash(self) -> int:
        """64 bits that name the node in every edition: of its kind, country and key."""
        text = "\x1f".join((self.kind, self.country_code, str(self.street_level), *self.key))
        return int.from_bytes(hashlib.blake2b(text.encode(), digest_size=8).digest(), "big")


def collect_nodes(rows: Sequence[Row]) -> list[Node]:
    """All nodes: street-level ones first, in address order, then the others by kind."""
    streets = _grouped(rows, lambda r: ("street", *_path(r, 4)))
    for node in streets:
        node.street_level = True
        if not node.components.get("street"):
            node.kind = "district" if node.components.get("district") else "town"
    # A district whose addresses all stand without a street is already a street-level node.
    with_streets = {(n.country_code, *n.key[:-1]) for n in streets if n.kind == "street"}
    districts = [
        node
        for node in _grouped(rows, _prefixed("district", 3))
        if (node.country_code, *node.key) in with_streets
    ]
    return [
        *streets,
        *districts,
        *_grouped(rows, _prefixed("town", 2)),
        *_grouped(rows, _prefixed("region", 1)),
        *_grouped(rows, lambda r: ("postcode", r.components.get("postcode", ""))),
        *_grouped(rows, _inside_street("building", with_number=True)),
        *_grouped(rows, _inside_street("organisation")),
        *_grouped(rows, _inside_street("place")),
    ]


def _path(row: Row, depth: int) -> tuple[str, ...]:
    return tuple(row.components.get(name, "") for name in _PLACE_PATH[:depth])


def _prefixed(kind: str, depth: int) -> Callable[[Row], tuple[str, ...]]:
    def key(row: Row) -> tuple[str, ...]:
        path = _path(row, depth)
        return (kind, *path) if path[-1] else (kind,)

    return key


def _inside_street(kind: str, *, with_number: bool = False) -> Callable[[Row], tuple[str, ...]]:
    def key(row: Row) -> tuple[str, ...]:
        name = row.components.get(kind, "")
        if not name:
            return (kind,)
        number = (row.components.get("number", ""),) if with_number else ()
        return (kind, *_path(row, 4), *number, name)

    return key


def _grouped(rows: Sequence[Row], key_of: Callable[[Row], tuple[str, ...]]) -> list[Node]:
    """Nodes of the rows with equal keys; a key of the kind alone, or with nothing last, is none."""
    nodes: dict[tuple[str, ...], Node] = {}
    for index, row in enumerate(rows):
        kind, *rest = key_of(row)
        if not rest or (kind == "postcode" and not rest[0]):
            continue
        key = (row.country_code, *rest)
        node = nodes.get(key)
        if node is None:
            shared = {n: v for n in NODE_COMPONENTS if (v := _value(row, n))}
            node = Node(kind, tuple(rest), row.country_code, [], shared)
            nodes[key] = node
        else:
            _keep_shared(node.components, row)
        node.addresses.append(index)
        if row.components.get("postcode"):
            node.postcodes.add(row.components["postcode"])
    return list(nodes.values())


def _keep_shared(shared: dict[str, str], row: Row) -> None:
    for name in [n for n, value in shared.items() if _value(row, n) != value]:
        del shared[name]


def _value(row: Row, name: str) -> str:
    return row.language if name == "language" else row.components.get(name, "")
