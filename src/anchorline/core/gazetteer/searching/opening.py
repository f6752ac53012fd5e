"""Opening a group: the rows inside it, in natural order, all or those that fit what is typed.

A town, district or region opens into its streets, a street into its numbers, a number or a
building into its flats, a postcode into its addresses.
"""

from __future__ import annotations

from dataclasses import replace

import numpy as np

from ...kinds import NODE_KINDS
from ...match_ranges import match_ranges
from ...text import compact, tokens
from ..arrays import LISTED_KINDS, Flags, NodeNumbers
from ..edition import Edition
from ..suggestion import SearchRequest, Suggestion
from .candidates import NodeFilter
from .suggestions import SuggestionBuilder, fitting_addresses

_OPENS_INTO_STREETS = frozenset({"town", "district", "region"})


def opens_into_streets(edition: Edition, node: int) -> bool:
    """Whether the group opens into streets, and not into addresses."""
    kind = edition.node_kind_name(node)
    return kind in _OPENS_INTO_STREETS and not edition.is_street_level(node)


def open_streets(builder: SuggestionBuilder, node: int, request: SearchRequest) -> list[Suggestion]:
    """A page of the streets inside a town, district or region, in natural order."""
    streets = builder.edition.street_level_nodes(node)
    shown = streets[request.skip : request.skip + request.limit].tolist()
    return _in_language(builder, [builder.node(street) for street in shown], request.language)


def inside(edition: Edition, node: int) -> NodeFilter:
    """Keeps the nodes all of whose addresses are in a node that is a range of them."""
    first, end = int(edition.node_first_at[node]), int(edition.node_end_at[node])
    listed = np.array([kind in LISTED_KINDS for kind in NODE_KINDS])

    def keep(nodes: NodeNumbers) -> Flags:
        ends = edition.node_end[nodes]
        lasts = np.where(listed[edition.node_kind[nodes]], edition.last_member(ends), ends - 1)
        kept: Flags = (edition.node_anchor[nodes] >= first) & (lasts < end) & (nodes != node)
        return kept

    return keep


def open_addresses(
    builder: SuggestionBuilder, node: int, number: str, request: SearchRequest
) -> list[Suggestion] | None:
    """A page of the addresses of a group, those that fit what is typed; None: no such number."""
    edition = builder.edition
    typed = tokens(request.text)
    addresses = edition.node_addresses(node).tolist()
    if number:
        addresses = [a for a in addresses if compact(edition.number_of(a)) == number]
        if not addresses:
            return None
    fitting = fitting_addresses(builder, addresses, typed, unfinished=True)
    if number or edition.is_listed(node):
        page = _page_of_addresses(builder, fitting, request)
    else:
        rows = builder.by_number(node, fitting)
        page = [row for row in rows if not request.kinds or row.kind in request.kinds]
        page = page[request.skip : request.skip + request.limit]
    page = _in_language(builder, page, request.language)
    return [replace(row, matches=tuple(match_ranges(row.label, typed))) for row in page]


def _in_language(
    builder: SuggestionBuilder, rows: list[Suggestion], language: str
) -> list[Suggestion]:
    if not language or not builder.edition.alternate_names:
        return rows
    return [builder.in_language(row, language) for row in rows]


def _page_of_addresses(
    builder: SuggestionBuilder, addresses: list[int], request: SearchRequest
) -> list[Suggestion]:
    if request.kinds and "address" not in request.kinds:
        return []
    return [builder.address(a) for a in addresses[request.skip : request.skip + request.limit]]
