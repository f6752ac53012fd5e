"""API: layouts, lines, and checking components against a layout."""

from __future__ import annotations

from collections.abc import Collection

from anchorline.core.address import COMPONENTS, component_problems
from anchorline.core.errors import Problem
from anchorline.core.layouts import (
    Layout,
    LayoutLibrary,
    Written,
    check_components,
    component_terms,
    language_of,
    one_line,
    unknown_country_detail,
    unused_components,
    usual_label,
    write_html,
    write_out,
    written_line,
)
from anchorline.wire.base import Schema
from anchorline.wire.layouts import (
    CheckComponentsAnswer,
    CheckComponentsRequest,
    ComponentProblem,
    LayoutAnswer,
    LayoutComponentSchema,
    LayoutEntry,
    LayoutList,
    LayoutQuery,
    LeftOutComponent,
    LinesAnswer,
    LinesRequest,
    ManyLinesAnswer,
    ManyLinesRequest,
    OptionSchema,
    OwnStepSchema,
    UnusedComponent,
)
from anchorline.wire.own_layouts import SamplesAnswer, SampleSchema, SamplesQuery

from ..access import Access
from ..endpoints import ApiRequest, Router
from ..problems import ProblemError, invalid, not_found

router = Router("layouts", "find")
_MOST_SAMPLES = 10
_WITH_OPTIONS = frozenset({"region", "region_code"})


def require_layout(request: ApiRequest, country_code: str, form: str | None = None) -> Layout:
    """The layout that holds for a country, on a form or everywhere; 404 where there is none."""
    layout = _layouts(request, form).get(country_code)
    if layout is None:
        raise not_found(_no_layout(request, country_code))
    return layout


def _layouts(request: ApiRequest, form: str | None) -> LayoutLibrary:
    """The layouts that hold on a form, or everywhere; 403 or 404 where it is not for the caller."""
    if form is not None:
        if not request.caller.may_use_form(form):
            raise ProblemError(403, f"This caller may not use the form {form!r}.")
        if request.caller.forms is None:  # who is tied to forms is tied to real ones
            request.services.forms.require(form)
    return request.services.layouts_in_force.current().on_form(form)


def _no_layout(request: ApiRequest, country_code: str) -> str:
    codes = [known.country_code for known in request.services.layouts]
    return unknown_country_detail(country_code, codes)


def require_components(
    components: dict[str, str], pointer: str, extras: Collection[str] = ()
) -> None:
    """422 where a name is neither a component's nor one of `extras`, with the nearest ones."""
    problems = component_problems(components, pointer, extras)
    if problems:
        raise invalid(problems)


@router.endpoint("GET", "/layouts", access=Access.CAPTURE, answer=LayoutList)
def list_layouts(request: ApiRequest) -> Schema:
    """The countries that have a layout."""
    layouts = sorted(request.services.layouts, key=lambda layout: layout.name)
    published = request.services.layouts_in_force.current().published
    searched = request.services.gazetteer.current().countries
    return LayoutList(
        layouts=[
            LayoutEntry(
                country_code=layout.country_code,
                name=layout.name,
                confidence=layout.confidence,
                post_of=layout.post_of,
                own=[p.own.key for p in published if layout.country_code in p.own.countries],
                has_addresses=layout.country_code in searched,
            )
            for layout in layouts
        ],
        labels=component_terms(),
    )


@router.endpoint(
    "GET",
    "/layouts/<country_code>",
    access=Access.CAPTURE,
    query=LayoutQuery,
    answer=LayoutAnswer,
    problems=(404,),
)
def get_layout(request: ApiRequest) -> Schema:
    """A country's layout: what is asked for, in which order, called what."""
    query = request.query(LayoutQuery)
    layout = require_layout(request, request.path["country_code"], query.form)
    language = layout.first_language(query.language.split(","))
    regions = [OptionSchema(code=r.code, name=r.name, latin=r.latin) for r in layout.regions]
    return LayoutAnswer(
        country_code=layout.country_code,
        name=layout.name_in(language),
        language=language,
        components=[
            LayoutComponentSchema(
                component=entry.component,
                label=entry.label(language),
                required=entry.required,
                options=(regions or None) if entry.component in _WITH_OPTIONS else None,
            )
            for entry in layout.components
        ],
        labels={
            name: usual_label(name, language)
            for name in COMPONENTS
            if layout.component(name) is None
        },
        has_addresses=layout.country_code in request.services.gazetteer.current().countries,
        masks=list(layout.masks),
        starts=list(layout.postcode_starts),
        languages=list(layout.languages),
        lines={script: list(map(written_line, lines)) for script, lines in layout.lines.items()},
        confidence=layout.confidence,
        source=layout.source,
        post_of=layout.post_of,
        version=layout.version,
        hidden=list(layout.hidden),
        own=[
            OwnStepSchema(key=o.key, title=o.title, version=o.version, of_form=o.of_form)
            for o in layout.own
        ],
    )


