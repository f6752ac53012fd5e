"""Practice addresses: a few made-up ones for each country that has a layout.

They are built in, so that capture can be set up and tried where there is no reference data and
nothing may be counted. Each fits its country's layout: what is needed is there, the postcode is of
its masks and, where that can be told, of its region. Streets and towns say what they are.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from itertools import islice, product

from .address import Components
from .gazetteer import Edition, Gazetteer, Row, build_edition
from .layouts import Layout, LayoutLibrary, Region, check_components

# The dataset that they are in; no other one can have this name.
PRACTICE = "practice"
_TOWN = "Practice Harbour"
_KINDS: tuple[Components, ...] = (
    {"number": "1", "street": "Lantern Row"},
    {"number": "2", "street": "Lantern Row"},
    {"number": "3", "street": "Lantern Row", "unit": "Flat 4", "building": "Rehearsal House"},
    {"number": "12a", "street": "Trial Lane", "organisation": "Dress Rehearsal Works"},
    {"street": "Trial Lane", "building": "Curtain Call Cottage"},
)
# Postcodes are tried with these in the places of digits and letters.
_DIGITS, _LETTERS = "1234567890", "BCDFGHJKLMNPRSTVWXYZAEIOUQ"
_MOST_TRIED = 400
_EMPTY: Components = {}


def is_practice(identifier: str) -> bool:
    """Whether the id of an address, or of a group of them, is one of practice."""
    return identifier.startswith(f"{PRACTICE}:")


def practice_id(country_code: str) -> str:
    """The id of a country's first practice address."""
    return f"{PRACTICE}:{country_code}1"


def practice_gazetteer(layouts: LayoutLibrary) -> Gazetteer:
    """A gazetteer of the practice addresses alone."""
    built = build_edition(list(practice_rows(layouts)), layouts)
    return Gazetteer([Edition(PRACTICE, 1, built.manifest, built.arrays)], layouts)


def practice_rows(layouts: Iterable[Layout]) -> Iterator[Row]:
    """The practice addresses of some countries."""
    for layout in layouts:
        shared = _shared(layout)
        for number, kind in enumerate(_KINDS, 1):
            asked = {
                name: text
                for name, text in kind.items()
                if layout.component(name) is not None or name in ("number", "street")
            }
            south, west, north, east = layout.box or (0.0, 0.0, 0.0, 0.0)
            yield Row(
                id=f"{layout.country_code}{number}",
                country_code=layout.country_code,
                components={**shared, **asked},
                language=layout.languages[0] if layout.languages else "",
                latitude=round((south + north) / 2 + number / 10_000, 6) if layout.box else None,
                longitude=round((west + east) / 2, 6) if layout.box and west < east else None,
                use="business" if "organisation" in asked else "residential",
            )


def _shared(layout: Layout) -> Components:
    """What all practice addresses of a country have: a town, a region, a postcode that fit."""
    first: Components | None = None
    for region, postcode in islice(product(_regions(layout), _postcodes(layout)), _MOST_TRIED):
        made = _of(layout, region, postcode)
        problems = check_components(layout, {**made, **_KINDS[0]})[1]
        if not problems:
            return made
        first = first or made
    return first or _EMPTY


def _regions(layout: Layout) -> list[Region | None]:
    asks = layout.component("region") or layout.component("region_code")
    return list(layout.regions) or [None] if asks else [None]


def _postcodes(layout: Layout) -> list[str]:
    if layout.component("postcode") is None or not layout.masks:
        return [""]
    found = []
    starts = layout.postcode_starts or ("",)
    for mask in layout.masks:
        for start, shift in product(starts, range(len(_DIGITS))):
            found.append(_filled(mask, start, shift, layout.never_first))
    for region in layout.regions:
        for begins in region.postcodes:
            found.append(_filled(layout.masks[0], begins.split("-")[0], 0, ""))
    return list(dict.fromkeys(found))


def _filled(mask: str, start: str, shift: int, never_first: str) -> str:
    """A postcode of a mask that begins with some letters and digits."""
    begins, letters, out = list(start), shift, ""
    for sign in mask:
        if sign not in "9A*":
            out += sign
            if begins and begins[0] == sign:
                begins.pop(0)
        elif begins:
            out += begins.pop(0)
        elif sign == "A":
            while not out and _LETTERS[letters % len(_LETTERS)] in never_first:
                letters += 1
            out += _LETTERS[letters % len(_LETTERS)]
        else:
            out += _DIGITS[shift]
    return out


def _of(layout: Layout, region: Region | None, postcode: str) -> Components:
    made: Components = {}
    for entry in layout.components:
        name = entry.component
        if name == "town":
            made[name] = _TOWN
        elif name == "postcode" and postcode:
            made[name] = postcode
        elif name == "region" and region is not None:
            made[name] = region.name
        elif name == "region_code" and region is not None:
            made[name] = region.code
        elif entry.required and name not in ("number", "street"):
            made[name] = f"Practice {name.replace('_', ' ').capitalize()}"
    if "town" not in made and "district" not in made:
        made["town"] = _TOWN
    return made
