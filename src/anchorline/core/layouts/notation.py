"""The notation of a layout's lines, read into parts.

A line names components; what stands between two of them is written only where both sides
have something to say:

    number street           a blank between the two
    unit, building          a comma and a blank between the two
    region+town             nothing between the two
    POSTCODE TOWN           a component in capitals is written in capitals
    ["PO Box " po_box]      quoted words belong to their bracket and go with it when its
                            components are empty

Where empty components make two separators meet, the first with a sign other than a blank
wins. So no layout can write a stray comma, a doubled blank or an empty line.
"""

from __future__ import annotations

import re
from collections.abc import Collection
from dataclasses import dataclass

from ..address import COMPONENT_SET, COMPONENTS
from ..errors import NotationError, nearest_names, unknown_name_detail

_LEXEME = re.compile(
    r'(?P<word>[A-Za-z_]+)|(?P<quoted>"[^"]*")|(?P<open>\[)|(?P<close>\])|(?P<sign>[^A-Za-z_"\[\]]+)'
)


@dataclass(frozen=True, slots=True)
class Named:
    """A component to be written, in capitals or as it is."""

    component: str
    capitals: bool = False


@dataclass(frozen=True, slots=True)
class Quoted:
    """Words that are written as they stand."""

    text: str


@dataclass(frozen=True, slots=True)
class Separator:
    """What stands between two parts that both have something to say."""

    text: str


@dataclass(frozen=True, slots=True)
class Bracket:
    """Parts that are written together, or not at all where none of the components is there."""

    parts: tuple[Named | Quoted | Separator, ...]


Part = Named | Quoted | Separator | Bracket
Line = tuple[Part, ...]


def read_line(text: str, extras: Collection[str] = ()) -> Line:
    """Reads one line of the notation.

    Args:
        text: the line.
        extras: names that may stand in it beside the components.

    Raises:
        NotationError: an unknown component, a bracket left open or without a component, or
            quoted words outside a bracket; carries the position.
    """
    parts: list[Part] = []
    inside: list[Part] | None = None
    opened = 0
    for lexeme in _lexemes(text):
        if lexeme.lastgroup == "open":
            if inside is not None:
                raise NotationError(text, lexeme.start(), "A bracket cannot hold another bracket")
            inside, opened = [], lexeme.start()
        elif lexeme.lastgroup == "close":
            if inside is None:
                raise NotationError(text, lexeme.start(), "This bracket was never opened")
            parts.append(_bracket(text, opened, inside))
            inside = None
        else:
            part = _part(text, lexeme, extras, in_bracket=inside is not None)
            (parts if inside is None else inside).append(part)
    if inside is not None:
        raise NotationError(text, opened, "This bracket is never closed")
    if not any(isinstance(part, Named | Bracket) for part in parts):
        raise NotationError(text, 0, "A line must name at least one component")
    return tuple(parts)


def written_line(parts: Line) -> str:
    """A line in the notation: `read_line(written_line(line)) == line`."""
    return "".join(map(_written, parts))


def _written(part: Part) -> str:
    if isinstance(part, Named):
        return part.component.upper() if part.capitals else part.component
    if isinstance(part, Quoted):
        return f'"{part.text}"'
    if isinstance(part, Separator):
        return part.text or "+"
    return f"[{written_line(part.parts)}]"


def _lexemes(text: str) -> list[re.Match[str]]:
    found = list(_LEXEME.finditer(text))
    end = 0
    for lexeme in found:
        if lexeme.start() != end:
            break
        end = lexeme.end()
    if end != len(text):
        raise NotationError(text, end, "A quotation mark is never closed")
    return found


def _part(text: str, lexeme: re.Match[str], extras: Collection[str], *, in_bracket: bool) -> Part:
    value = lexeme.group()
    if lexeme.lastgroup == "sign":
        return Separator("" if value.strip() == "+" else value)
    if lexeme.lastgroup == "quoted":
        if not in_bracket:
            raise NotationError(
                text, lexeme.start(), "Quoted words must stand in a bracket with a component"
            )
        return Quoted(value[1:-1])
    component = value.lower()
    if component not in COMPONENT_SET and component not in extras:
        nearest = nearest_names(component, [*COMPONENTS, *extras])
        detail = unknown_name_detail("component", value, nearest)
        raise NotationError(text, lexeme.start(), detail)
    if value not in (component, component.upper()):
        raise NotationError(
            text, lexeme.start(), f"Write {component} or {component.upper()}, not {value}"
        )
    return Named(component, capitals=value != component)


def _bracket(text: str, opened: int, inside: list[Part]) -> Bracket:
    if not any(isinstance(part, Named) for part in inside):
        raise NotationError(text, opened, "A bracket must hold at least one component")
    return Bracket(tuple(part for part in inside if not isinstance(part, Bracket)))
