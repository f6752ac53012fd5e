"""Writing an address out with a layout's lines."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

from ..text import has_spaceless_script
from .model import Layout
from .notation import Bracket, Line, Named, Part, Quoted, Separator


def write_lines(
    layout: Layout,
    components: Mapping[str, str],
    *,
    international: bool = False,
    capitals: bool = True,
) -> list[str]:
    """The lines of an address, none of them empty.

    Args:
        layout: the layout of the address's country.
        components: any components; those that the lines do not name are not written.
        international: for mail from abroad: the country's name in capitals comes last.
        capitals: write in capitals what the layout writes so.
    """
    completed = complete_region(layout, components)
    written = [
        text
        for line in _lines_for_script(layout, completed)
        if (text := _join(line, completed, capitals))
    ]
    if international and written:
        written.append(layout.name.upper())
    return written


def one_line(layout: Layout, components: Mapping[str, str]) -> str:
    """The domestic lines in one, without capitals: for labels and lists."""
    lines = write_lines(layout, components, capitals=False)
    if any(has_spaceless_script(line) for line in lines):
        return " ".join(lines)
    return ", ".join(lines)


def complete_region(layout: Layout, components: Mapping[str, str]) -> dict[str, str]:
    """Components with the region's name or code added where only the other is given."""
    completed = {name: value for name, value in components.items() if value}
    if not layout.regions:
        return completed
    if "region" in completed and "region_code" not in completed:
        region = layout.region_by_name(completed["region"])
        if region:
            completed["region_code"] = region.code
    elif "region_code" in completed and "region" not in completed:
        region = layout.region_by_code(completed["region_code"])
        if region:
            completed["region"] = region.name
    return completed


def _lines_for_script(layout: Layout, components: Mapping[str, str]) -> Sequence[Line]:
    if "Jpan" in layout.lines and any(has_spaceless_script(v) for v in components.values()):
        return layout.lines["Jpan"]
    return layout.lines[""]


def _join(parts: Sequence[Part], components: Mapping[str, str], capitals: bool) -> str:
    """Parts with something to say, with the separators that stand between two of them."""
    written = ""
    pending: list[str] = []
    for part in parts:
        if isinstance(part, Separator):
            pending.append(part.text)
            continue
        text = _text_of(part, components, capitals)
        if not text:
            continue
        if written:
            written += _strongest(pending)
        pending = []
        written += text
    return written


def _text_of(part: Named | Quoted | Bracket, components: Mapping[str, str], capitals: bool) -> str:
    if isinstance(part, Named):
        value = components.get(part.component, "").strip()
        return value.upper() if part.capitals and capitals else value
    if isinstance(part, Quoted):
        return part.text
    if not any(isinstance(p, Named) and components.get(p.component) for p in part.parts):
        return ""
    return _join(part.parts, components, capitals).strip()


def _strongest(separators: Sequence[str]) -> str:
    """Of separators that meet, the first that is more than a blank."""
    return next((s for s in separators if s.strip()), separators[0] if separators else "")
