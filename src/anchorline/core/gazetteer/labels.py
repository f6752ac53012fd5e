"""Labels of addresses and groups: one line, in the manner of the address's country.

Which components an address has settles how its line looks, so a line is worked out once for
each country and set of components and then only filled in.
"""

from __future__ import annotations

from bisect import bisect_left
from collections.abc import Mapping
from functools import lru_cache

from ..layouts import Layout, LayoutLibrary, one_line
from ..layouts.lines import complete_region, designated_components, says_what_it_is
from ..text import has_spaceless_script
from .edition import Edition

_HEADED_BY_NAME = frozenset({"postcode", "organisation", "place"})
# Stand-ins for values while a line is worked out: of no script, or of one without spaces.
_FIRST_STAND_IN = 0xE000
_SPACELESS_LETTER = "\u3042"
MOST_STREETS_NAMED = 3


class LabelWriter:
    """Writes labels with the layouts given."""

    def __init__(self, layouts: LayoutLibrary) -> None:
        self._layouts = layouts
        self._lines: dict[tuple[str, bool, tuple[str, ...]], str] = {}
        self._designated_in: dict[str, frozenset[str]] = {}
        self._completed = lru_cache(maxsize=4096)(self._complete)

    def line(self, country_code: str, components: Mapping[str, str]) -> str:
        """Components in one line, as `layouts.one_line` writes them."""
        layout = self._layouts.require(country_code)
        region, code = components.get("region", ""), components.get("region_code", "")
        if layout.regions and bool(region) != bool(code):
            components = {**components, **self._completed(country_code, region, code)}
        if any(
            name in components and says_what_it_is(layout, name, components[name])
            for name in self._designated(layout)
        ):
            return one_line(layout, components)  # its words settle how it is written
        values = "".join(components.values())
        spaceless = not values.isascii() and has_spaceless_script(values)
        key = (country_code, spaceless, tuple(components))
        line = self._lines.get(key)
        if line is None:
            line = self._lines[key] = _line_to_fill(layout, key[2], spaceless=spaceless)
        return line.format_map(components)

    def _designated(self, layout: Layout) -> frozenset[str]:
        found = self._designated_in.get(layout.country_code)
        if found is None:
            found = self._designated_in[layout.country_code] = designated_components(layout)
        return found

    def _complete(self, country_code: str, region: str, code: str) -> dict[str, str]:
        given = {"region": region, "region_code": code}
        return complete_region(self._layouts.require(country_code), given)

    def address(self, edition: Edition, index: int, language: str = "") -> str:
        """The label of one address, in another of its languages if one is given."""
        street = edition.street_of(index)
        components = edition.node_components(street, language)
        components.update(edition.address_components(index, language))
        return self.line(edition.node_country_code(street), components)

    def group(
        self, edition: Edition, node: int, *, number: str | None = None, language: str = ""
    ) -> str:
        """The label of a node, or of one street number inside it."""
        components = edition.node_components(node, language)
        kind = edition.node_kind_name(node)
        if number:
            components["number"] = number
        country = edition.node_country_code(node)
        if kind not in _HEADED_BY_NAME:
            line = self.line(country, components)
            name = components.get(kind, "")
            # Not every country writes regions: a group is never without its own name.
            return line if name in line else ", ".join(filter(None, (name, line)))
        name = components.pop(kind, "")
        if kind == "postcode" and "street" not in components:
            components |= _several_streets(edition, node, language)
        rest = self.line(country, components)
        return f"{name}, {rest}" if rest else name


def _line_to_fill(layout: Layout, names: tuple[str, ...], *, spaceless: bool) -> str:
    letter = _SPACELESS_LETTER if spaceless else ""
    stand_ins = {name: chr(_FIRST_STAND_IN + i) + letter for i, name in enumerate(names)}
    line = one_line(layout, stand_ins).replace("{", "{{").replace("}", "}}")
    for name, stand_in in stand_ins.items():
        line = line.replace(stand_in, f"{{{name}}}")
    return line


def _several_streets(edition: Edition, node: int, language: str) -> dict[str, str]:
    """The streets of a postcode that has more than one, as a component: the first few of them."""
    members = edition.node_addresses(node).data
    streets: dict[str, None] = {}
    place = 0
    while place < len(members) and len(streets) <= MOST_STREETS_NAMED:
        street = edition.street_of(members[place])
        streets.setdefault(edition.node_components(street, language).get("street", ""))
        # Members ascend, so the next street's are behind the end of this one.
        place = bisect_left(members, edition.node_end_at[street], place)
    named = [street for street in streets if street]
    if not named:
        return {}
    more = "" if len(named) <= MOST_STREETS_NAMED else " +"
    return {"street": " · ".join(named[:MOST_STREETS_NAMED]) + more}
