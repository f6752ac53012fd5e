"""Laying an own layout's differences over a layout."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass, replace

from ..library import usual_labels
from ..model import Layout, LayoutComponent, OwnStep, component_names
from ..notation import Line, Named
from .document import ComponentChange, LineChange, OwnLayout


@dataclass(frozen=True, slots=True)
class TracedLine:
    """A line, and where it comes from.

    Attributes:
        line: as it is written; of a dropped one as it was.
        was: as the layout base has it; None for an added one.
        change: index of the document's entry that made it so; None where nothing did.
        dropped: it is not written.
    """

    line: Line
    was: Line | None
    change: int | None = None
    dropped: bool = False


def derive(
    base: Layout, own: OwnLayout, version: int | None = None, *, shipped: Layout | None = None
) -> Layout:
    """A layout with an own layout's differences laid over it.

    What names nothing in the layout (a line that it does not have, a label of what it does not
    ask for) changes nothing.

    Args:
        base: the layout that is changed; one of another own layout, or the shipped one.
        own: the differences.
        version: of the own layout, to be named; None for a draft.
        shipped: the shipped layout, where `base` is not; gives back what `base` has hidden.
    """
    changes_lines = any(change.script == "" for change in own.lines)
    return replace(
        base,
        # Whoever writes that line otherwise means it for every unit.
        called_unit=() if changes_lines else base.called_unit,
        components=tuple(_components(base, own, shipped or base)),
        hidden=tuple(_hidden(base, own)),
        lines={
            script: tuple(traced.line for traced in lines if not traced.dropped)
            for script, lines in traced_lines(base, own).items()
        },
        own=(OwnStep(own.key, own.title, version, bool(own.forms)), *base.own),
    )


def traced_lines(base: Layout, own: OwnLayout) -> dict[str, list[TracedLine]]:
    """The lines of each script, those that are dropped among them, with where they come from."""
    traced = {
        script: [TracedLine(line, line) for line in lines] for script, lines in base.lines.items()
    }
    for change in own.lines:
        lines = traced.get(change.script)
        if lines is not None:
            _change_lines(lines, change)
    return traced


def place_of_line(lines: Iterable[Line], wanted: Line) -> int | None:
    """Where a line stands, or else the one that names the component which `wanted` is alone."""
    known = list(lines)
    if wanted in known:
        return known.index(wanted)
    if len(wanted) == 1 and isinstance(wanted[0], Named):
        name = wanted[0].component
        return next((i for i, line in enumerate(known) if name in component_names(line)), None)
    return None


def _change_lines(lines: list[TracedLine], change: LineChange) -> None:
    if change.act == "add":
        added = TracedLine(change.line, None, change.index)
        if change.first:
            lines.insert(0, added)
            return
        at = None if change.after is None else _anchor(lines, change.after)
        lines.insert(len(lines) if at is None else at + 1, added)
        return
    for at, traced in enumerate(lines):
        if traced.was == change.line and traced.change is None:
            dropped = change.act == "drop"
            lines[at] = TracedLine(change.to, traced.was, change.index, dropped)
            return


def _anchor(lines: list[TracedLine], after: Line) -> int | None:
    """A line is found by what it is, and by what it was before it was changed."""
    at = place_of_line((traced.line for traced in lines), after)
    if at is None:
        at = place_of_line((traced.was or () for traced in lines), after)
    return at


def _components(base: Layout, own: OwnLayout, shipped: Layout) -> list[LayoutComponent]:
    components = list(base.components)
    for change in own.ask:
        at = next((i for i, a in enumerate(components) if a.component == change.component), None)
        if change.hidden:
            if at is not None:
                del components[at]
        elif at is not None:
            components[at] = _changed(components[at], change)
            _place(components, at, change)
        elif change.add:
            components.append(_changed(_added(base, change.component, shipped), change))
            _place(components, len(components) - 1, change)
    return components


def _added(base: Layout, component: str, shipped: Layout) -> LayoutComponent:
    hidden_in_base = shipped.component(component)
    if hidden_in_base is not None:
        return hidden_in_base
    return LayoutComponent(component, usual_labels(component, base.languages), added=True)


def _changed(entry: LayoutComponent, change: ComponentChange) -> LayoutComponent:
    required = entry.required if change.required is None else change.required
    return replace(entry, labels={**entry.labels, **change.labels}, required=required)


def _place(components: list[LayoutComponent], at: int, change: ComponentChange) -> None:
    """Moves what stands at a place to where the change wants it."""
    if change.first:
        components.insert(0, components.pop(at))
        return
    after = next((i for i, a in enumerate(components) if a.component == change.after), None)
    if after is None:
        return
    moved = components.pop(at)
    components.insert(after if at < after else after + 1, moved)


def _hidden(base: Layout, own: OwnLayout) -> list[str]:
    changes = {change.component: change for change in own.ask}
    hidden = [name for name in base.hidden if not (name in changes and changes[name].add)]
    return list(dict.fromkeys([*hidden, *(c.component for c in own.ask if c.hidden)]))
