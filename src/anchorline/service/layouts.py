"""API: layouts, lines, and checking components against a layout."""

from __future__ import annotations

from anchorline.core.address import component_problems
from anchorline.core.errors import Problem, nearest_names, unknown_name_detail
from anchorline.core.layouts import (
    Layout,
    check_components,
    language_of,
    one_line,
    unused_components,
    write_html,
    write_lines,
    written_line,
)
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
    ManyLinesAnswer,
    ManyLinesRequest,
    OptionShape,
    UnusedComponent,
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
        raise not_found(f"{_no_layout(call, country_code)} GET /layouts lists all.")
    return layout


def _no_layout(call: Call, country_code: str) -> str:
    codes = [known.country_code for known in call.services.layouts]
    return unknown_name_detail("country code", country_code, nearest_names(country_code, codes))


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
        layouts=[
            LayoutEntry(
                country_code=layout.country_code,
                name=layout.name,
                confidence=layout.confidence,
                post_of=layout.post_of,
            )
            for layout in layouts
        ]
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
    regions = [OptionShape(code=r.code, name=r.name, latin=r.latin) for r in layout.regions]
    return LayoutAnswer(
        country_code=layout.country_code,
        name=layout.name_in(language),
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
        starts=list(layout.postcode_starts),
        languages=list(layout.languages),
        lines={script: list(map(written_line, lines)) for script, lines in layout.lines.items()},
        confidence=layout.confidence,
        source=layout.source,
        post_of=layout.post_of,
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
    components = body.components
    lines = write_lines(
        layout,
        components,
        international=body.international,
        language=_language_of_sender(call, body.from_country),
    )
    return LinesAnswer(
        lines=lines,
        html=write_html(lines, language_of(layout, components)),
        one_line=one_line(layout, components),
    )


@area.endpoint(
    "POST", "/layouts/lines", access=Access.SERVER, body=ManyLinesRequest, answer=ManyLinesAnswer
)
def write_many_lines(call: Call) -> Shape:
    """Many addresses written out, each as its country does it."""
    body = call.body(ManyLinesRequest)
    language = _language_of_sender(call, body.from_country)
    problems: list[Problem] = []
    written: list[list[str]] = []
    for place, components in enumerate(body.addresses):
        pointer = f"/addresses/{place}"
        problems += component_problems(components, pointer)
        code = components.get("country_code", "")
        layout = call.services.layouts.get(code)
        if layout is None:
            problems.append(Problem(f"{pointer}/country_code", _no_layout(call, code)))
        else:
            written.append(
                write_lines(layout, components, international=body.international, language=language)
            )
    if problems:
        raise invalid(problems)
    return ManyLinesAnswer(lines=written)


def _language_of_sender(call: Call, country_code: str | None) -> str:
    if country_code is None:
        return "en"
    layout = call.services.layouts.get(country_code)
    if layout is None:
        raise invalid([Problem("/from_country", _no_layout(call, country_code))])
    return layout.languages[0]


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
        unused=[
            UnusedComponent(component=u.component, value=u.value, offered_to=u.offered_to)
            for u in unused_components(layout, body.components)
        ],
    )
