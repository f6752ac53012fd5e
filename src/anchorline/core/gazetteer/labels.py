"""Labels of addresses and groups: one line, in the manner of the address's country."""

from __future__ import annotations

from ..layouts import LayoutLibrary, one_line
from .edition import Edition

_HEADED_BY_NAME = frozenset({"postcode", "organisation", "place"})


def address_label(edition: Edition, index: int, layouts: LayoutLibrary) -> str:
    """The label of one address."""
    address = edition.address(index)
    return one_line(layouts.require(address.country_code), address.components)


def group_label(
    edition: Edition, node: int, layouts: LayoutLibrary, *, number: str | None = None
) -> str:
    """The label of a node, or of one street number inside it."""
    components = edition.node_components(node)
    kind = edition.node_kind_name(node)
    if number:
        components["number"] = number
    layout = layouts.require(edition.node_country_code(node))
    if kind not in _HEADED_BY_NAME:
        return one_line(layout, components)
    name = components.pop(kind, "")
    rest = one_line(layout, components)
    return f"{name}, {rest}" if rest else name
