"""What an own layout would do, were it published: beside the layout that it is laid over."""

from __future__ import annotations

from collections.abc import Iterable

from anchorline.core.errors import Problem
from anchorline.core.layouts import Layout, write_lines, written_line
from anchorline.core.layouts.own import (
    OwnLayout,
    TracedLine,
    below,
    differences,
    effective,
    traced_lines,
)
from anchorline.wire.own_layouts import (
    DifferenceShape,
    PreviewAnswer,
    PreviewAsked,
    PreviewLine,
    PreviewRequest,
)
from anchorline.wire.problems import ProblemPlace

from ..endpoints import Call
from ..problems import invalid
from .layouts import require_components


def preview(
    call: Call, own: OwnLayout, problems: Iterable[Problem], request: PreviewRequest
) -> PreviewAnswer:
    """One country of an own layout, beside the layout below it.

    Raises:
        ProblemError: 422 for a country that the own layout is not for, or for components that no
            layout knows.
    """
    code = request.country_code
    if code not in own.countries:
        about = [problem for problem in problems if problem.pointer.startswith("/countries/")]
        raise invalid(about or [Problem("/country_code", f"This own layout is not for {code}.")])
    in_force = call.services.layouts_in_force.current()
    under, over = below(own, in_force, code), effective(own, in_force, code)
    require_components(request.components, "/components", over.extras)
    changes = {change.component: change.index for change in own.ask}
    language = request.language
    hidden = [name for name in over.hidden if under.asks_for(name) or name in changes]
    return PreviewAnswer(
        country_code=code,
        name=over.name,
        languages=list(over.languages),
        below=_asked(under, {}, language),
        asked=_asked(over, changes, language),
        hidden=[{"component": name, "label": _label(under, name, language)} for name in hidden],
        lines={
            script: list(map(_line, lines)) for script, lines in traced_lines(under, own).items()
        },
        written=write_lines(over, request.components),
        written_below=write_lines(under, request.components),
        differences=_differences(under, over),
        problems=places(problems),
    )


def differences_from_below(call: Call, own: OwnLayout) -> list[DifferenceShape]:
    """What an own layout says otherwise than the layouts below it, country by country."""
    in_force = call.services.layouts_in_force.current()
    return [
        difference
        for code in own.countries
        for difference in _differences(below(own, in_force, code), effective(own, in_force, code))
    ]


def places(problems: Iterable[Problem]) -> list[ProblemPlace]:
    """Problems as they are answered."""
    return [ProblemPlace(pointer=p.pointer, detail=p.detail) for p in problems]


def _differences(under: Layout, over: Layout) -> list[DifferenceShape]:
    return [
        DifferenceShape(country_code=d.country_code, about=d.about, detail=d.detail)
        for d in differences(under, over)
    ]


def _asked(layout: Layout, changes: dict[str, int], language: str) -> list[PreviewAsked]:
    return [
        PreviewAsked(
            component=asked.component,
            label=asked.label(language),
            labels=asked.labels,
            required=asked.required,
            added=asked.added,
            change=changes.get(asked.component),
        )
        for asked in layout.asked
    ]


def _label(layout: Layout, component: str, language: str) -> str:
    asked = layout.asks_for(component)
    return asked.label(language) if asked else component.replace("_", " ").capitalize()


def _line(traced: TracedLine) -> PreviewLine:
    return PreviewLine(
        line=written_line(traced.line),
        was=None if traced.was is None else written_line(traced.was),
        change=traced.change,
        dropped=traced.dropped,
    )
