"""Postcode lookup: all addresses of a postcode, or the postcodes that begin as typed."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np

from ..kinds import NODE_KINDS
from ..layouts import Layout, postcode_beginnings, spelt_postcode
from ..text import compact, natural_key
from .edition import Edition
from .labels import LabelWriter

MOST_POSTCODES = 100


@dataclass(frozen=True, slots=True)
class PostcodeAddresses:
    """A whole postcode: ids and labels of its addresses, by street, then number and unit."""

    postcode: str
    addresses: tuple[tuple[str, str], ...]


@dataclass(frozen=True, slots=True)
class PostcodesBegun:
    """A partial postcode: the postcodes that begin with it, with counts, and their towns.

    `total` counts all of them; `postcodes` holds the first MOST_POSTCODES.
    """

    postcode: str
    postcodes: tuple[tuple[str, int], ...]
    towns: tuple[str, ...]
    total: int


def look_up_postcode(
    editions: Sequence[Edition], layout: Layout, typed: str, labels: LabelWriter
) -> PostcodeAddresses | PostcodesBegun | None:
    """What a postcode of a country, whole or partial, holds; None where it holds nothing.

    A partial one is a beginning that the country's masks allow; where the country has no
    masks, any beginning.
    """
    canonical = spelt_postcode(layout, typed)
    if canonical is not None:
        whole = _whole(editions, layout.country_code, canonical, labels)
        if whole is not None:
            return whole
    for beginning in postcode_beginnings(layout, typed):
        begun = _begun(editions, layout.country_code, beginning)
        if begun is not None:
            return replace(begun, postcode=typed.strip().upper())
    return None


def _postcode_nodes(edition: Edition, country_code: str, prefix: str) -> list[int]:
    """The country's postcode nodes whose postcode begins with `prefix` (compact)."""
    first, end = edition.words.prefix_range(prefix)
    if first == end:
        return []
    nodes = np.unique(edition.postings(first, end))
    of_kind = nodes[edition.node_kind[nodes] == NODE_KINDS.index("postcode")]
    return [node for node in of_kind.tolist() if edition.node_country_code(node) == country_code]


def _whole(
    editions: Sequence[Edition], country_code: str, canonical: str, labels: LabelWriter
) -> PostcodeAddresses | None:
    wanted = compact(canonical)
    found = [
        (edition.address_id(address), labels.address(edition, address))
        for edition in editions
        for node in _postcode_nodes(edition, country_code, wanted)
        if compact(edition.node_text(node, "postcode")) == wanted
        for address in edition.node_addresses(node).tolist()
    ]
    return PostcodeAddresses(canonical, tuple(found)) if found else None


def _begun(editions: Sequence[Edition], country_code: str, beginning: str) -> PostcodesBegun | None:
    prefix = compact(beginning)
    counts: dict[str, int] = {}
    towns: set[str] = set()
    for edition in editions:
        for node in _postcode_nodes(edition, country_code, prefix):
            postcode = edition.node_text(node, "postcode")
            counts[postcode] = counts.get(postcode, 0) + edition.node_count(node)
            towns.add(edition.node_text(node, "town"))
    if not counts:
        return None
    listed = sorted(counts.items(), key=lambda item: natural_key(item[0]))
    return PostcodesBegun(
        beginning,
        tuple(listed[:MOST_POSTCODES]),
        tuple(sorted(towns - {""})),
        len(listed),
    )
