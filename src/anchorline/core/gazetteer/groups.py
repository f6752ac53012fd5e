"""The ids of groups, and what they stand for."""

from __future__ import annotations

from .edition import Edition


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
