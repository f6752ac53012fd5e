"""Holding components against a layout: canonical spellings, and what is wrong."""

from __future__ import annotations

from collections.abc import Mapping

from ..address import Components, tidy_components
from ..errors import Problem
from .lines import complete_region
from .masks import canonical_postcode
from .model import Layout

# What people may leave out when something else says where in the street the address is.
_STANDS_FOR_STREET = ("street", "place", "building", "po_box", "district", "organisation")


def check_components(
    layout: Layout, components: Mapping[str, str]
) -> tuple[Components, list[Problem]]:
    """Components spelt canonically, and the problems; each problem's pointer is a component.

    Components that the layout has no use for are kept and not a problem.

    Raises:
        UnknownNameError: a key is not a component.
    """
    canonical = tidy_components(complete_region(layout, components))
    problems = _missing(layout, canonical)
    problems += _postcode(layout, canonical)
    problems += _region(layout, canonical)
    return canonical, problems


def masks_hint(layout: Layout) -> str:
    """How this country's postcodes look, for a message: `99999 or 99999-9999`."""
    return " or ".join(layout.masks)


def _missing(layout: Layout, components: Components) -> list[Problem]:
    problems = []
    for asked in layout.asked:
        if not asked.required or components.get(asked.component):
            continue
        if asked.component == "street" and any(components.get(c) for c in _STANDS_FOR_STREET):
            continue
        if asked.component == "region_code" and components.get("region"):
            continue  # an unknown region name is reported once, by _region
        problems.append(
            Problem(asked.component, f"{layout.name} needs a {asked.labels['en']} here.")
        )
    return problems


def _postcode(layout: Layout, components: Components) -> list[Problem]:
    typed = components.get("postcode")
    if not typed or not layout.masks:
        return []
    canonical = canonical_postcode(typed, layout.masks)
    if canonical is None:
        asked = layout.asks_for("postcode")
        label = asked.labels["en"] if asked else "postcode"
        detail = (
            f"{typed!r} is not a {label} of {layout.name}: "
            f"it looks like {masks_hint(layout)} (9 a digit, A a letter, * either)."
        )
        return [Problem("postcode", detail)]
    components["postcode"] = canonical
    return []


def _region(layout: Layout, components: Components) -> list[Problem]:
    if not layout.regions:
        return []
    code = components.get("region_code")
    if code and layout.region_by_code(code) is None:
        return [Problem("region_code", f"{layout.name} has no region with the code {code!r}.")]
    name = components.get("region")
    if name and not code and layout.asks_for("region_code"):
        return [Problem("region", f"{layout.name} has no region called {name!r}.")]
    return []
