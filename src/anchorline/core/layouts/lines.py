"""Writing an address out with a layout's lines, and saying what they leave out."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from html import escape

from ..text import has_spaceless_script
from .designators import bears_designator, begins_or_ends_with
from .model import Layout, component_names
from .names import text_direction
from .notation import Bracket, Line, Named, Part, Quoted, Separator
from .scripts import direction, in_capitals, is_written_in

_OTHER_HALF = {"region": "region_code", "region_code": "region"}


@dataclass(frozen=True, slots=True)
class LeftOut:
    """A component that was given and is not in the lines, and why, in a sentence."""

    component: str
    value: str
    reason: str


@dataclass(frozen=True, slots=True)
class Written:
    """An address written out: its lines, none of them empty, and what they leave out."""

    lines: list[str]
    left_out: list[LeftOut]


@dataclass(frozen=True, slots=True)
class Piece:
    """A part of a line: what one component, or a bracket of the layout, says.

    Attributes:
        components: whose values stand in it.
        before: what parts it from the piece before it in its line.
    """

    components: tuple[str, ...]
    text: str
    before: str


def line_pieces(layout: Layout, components: Mapping[str, str]) -> list[list[Piece]]:
    """The domestic lines of an address piece by piece, without capitals; none of them empty."""
    completed = complete_region(layout, components)
    writer = _Writer(layout, completed, capitals=False)
    written = (list(writer.pieces(line)) for line in _lines(layout, completed))
    return [pieces for pieces in written if pieces]


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
    writer = _Writer(layout, completed, capitals)
    written = [text for line in _lines(layout, completed) if (text := writer.line(line))]
    if international and written:
        written.append(layout.name_in(language).upper())
    return written


def write_out(
    layout: Layout,
    components: Mapping[str, str],
    *,
    international: bool = False,
    language: str = "en",
) -> Written:
    """The lines of an address, and each component that was given and is not in them.

    Args: as of `write_lines`.
    """
    lines = write_lines(layout, components, international=international, language=language)
    completed = complete_region(layout, components)
    named = {name for line in _lines(layout, completed) for name in component_names(line)}
    written = named | {
        half
        for half, other in _OTHER_HALF.items()
        if other in named and half not in named and not completed.get(other)
    }
    given = [(name, components[name].strip()) for name in components if components[name].strip()]
    left_out = [
        LeftOut(name, value, _why_not(layout, completed, name, named, lines, international))
        for name, value in given
        if name not in written
        and not (name == "country" and international and value.upper() in lines[-1:])
    ]
    return Written(lines, left_out)


def _why_not(
    layout: Layout,
    completed: Mapping[str, str],
    name: str,
    named: set[str],
    lines: Sequence[str],
    international: bool,
) -> str:
    """Why the lines of a layout do not have a component."""
    other = _OTHER_HALF.get(name, "")
    if other in named and completed.get(other):
        return f"The region is written as “{completed[other]}”."
    if name in ("country", "country_code"):
        if international and lines:
            return f"The country is written as “{lines[-1]}”."
        return "Only mail from abroad names the country."
    if name == "nation":
        return f"The post of {layout.name} delivers without the nation."
    if name == "postcode" and not layout.masks and layout.component("postcode") is None:
        return f"{layout.name} has no postcodes."
    entry = layout.component(name)
    label = entry.labels["en"] if entry else name.replace("_", " ")
    return f"Mail in {layout.name} is written without a {label.lower()}."


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
    fitting = [language for language in layout.languages if text_direction(language) == way]
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


def designated_components(layout: Layout) -> frozenset[str]:
    """The components whose place in the lines depends on whether they bear a designator."""
    brackets = (
        part
        for lines in layout.lines.values()
        for line in lines
        for part in line
        if isinstance(part, Bracket) and any(isinstance(p, Quoted) for p in part.parts)
    )
    found = {name for bracket in brackets for name in component_names(bracket.parts)}
    return frozenset(found | ({"unit"} if layout.called_unit else set()))


def says_what_it_is(layout: Layout, component: str, value: str) -> bool:
    """Whether a value bears a designator as mail of the layout's country has it."""
    return bears_designator(component, value, layout.languages)


def _lines(layout: Layout, components: Mapping[str, str]) -> Iterator[Line]:
    """The lines to write with: where a unit says what it is, the line that is for that."""
    unit = components.get("unit", "")
    called = bool(layout.called_unit) and says_what_it_is(layout, "unit", unit)
    script = script_of(layout, components)
    for line in layout.lines[script]:
        names = component_names(line) if called and not script else []
        yield layout.called_unit if "unit" in names and "number" in names else line


class _Writer:
    """Writes the lines of one address."""

    def __init__(self, layout: Layout, components: Mapping[str, str], capitals: bool) -> None:
        self._layout, self._components, self._capitals = layout, components, capitals
        self._named = {
            name for line in _lines(layout, components) for name in component_names(line)
        }

    def line(self, parts: Sequence[Part]) -> str:
        """Parts with something to say, with the separators that stand between two of them."""
        return "".join(f"{piece.before}{piece.text}" for piece in self.pieces(parts))

    def pieces(self, parts: Sequence[Part]) -> Iterator[Piece]:
        """The same, piece by piece."""
        is_first = True
        pending: list[str] = []
        for part in parts:
            if isinstance(part, Separator):
                pending.append(part.text)
                continue
            text = self._text_of(part)
            if not text:
                continue
            before = "" if is_first else _strongest(pending)
            yield Piece(self._named_in(part), text, before)
            is_first, pending = False, []

    def _named_in(self, part: Named | Quoted | Bracket) -> tuple[str, ...]:
        """The components whose values a part writes."""
        if isinstance(part, Quoted):
            return ()
        names = component_names([part])
        return tuple(name for name in names if self._value(name))

    def _text_of(self, part: Named | Quoted | Bracket) -> str:
        if isinstance(part, Named):
            value = self._value(part.component)
            if part.capitals and self._capitals:
                return in_capitals(value, self._layout.languages)
            return value
        if isinstance(part, Quoted):
            return part.text
        named = [p.component for p in part.parts if isinstance(p, Named)]
        given = [name for name in named if self._value(name)]
        if not given:
            return ""
        parts = [p for p in part.parts if not (isinstance(p, Quoted) and self._has(p.text, given))]
        return self.line(parts).strip()

    def _value(self, component: str) -> str:
        """A component; of a region that is not known, the half that was given."""
        value = self._components.get(component, "").strip()
        other = _OTHER_HALF.get(component)
        if value or other is None or other in self._named:
            return value
        return self._components.get(other, "").strip()

    def _has(self, words: str, names: Sequence[str]) -> bool:
        """Whether the only value of a bracket bears a designator, these words or another."""
        if len(names) != 1:
            return False
        value = self._value(names[0])
        return begins_or_ends_with(value, words) or says_what_it_is(self._layout, names[0], value)


def _strongest(separators: Sequence[str]) -> str:
    """Of separators that meet, the first that is more than a blank."""
    return next((s for s in separators if s.strip()), separators[0] if separators else "")
