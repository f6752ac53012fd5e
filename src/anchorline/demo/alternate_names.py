"""Places with two languages: the same made-up addresses once more, in their alternate name."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping
from dataclasses import replace
from functools import cache
from itertools import product

from anchorline.core.gazetteer import Row

from .world import read_place


def with_alternate_names(rows: Iterable[Row]) -> Iterator[Row]:
    """The rows, each followed by its alternate name where its town has one."""
    for row in rows:
        yield row
        other = alternate_row(row)
        if other is not None:
            yield other


def alternate_row(row: Row) -> Row | None:
    """The row in the other language of its town, or None where that has but one."""
    language, values = _values(row.country_code)
    if row.components.get("town") not in values.get("town", {}):
        return None
    components = {
        name: values.get(name, {}).get(value, value) for name, value in row.components.items()
    }
    return replace(row, language=language, components=components)


@cache
def _values(country_code: str) -> tuple[str, dict[str, Mapping[str, str]]]:
    """The other language of a country's places, and by component what is spelt how in it."""
    place = read_place(country_code)
    alternate = place.get("alternate")
    if alternate is None:
        return "", {}
    towns, first, last = place["towns"], alternate["towns"]["first"], alternate["towns"]["last"]
    found: dict[str, Mapping[str, str]] = dict(alternate.get("values", {}))
    found["town"] = {
        towns["pattern"].format(first=a, last=b): first[a] + last[b]
        for a, b in product(first, last)
    }
    if "streets" in alternate:
        streets, other = place["streets"], alternate["streets"]
        found["street"] = {
            streets["pattern"].format(stem=stem, type=kind): other["pattern"].format(
                stem=other["stems"].get(stem, stem), type=other["types"][kind]
            )
            for stem, kind in product(streets["stems"], streets["types"])
        }
    found["place"] = {
        own.format(town=town): other.format(town=found["town"][town])
        for own, other in alternate.get("venues", {}).items()
        for town in found["town"]
    }
    found["organisation"] = {
        own.format(surname=surname): other.format(surname=alternate["surnames"][surname])
        for own, other in alternate.get("firms", {}).items()
        for surname in alternate["surnames"]
    }
    return alternate["language"], found