@router.endpoint(
    "POST",
    "/layouts/<country_code>/lines",
    access=Access.CAPTURE,
    body=LinesRequest,
    answer=LinesAnswer,
    problems=(404,),
)
def write_address_lines(request: ApiRequest) -> Schema:
    """Components written out in the country's lines."""
    body = request.body(LinesRequest)
    layout = require_layout(request, request.path["country_code"], body.form)
    require_components(body.components, "/components", layout.extras)
    components = body.components
    written = write_out(
        layout,
        components,
        international=body.international,
        language=_language_of_sender(request, body.from_country),
    )
    return LinesAnswer(
        lines=written.lines,
        html=write_html(written.lines, language_of(layout, components)),
        one_line=one_line(layout, components),
        left_out=_left_out(written),
    )


@router.endpoint(
    "POST",
    "/layouts/lines",
    access=Access.SERVER,
    body=ManyLinesRequest,
    answer=ManyLinesAnswer,
    problems=(404,),
)
def write_many_lines(request: ApiRequest) -> Schema:
    """Many addresses written out, each as its country does it."""
    body = request.body(ManyLinesRequest)
    layouts = _layouts(request, body.form)
    language = _language_of_sender(request, body.from_country)
    problems: list[Problem] = []
    written: list[Written] = []
    for place, components in enumerate(body.addresses):
        pointer = f"/addresses/{place}"
        code = components.get("country_code", "")
        layout = layouts.get(code)
        problems += component_problems(components, pointer, layout.extras if layout else ())
        if layout is None:
            problems.append(Problem(f"{pointer}/country_code", _no_layout(request, code)))
        else:
            written.append(
                write_out(layout, components, international=body.international, language=language)
            )
    if problems:
        raise invalid(problems)
    return ManyLinesAnswer(
        lines=[one.lines for one in written], left_out=[_left_out(one) for one in written]
    )


def _left_out(written: Written) -> list[LeftOutComponent]:
    return [
        LeftOutComponent(component=one.component, value=one.value, reason=one.reason)
        for one in written.left_out
    ]


def _language_of_sender(request: ApiRequest, country_code: str | None) -> str:
    if country_code is None:
        return "en"
    layout = request.services.layouts.get(country_code)
    if layout is None:
        raise invalid([Problem("/from_country", _no_layout(request, country_code))])
    return layout.languages[0]


@router.endpoint(
    "POST",
    "/layouts/<country_code>/check",
    access=Access.CAPTURE,
    body=CheckComponentsRequest,
    answer=CheckComponentsAnswer,
    problems=(404,),
)
def check_against_layout(request: ApiRequest) -> Schema:
    """Components held against the country's layout, in their canonical spelling."""
    body = request.body(CheckComponentsRequest)
    layout = require_layout(request, request.path["country_code"], body.form)
    require_components(body.components, "/components", layout.extras)
    canonical, problems = check_components(layout, body.components)
    return CheckComponentsAnswer(
        components=canonical,
        problems=[ComponentProblem(component=p.pointer, detail=p.detail) for p in problems],
        unused=[
            UnusedComponent(component=u.component, value=u.value, offered_to=u.offered_to)
            for u in unused_components(layout, body.components)
        ],
    )


@router.endpoint(
    "GET",
    "/layouts/<country_code>/samples",
    access=Access.SERVER,
    query=SamplesQuery,
    answer=SamplesAnswer,
    problems=(404,),
)
def list_samples(request: ApiRequest) -> Schema:
    """Addresses to try a layout with: of the latest records, and of the reference data."""
    form = request.query(SamplesQuery).form
    layout = require_layout(request, request.path["country_code"], form)
    code, services = layout.country_code, request.services
    captured = services.records.captured_in(code, [form] if form else [], _MOST_SAMPLES)
    known = services.gazetteer.current().samples(code, _MOST_SAMPLES)
    return SamplesAnswer(
        samples=[
            *(
                SampleSchema(
                    label=record.label, components=components, record=record.id, form=record.form
                )
                for record, components in captured
            ),
            *(
                SampleSchema(label=label, components=address.components, record=None, form=None)
                for label, address in known
            ),
        ]
    )
