"""Places with two languages: the same made-up addresses once more, in their other spelling."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping
from dataclasses import replace
from functools import cache
from itertools import product

from anchorline.core.gazetteer import Row

from .world import read_place


def with_spellings(rows: Iterable[Row]) -> Iterator[Row]:
    """The rows, each followed by its other spelling where its town has one."""
    for row in rows:
        yield row
        other = other_spelling(row)
        if other is not None:
            yield other


def other_spelling(row: Row) -> Row | None:
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
    spelling = place.get("spelling")
    if spelling is None:
        return "", {}
    towns, first, last = place["towns"], spelling["towns"]["first"], spelling["towns"]["last"]
    found: dict[str, Mapping[str, str]] = dict(spelling.get("values", {}))
    found["town"] = {
        towns["pattern"].format(first=a, last=b): first[a] + last[b]
        for a, b in product(first, last)
    }
    if "streets" in spelling:
        streets, other = place["streets"], spelling["streets"]
        found["street"] = {
            streets["pattern"].format(stem=stem, type=kind): other["pattern"].format(
                stem=other["stems"].get(stem, stem), type=other["types"][kind]
            )
            for stem, kind in product(streets["stems"], streets["types"])
        }
    found["place"] = {
        own.format(town=town): other.format(town=found["town"][town])
        for own, other in spelling.get("venues", {}).items()
        for town in found["town"]
    }
    found["organisation"] = {
        own.format(surname=surname): other.format(surname=spelling["surnames"][surname])
        for own, other in spelling.get("firms", {}).items()
        for surname in spelling["surnames"]
    }
    return spelling["language"], found
