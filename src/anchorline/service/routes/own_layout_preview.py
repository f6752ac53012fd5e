"""What an own layout would do, were it published: beside the layout that it is laid over."""

from __future__ import annotations

from collections.abc import Iterable

from anchorline.application.layout_use import require_components
from anchorline.core.errors import Problem
from anchorline.core.layouts import Layout, write_lines, written_line
from anchorline.core.layouts.own import (
    OwnLayout,
    TracedLine,
    base_layout_of,
    differences,
    effective,
    traced_lines,
)
from anchorline.wire.own_layouts import (
    DifferenceSchema,
    PreviewAnswer,
    PreviewComponent,
    PreviewLine,
    PreviewRequest,
)

from ..endpoints import ApiRequest
from ..problems import invalid, places


def preview(
    request: ApiRequest, own: OwnLayout, problems: Iterable[Problem], wanted: PreviewRequest
) -> PreviewAnswer:
    """One country of an own layout, beside its base.

    Raises:
        ProblemError: 422 for a country that the own layout is not for, or for components that no
            layout knows.
    """
    code = wanted.country_code
    if code not in own.countries:
        about = [problem for problem in problems if problem.pointer.startswith("/countries/")]
        raise invalid(about or [Problem("/country_code", f"This own layout is not for {code}.")])
    in_force = request.services.layouts_in_force.current()
    base_layout, layout = base_layout_of(own, in_force, code), effective(own, in_force, code)
    require_components(wanted.components, "/components", layout.extras)
    changes = {change.component: change.index for change in own.ask}
    language = wanted.language
    hidden = [name for name in layout.hidden if base_layout.component(name) or name in changes]
    traced = traced_lines(base_layout, own)
    return PreviewAnswer(
        country_code=code,
        name=layout.name,
        languages=list(layout.languages),
        base=_components(base_layout, {}, language),
        components=_components(layout, changes, language),
        hidden=[
            {"component": name, "label": _label(base_layout, name, language)} for name in hidden
        ],
        lines={script: list(map(_line, lines)) for script, lines in traced.items()},
        written=write_lines(layout, wanted.components),
        written_base=write_lines(base_layout, wanted.components),
        differences=_differences(base_layout, layout),
        problems=places(problems),
    )


def _differences(before: Layout, after: Layout) -> list[DifferenceSchema]:
    return [
        DifferenceSchema(country_code=d.country_code, about=d.about, detail=d.detail)
        for d in differences(before, after)
    ]


def _components(layout: Layout, changes: dict[str, int], language: str) -> list[PreviewComponent]:
    return [
        PreviewComponent(
            component=entry.component,
            label=entry.label(language),
            labels=entry.labels,
            required=entry.required,
            added=entry.added,
            change=changes.get(entry.component),
        )
        for entry in layout.components
    ]


def _label(layout: Layout, component: str, language: str) -> str:
    entry = layout.component(component)
    return entry.label(language) if entry else component.replace("_", " ").capitalize()


def _line(traced: TracedLine) -> PreviewLine:
    return PreviewLine(
        line=written_line(traced.line),
        was=None if traced.was is None else written_line(traced.was),
        change=traced.change,
        dropped=traced.dropped,
    )
