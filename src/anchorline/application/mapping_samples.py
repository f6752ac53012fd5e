"""Addresses to try a mapping with: usual ones, and those that mappings are apt to get wrong."""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from functools import lru_cache
from typing import NamedTuple

from anchorline.core.address import Address
from anchorline.core.gazetteer import Gazetteer
from anchorline.core.layouts import LayoutLibrary, one_line

_LOOKED_AT = 500


class Sample(NamedTuple):
    """An address that is one of its country's `usual`, `longest` …"""

    which: str
    country_code: str
    id: str
    label: str


def samples_of(
    gazetteer: Gazetteer, countries: Iterable[str], layouts: LayoutLibrary
) -> list[Sample]:
    """Samples of the countries that have addresses, country by country."""
    found: list[Sample] = []
    for code in countries:
        if code not in gazetteer.countries:
            continue
        layout = layouts.require(code)
        for which, address in _odd_ones(gazetteer, code):
            label = one_line(layout, address.components)
            found.append(Sample(which, code, address.id, label))
    return found


@lru_cache(maxsize=64)
def _odd_ones(gazetteer: Gazetteer, code: str) -> tuple[tuple[str, Address], ...]:
    return tuple(_chosen(list(gazetteer.spread(code, _LOOKED_AT))))


def _chosen(addresses: list[Address]) -> Iterator[tuple[str, Address]]:
    """The first of each kind that there is; no address twice."""
    if not addresses:
        return

    def characters(address: Address) -> int:
        return sum(map(len, address.components.values()))

    plain = [one for one in addresses if {"number", "street"} <= one.components.keys()]
    wanted: list[tuple[str, list[Address]]] = [
        ("usual", plain[len(plain) // 2 :] or addresses),
        ("longest", sorted(addresses, key=characters, reverse=True)),
        ("most_parts", sorted(addresses, key=lambda one: -len(one.components))),
        ("no_number", [one for one in addresses if "number" not in one.components]),
        ("po_box", [one for one in addresses if "po_box" in one.components]),
    ]
    taken: set[str] = set()
    for which, listed in wanted:
        one = next((address for address in listed if address.id not in taken), None)
        if one is not None:
            taken.add(one.id)
            yield which, one
