"""API: layouts, lines, and checking components against a layout."""

from __future__ import annotations

from anchorline.application.layout_use import (
    language_of_sender,
    layout_for,
    layouts_for,
    require_components,
    samples,
    write_many,
)
from anchorline.core.address import COMPONENTS
from anchorline.core.layouts import (
    Layout,
    Written,
    check_components,
    component_terms,
    language_of,
    one_line,
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

router = Router("layouts", "find")
_WITH_OPTIONS = frozenset({"region", "region_code"})


def _layout(request: ApiRequest, form: str | None) -> Layout:
    """The layout of the country that the address names."""
    return layout_for(request.services, request.caller, request.path["country_code"], form)


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
    layout = _layout(request, query.form)
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
    layout = _layout(request, body.form)
    require_components(body.components, "/components", layout.extras)
    components = body.components
    written = write_out(
        layout,
        components,
        international=body.international,
        language=language_of_sender(request.services, body.from_country),
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
    services = request.services
    written = write_many(
        services,
        layouts_for(services, request.caller, body.form),
        body.addresses,
        international=body.international,
        language=language_of_sender(services, body.from_country),
    )
    return ManyLinesAnswer(
        lines=[one.lines for one in written], left_out=[_left_out(one) for one in written]
    )


def _left_out(written: Written) -> list[LeftOutComponent]:
    return [
        LeftOutComponent(component=one.component, value=one.value, reason=one.reason)
        for one in written.left_out
    ]


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
    layout = _layout(request, body.form)
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
    country_code = _layout(request, form).country_code
    return SamplesAnswer(
        samples=[
            SampleSchema.model_validate(one._asdict())
            for one in samples(request.services, country_code, form)
        ]
    )
