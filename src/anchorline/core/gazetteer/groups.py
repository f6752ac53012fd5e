"""The ids of groups, and what they stand for."""

from __future__ import annotations

from ..address import Components
from ..text import compact
from .edition import Edition

# Of larger groups only what the index knows by itself is said: comparing takes too long.
MOST_COMPARED = 2000


def find_group(edition: Edition, local_id: str) -> tuple[int, str] | None:
    """The node of a group's id, and the street number where it names one; None: no such group.

    Args:
        local_id: the group's id without its dataset: `~` and 16 hexadecimal digits, and for
            a street number `~` and the number.
    """
    stable, _, number = local_id.removeprefix("~").partition("~")
    try:
        node = edition.find_node(int(stable, 16))
    except (ValueError, OverflowError):
        node = None
    return None if node is None else (node, number)


def known_components(edition: Edition, node: int, number: str, language: str = "") -> Components:
    """The components that all addresses of a group share, with the country's code.

    Args:
        node: its node.
        number: the street number that the group is of, compact; empty for the whole node.
        language: the language that is wanted (BCP 47); empty for its own.
    """
    known = edition.node_components(node, language)
    known.pop("language", None)
    known["country_code"] = edition.node_country_code(node)
    if edition.node_count(node) > MOST_COMPARED:
        return known
    addresses = edition.address_range(node)
    if number:
        addresses = [a for a in addresses if compact(edition.number_of(a)) == number]
    shared: Components | None = None
    for index in addresses:
        components = edition.address(index, language).components
        shared = (
            components
            if shared is None
            else {name: text for name, text in shared.items() if components.get(name) == text}
        )
    return {**known, **(shared or {})}
