"""Writing an address out with a layout's lines."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from html import escape

from ..text import has_spaceless_script
from .model import Layout
from .names import runs
from .notation import Bracket, Named, Part, Quoted, Separator
from .scripts import direction, is_written_in


def write_lines(
    layout: Layout,
    components: Mapping[str, str],
    *,
    international: bool = False,
    language: str = "en",
    capitals: bool = True,
) -> list[str]:
    """The lines of an address, none of them empty.

    Args:
        layout: the layout of the address's country.
        components: any components; those that the lines do not name are not written.
        international: for mail from abroad: the country's name in capitals comes last.
        language: the language of that name: one of the sender's country.
        capitals: write in capitals what the layout writes so.
    """
    completed = complete_region(layout, components)
    written = [
        text
        for line in layout.lines[script_of(layout, completed)]
        if (text := _join(line, completed, capitals))
    ]
    if international and written:
        written.append(layout.name_in(language).upper())
    return written


def write_html(lines: Sequence[str], language: str) -> str:
    """Lines as an `address` element that runs in their own direction; everything is escaped.

    Args:
        lines: as `write_lines` gives them.
        language: BCP 47, of what they are written in; empty where that is not known.
    """
    attributes = f' lang="{escape(language)}"' if language else ""
    inner = "<br>".join(map(escape, lines))
    return f'<address dir="{direction("".join(lines))}"{attributes}>{inner}</address>'


def language_of(layout: Layout, components: Mapping[str, str]) -> str:
    """The language that an address is most likely written in (BCP 47), empty where that is open.

    Where a country writes its lines in two scripts, letters of its own script tell; letters that
    run the other way than its language are not of it. A country with several languages leaves it
    open, unless only one of them runs that way.
    """
    first = layout.languages[0] if layout.languages else ""
    if len(layout.lines) > 1:
        return first if script_of(layout, components) else "en"
    way = direction("".join(components.values()))
    fitting = [language for language in layout.languages if runs(language) == way]
    return fitting[0] if len(fitting) == 1 else ""


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
    if len(layout.regions) == 1:
        only = layout.regions[0]
        return {"region": only.name, "region_code": only.code} | completed
    if "region" in completed and "region_code" not in completed:
        region = layout.region_by_name(completed["region"])
        if region:
            completed["region_code"] = region.code
    elif "region_code" in completed and "region" not in completed:
        region = layout.region_by_code(completed["region_code"])
        if region:
            completed["region"] = region.name
    return completed


def script_of(layout: Layout, components: Mapping[str, str]) -> str:
    """The key of the lines to write components with: that of their script, or `""`."""
    for script in layout.lines:
        if script and is_written_in(script, components.values()):
            return script
    return ""


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
