"""The layout: what a country asks for, in which order, and how it writes it out."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass, field

from ..text import tokens
from .notation import Bracket, Line, Named, Part, Quoted


@dataclass(frozen=True, slots=True)
class Region:
    """A state, province, county or prefecture.

    Attributes:
        code: ISO 3166-2, the part after the hyphen.
        name: the name as mail uses it.
        latin: the name in Latin letters where `name` is not, else the same.
    """

    code: str
    name: str
    latin: str


@dataclass(frozen=True, slots=True)
class Asked:
    """One component that a layout asks for.

    Attributes:
        component: its name.
        labels: label by BCP 47 language; `en` is always there.
        required: whether an address without it is incomplete.
    """

    component: str
    labels: dict[str, str]
    required: bool = False

    def label(self, language: str) -> str:
        """The label in a language, by its full tag, its first part, or in English."""
        return self.labels.get(language) or self.labels.get(
            language.split("-")[0], self.labels["en"]
        )


@dataclass(frozen=True, slots=True)
class Layout:
    """A country's layout.

    Attributes:
        country_code: ISO 3166-1 alpha-2.
        names: the country's name by BCP 47 language; `en` is always there.
        languages: languages of the country, the commonest first.
        asked: components in the order of asking.
        masks: postcode patterns, alternatives to one another; empty where there are none.
        regions: regions that mail uses; empty where it uses none.
        lines: the domestic lines by ISO 15924 script; the key `""` is the default.
        version: counts the published states of this layout, from 1.
        source: where the facts come from.
        box: south, west, north and east of the country, in rounded degrees; west is greater than
            east where it lies across the 180th meridian. None where it is not known.
    """

    country_code: str
    names: dict[str, str]
    languages: tuple[str, ...]
    asked: tuple[Asked, ...]
    masks: tuple[str, ...]
    regions: tuple[Region, ...]
    lines: dict[str, tuple[Line, ...]]
    version: int = 1
    source: str = ""
    box: tuple[float, float, float, float] | None = None
    _asked_by_name: dict[str, Asked] = field(init=False, repr=False, compare=False)

    def __post_init__(self) -> None:
        object.__setattr__(self, "_asked_by_name", {a.component: a for a in self.asked})

    @property
    def name(self) -> str:
        """The country's name in English."""
        return self.names["en"]

    def asks_for(self, component: str) -> Asked | None:
        """The layout's entry for a component, or None where the country does not use it."""
        return self._asked_by_name.get(component)

    @property
    def number_first(self) -> bool:
        """Whether the street's number is written before its name."""
        for lines in self.lines.values():
            for line in lines:
                names = _component_names(line)
                if "number" in names and "street" in names:
                    return names.index("number") < names.index("street")
        return True

    def literal_words(self, component: str) -> tuple[str, ...]:
        """Folded words that the lines write beside a component: `po box` for `po_box`."""
        brackets = [
            part.parts
            for lines in self.lines.values()
            for line in lines
            for part in line
            if isinstance(part, Bracket)
        ]
        return tuple(
            word
            for parts in brackets
            if any(isinstance(p, Named) and p.component == component for p in parts)
            for part in parts
            if isinstance(part, Quoted)
            for word in tokens(part.text)
        )

    def region_by_code(self, code: str) -> Region | None:
        """The region with an ISO 3166-2 code (the part after the hyphen), in any case."""
        wanted = code.strip().upper()
        return next((r for r in self.regions if r.code.upper() == wanted), None)

    def region_by_name(self, name: str) -> Region | None:
        """The region with a name, in its own or in Latin letters, in any case."""
        wanted = name.strip().casefold()
        return next(
            (r for r in self.regions if wanted in (r.name.casefold(), r.latin.casefold())), None
        )


def _component_names(parts: Iterable[Part]) -> list[str]:
    """The components that a line names, in order."""
    found: list[str] = []
    for part in parts:
        if isinstance(part, Named):
            found.append(part.component)
        elif isinstance(part, Bracket):
            found += _component_names(part.parts)
    return found
