"""Checking components against a layout: canonical forms, and what is wrong."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from ..address import Components, normalize_components
from ..errors import Problem
from ..said import said
from .lines import complete_region
from .model import Layout
from .model import component_names as named
from .postcodes import regions_of_postcode, spelt_postcode

_SIGNS = {"9": "9 a digit", "A": "A a letter", "*": "* either"}
# Where a value may go that a layout has no place for, the likeliest first.
_OFFERS: dict[str, tuple[str, ...]] = {
    "recipient": ("organisation",),
    "organisation": ("recipient", "building"),
    "place": ("organisation", "building"),
    "unit": ("building", "number"),
    "building": ("organisation", "street"),
    "number": ("unit", "street"),
    "street": ("district", "building"),
    "district": ("street", "region"),
    "town": ("district", "region"),
    "region": ("region_code", "district"),
    "region_code": ("region",),
    "nation": ("region",),
}
# What people may leave out when something else says where in the street the address is.
STANDS_FOR_STREET = ("street", "place", "building", "po_box", "district", "organisation")


@dataclass(frozen=True, slots=True)
class Unused:
    """A value that the layout has no place for.

    Attributes:
        component: its component.
        value: it itself; it is kept.
        offered_to: a component of the layout that is empty and may hold it, or None.
    """

    component: str
    value: str
    offered_to: str | None


def unused_components(layout: Layout, components: Mapping[str, str]) -> list[Unused]:
    """What is given and neither asked for nor written by the layout, and where it may go."""
    written = {name for lines in layout.lines.values() for line in lines for name in named(line)}
    place = {entry.component for entry in layout.components} | written | {"country", "country_code"}
    if place & {"region", "region_code"} or layout.regions:
        place |= {"region", "region_code"}
    given = normalize_components(components, layout.extras)
    return [
        Unused(
            name,
            value,
            next((o for o in _OFFERS.get(name, ()) if o in place and o not in given), None),
        )
        for name, value in given.items()
        if name not in place
    ]


def check_components(
    layout: Layout, components: Mapping[str, str]
) -> tuple[Components, list[Problem]]:
    """Components spelt canonically, and the problems; each problem's pointer is a component.

    Components that the layout has no use for are kept and not a problem.

    Raises:
        UnknownNameError: a key is not a component.
    """
    canonical = normalize_components(complete_region(layout, components), layout.extras)
    problems = _missing(layout, canonical)
    problems += _postcode(layout, canonical)
    problems += _region(layout, canonical)
    return canonical, problems


def masks_hint(layout: Layout) -> str:
    """How this country's postcodes look, for a message: `99999 or 99999-9999 (9 a digit)`."""
    used = [meaning for sign, meaning in _SIGNS.items() if any(sign in m for m in layout.masks)]
    return f"{' or '.join(layout.masks)} ({', '.join(used)})"


def _missing(layout: Layout, components: Components) -> list[Problem]:
    problems = []
    for entry in layout.components:
        if not entry.required or components.get(entry.component):
            continue
        if entry.component == "street" and any(components.get(c) for c in STANDS_FOR_STREET):
            continue
        if entry.component == "region_code" and components.get("region"):
            continue  # an unknown region name is reported once, by _region
        problems.append(
            Problem(
                entry.component,
                said(
                    "needed_in",
                    "{country} needs a {label} here.",
                    country=layout.name,
                    label=entry.labels["en"],
                ),
            )
        )
    return problems


def _postcode(layout: Layout, components: Components) -> list[Problem]:
    typed = components.get("postcode")
    if not typed:
        return []
    if not layout.masks:
        if layout.component("postcode") is not None:
            return []
        sentence = "{country} has no postcodes: leave it empty."
        return [Problem("postcode", said("no_postcodes", sentence, country=layout.name))]
    canonical = spelt_postcode(layout, typed)
    if canonical is None:
        entry = layout.component("postcode")
        label = entry.labels["en"] if entry else "postcode"
        detail = said(
            "not_a_postcode",
            "{typed!r} is not a {label} of {country}: it looks like {looks}{begins}.",
            typed=typed,
            label=label,
            country=layout.name,
            looks=masks_hint(layout),
            masks=" / ".join(layout.masks),
            begins=_begins(layout),
        )
        return [Problem("postcode", detail)]
    components["postcode"] = canonical
    return []


def _begins(layout: Layout) -> str:
    starts, never = layout.postcode_starts, layout.never_first
    if starts:
        return f" and begins with {' or '.join(starts)}"
    return f" and never begins with {' or '.join(never)}" if never else ""


def _region(layout: Layout, components: Components) -> list[Problem]:
    if not layout.regions:
        return []
    code = components.get("region_code")
    if code and layout.region_by_code(code) is None:
        return [Problem("region_code", f"{layout.name} has no region with the code {code!r}.")]
    name = components.get("region")
    if name and not code and layout.component("region_code"):
        return [Problem("region", f"{layout.name} has no region called {name!r}.")]
    return _disagreement(layout, components)


def _disagreement(layout: Layout, components: Components) -> list[Problem]:
    """A postcode of another region than the one given, where the country's scheme tells."""
    code, postcode = components.get("region_code"), components.get("postcode")
    if not code or not postcode:
        return []
    found = regions_of_postcode(layout, postcode)
    if not found or any(region.code.upper() == code.upper() for region in found):
        return []
    given = layout.region_by_code(code)
    named_so = given.latin if given else code
    others = " or ".join(region.latin for region in found)
    return [Problem("postcode", f"{postcode} lies in {others}, not in {named_so}.")]
