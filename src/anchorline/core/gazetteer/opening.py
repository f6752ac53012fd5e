"""Opening a group: the rows inside it, in natural order, all or those that fit what is typed.

A town, district or region opens into its streets, a street into its numbers, a number or a
building into its flats, a postcode into its addresses.
"""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import numpy.typing as npt

from ..layouts import LayoutLibrary
from ..match_ranges import match_ranges
from ..text import compact, tokens
from .arrays import LISTED_KINDS
from .edition import Edition
from .members import fitting_addresses, member_rows, node_row
from .search import NodeFilter, search_edition
from .suggestion import SearchRequest, Suggestion

_OPENS_INTO_STREETS = frozenset({"town", "district", "region"})


def open_group(
    edition: Edition, local_id: str, request: SearchRequest, layouts: LayoutLibrary
) -> list[Suggestion] | None:
    """The rows of a group, or None where the edition has no such group.

    Args:
        local_id: the group's id without its dataset: `~` and 16 hexadecimal digits, and for
            a street number `~` and the number.
    """
    stable, _, number = local_id.removeprefix("~").partition("~")
    try:
        node = edition.find_node(int(stable, 16))
    except (ValueError, OverflowError):
        node = None
    if node is None:
        return None
    typed = tokens(request.text)
    if number:
        return _numbered(edition, node, number, typed, request, layouts)
    streets = _streets_inside(edition, node)
    if streets is None:
        return _addresses(edition, node, typed, request, layouts)
    if typed:
        inside = replace(request, within=None)
        return search_edition(edition, inside, layouts, _inside(edition, streets))
    shown = streets[request.skip : request.skip + request.limit]
    return [node_row(edition, street, layouts) for street in shown]


def _streets_inside(edition: Edition, node: int) -> range | None:
    """The street-level nodes that the group opens into, or None: it opens into addresses."""
    if edition.node_kind_name(node) not in _OPENS_INTO_STREETS or node < edition.street_level_count:
        return None
    return edition.street_level_nodes(node)


def _inside(edition: Edition, streets: range) -> NodeFilter:
    first = int(edition.node_first[streets[0]])
    end = int(edition.node_end[streets[-1]])

    def keep(nodes: npt.NDArray[np.uint32]) -> npt.NDArray[np.bool_]:
        starts = [int(edition.node_addresses(int(node))[0]) for node in nodes]
        ends = [int(edition.node_addresses(int(node))[-1]) for node in nodes]
        return np.array(
            [first <= s and e < end for s, e in zip(starts, ends, strict=True)], dtype=bool
        )

    return keep


def _addresses(
    edition: Edition, node: int, typed: list[str], request: SearchRequest, layouts: LayoutLibrary
) -> list[Suggestion]:
    addresses = fitting_addresses(
        edition, edition.node_addresses(node).tolist(), typed, layouts, unfinished=True
    )
    listed = edition.node_kind_name(node) in LISTED_KINDS
    rows = member_rows(edition, node, addresses, layouts, by_number=not listed)
    return _page(rows, typed, request)


def _numbered(
    edition: Edition,
    node: int,
    number: str,
    typed: list[str],
    request: SearchRequest,
    layouts: LayoutLibrary,
) -> list[Suggestion] | None:
    same = [
        address
        for address in edition.node_addresses(node).tolist()
        if compact(edition.address_text(address, "number")) == number
    ]
    if not same:
        return None
    fitting = fitting_addresses(edition, same, typed, layouts, unfinished=True)
    rows = member_rows(edition, node, fitting, layouts, by_number=False)
    return _page(rows, typed, request)


def _page(rows: list[Suggestion], typed: list[str], request: SearchRequest) -> list[Suggestion]:
    wanted = [row for row in rows if not request.kinds or row.kind in request.kinds]
    shown = wanted[request.skip : request.skip + request.limit]
    return [replace(row, matches=tuple(match_ranges(row.label, typed))) for row in shown]
