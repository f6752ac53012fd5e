"""Addresses of slots as formulas see them."""

from __future__ import annotations

from collections.abc import Mapping

from ..address import Facts
from ..formula import AddressValue
from ..layouts import Layout, one_line, write_lines


def address_value(
    layout: Layout | None,
    components: Mapping[str, str],
    *,
    latitude: float | None = None,
    longitude: float | None = None,
    picked: bool = False,
    facts: Mapping[str, str] | None = None,
) -> AddressValue:
    """What formulas know of an address.

    Args:
        layout: of its country; without one its components stand in their own order.
        picked: whether it comes from the reference data.
        facts: what else is known of it, as texts.
    """
    given = {name: text.strip() for name, text in components.items() if text.strip()}
    # A country alone is chosen before there is an address.
    if not given.keys() - {"country", "country_code"}:
        return AddressValue()
    if layout is None:
        lines = tuple(text for name, text in given.items() if name != "country_code")
        line = ", ".join(lines)
    else:
        lines = tuple(write_lines(layout, given))
        line = one_line(layout, given)
    return AddressValue(
        given, latitude, longitude, line, lines, "picked" if picked else "typed", facts or {}
    )


def formula_facts(facts: Facts, identifier: str) -> dict[str, str]:
    """What formulas know of an address that was picked beside its place; empty of others."""
    if not identifier:
        return {}
    known = {"use": facts.use or "", "languages": ", ".join(facts.languages), "id": identifier}
    return {name: text for name, text in known.items() if text}
