"""API: layouts, lines, and checking components against a layout."""

from __future__ import annotations

from anchorline.core.address import component_problems
from anchorline.core.layouts import Layout, check_components, write_lines
from anchorline.wire.base import Shape
from anchorline.wire.layouts import (
    AskedShape,
    CheckComponentsAnswer,
    CheckComponentsRequest,
    ComponentProblem,
    LayoutAnswer,
    LayoutEntry,
    LayoutList,
    LayoutQuery,
    LinesAnswer,
    LinesRequest,
    OptionShape,
)

from .access import Access
from .endpoints import Area, Call
from .problems import invalid, not_found

area = Area("layouts")
_WITH_OPTIONS = frozenset({"region", "region_code"})


def require_layout(call: Call, country_code: str) -> Layout:
    """The layout of a country; 404 where there is none."""
    layout = call.services.layouts.get(country_code)
    if layout is None:
        codes = ", ".join(known.country_code for known in call.services.layouts)
        raise not_found(f"There is no layout for country {country_code!r}; there are: {codes}.")
    return layout


def require_components(components: dict[str, str], pointer: str) -> None:
    """422 where a name is not a component's, with the nearest ones."""
    problems = component_problems(components, pointer)
    if problems:
        raise invalid(problems)


@area.endpoint("GET", "/layouts", access=Access.CAPTURE, answer=LayoutList)
def list_layouts(call: Call) -> Shape:
    """The countries that have a layout."""
    layouts = sorted(call.services.layouts, key=lambda layout: layout.name)
    return LayoutList(
        layouts=[LayoutEntry(country_code=x.country_code, name=x.name) for x in layouts]
    )


@area.endpoint(
    "GET",
    "/layouts/<country_code>",
    access=Access.CAPTURE,
    query=LayoutQuery,
    answer=LayoutAnswer,
    problems=(404,),
)
def get_layout(call: Call) -> Shape:
    """A country's layout: what is asked for, in which order, called what."""
    layout = require_layout(call, call.path["country_code"])
    language = call.query(LayoutQuery).language
    name = layout.names.get(language) or layout.names.get(language.split("-")[0], layout.name)
    regions = [OptionShape(code=r.code, name=r.name, latin=r.latin) for r in layout.regions]
    return LayoutAnswer(
        country_code=layout.country_code,
        name=name,
        components=[
            AskedShape(
                component=asked.component,
                label=asked.label(language),
                required=asked.required,
                options=(regions or None) if asked.component in _WITH_OPTIONS else None,
            )
            for asked in layout.asked
        ],
        masks=list(layout.masks),
        version=layout.version,
    )


@area.endpoint(
    "POST",
    "/layouts/<country_code>/lines",
    access=Access.CAPTURE,
    body=LinesRequest,
    answer=LinesAnswer,
    problems=(404,),
)
def write_address_lines(call: Call) -> Shape:
    """Components written out in the country's lines."""
    layout = require_layout(call, call.path["country_code"])
    body = call.body(LinesRequest)
    require_components(body.components, "/components")
    return LinesAnswer(lines=write_lines(layout, body.components, international=body.international))


@area.endpoint(
    "POST",
    "/layouts/<country_code>/check",
    access=Access.CAPTURE,
    body=CheckComponentsRequest,
    answer=CheckComponentsAnswer,
    problems=(404,),
)
def check_against_layout(call: Call) -> Shape:
    """Components held against the country's layout, in their canonical spelling."""
    layout = require_layout(call, call.path["country_code"])
    body = call.body(CheckComponentsRequest)
    require_components(body.components, "/components")
    canonical, problems = check_components(layout, body.components)
    return CheckComponentsAnswer(
        components=canonical,
        problems=[ComponentProblem(component=p.pointer, detail=p.detail) for p in problems],
    )
