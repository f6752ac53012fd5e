"""The differences between two layouts, in sentences."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from difflib import SequenceMatcher

from ..model import Layout, LayoutComponent
from ..names import language_name
from ..notation import written_line


@dataclass(frozen=True, slots=True)
class Difference:
    """One thing that differs.

    Attributes:
        country_code: of the layout.
        about: the component, or `lines`.
        detail: a sentence.
    """

    country_code: str
    about: str
    detail: str


def differences(before: Layout, after: Layout) -> list[Difference]:
    """What `after` says otherwise than `before`, both of one country; order of asking first."""
    return [
        Difference(after.country_code, about, detail)
        for about, detail in [
            *_fewer_and_more(before, after),
            *_asked_otherwise(before, after),
            *_moved(before, after),
            *_lines(before, after),
        ]
    ]


def _fewer_and_more(before: Layout, after: Layout) -> Iterator[tuple[str, str]]:
    for entry in before.components:
        if after.component(entry.component) is None:
            yield entry.component, f"{entry.labels['en']} is no longer asked for."
    for name in after.hidden:
        if name not in before.hidden and before.component(name) is None:
            yield name, f"{name} stays hidden, also if a newer shipped layout asks for it."
    for entry in after.components:
        if before.component(entry.component) is None:
            needed = ", and must be given" if entry.required else ""
            yield entry.component, f"{entry.labels['en']} is asked for as well{needed}."


def _asked_otherwise(before: Layout, after: Layout) -> Iterator[tuple[str, str]]:
    for entry in after.components:
        was = before.component(entry.component)
        if was is None:
            continue
        yield from ((entry.component, detail) for detail in _labels(was, entry))
        if was.required != entry.required:
            how = "must be given" if entry.required else "may be left out"
            yield entry.component, f"{entry.labels['en']} {how}."


def _labels(was: LayoutComponent, entry: LayoutComponent) -> Iterator[str]:
    for language, text in entry.labels.items():
        old = was.labels.get(language)
        if old != text:
            instead = f" instead of “{old}”" if old else ""
            yield f"{entry.component} is called “{text}” in {language_name(language)}{instead}."


def _moved(before: Layout, after: Layout) -> Iterator[tuple[str, str]]:
    old = [a.component for a in before.components if after.component(a.component)]
    new = [a.component for a in after.components if before.component(a.component)]
    kept: set[str] = set()
    for block in SequenceMatcher(None, old, new, autojunk=False).get_matching_blocks():
        kept.update(new[block.b : block.b + block.size])
    order = [a.component for a in after.components]
    for name in new:
        if name not in kept:
            at = order.index(name)
            after_what = _label(after, order[at - 1]) if at else ""
            where = f"after {after_what}" if after_what else "first"
            yield name, f"{_label(after, name)} is asked for {where}."


def _label(layout: Layout, component: str) -> str:
    entry = layout.component(component)
    return entry.labels["en"] if entry else component


def _lines(before: Layout, after: Layout) -> Iterator[tuple[str, str]]:
    for script, lines in after.lines.items():
        old = list(map(written_line, before.lines.get(script, ())))
        new = list(map(written_line, lines))
        where = f" ({script})" if script else ""
        matched = SequenceMatcher(None, old, new, autojunk=False)
        for act, from_old, to_old, from_new, to_new in matched.get_opcodes():
            gone, come = old[from_old:to_old], new[from_new:to_new]
            if act == "replace" and len(gone) == len(come):
                for was, now in zip(gone, come, strict=True):
                    yield "lines", f"The line “{was}” becomes “{now}”{where}."
                continue
            if act == "equal":
                continue
            yield from (
                ("lines", f"The line “{text}” is no longer written{where}.") for text in gone
            )
            yield from (("lines", f"The line “{text}” is written as well{where}.") for text in come)
