"""The layout model: the components of a country's addresses, their order, and the lines."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass, field

from ..address import COMPONENT_SET
from ..kinds import Confidence
from ..text import fold, tokens
from .names import LANGUAGES_OF_MAIL, country_name
from .notation import Bracket, Line, Named, Part, Quoted


@dataclass(frozen=True, slots=True)
class Region:
    """A state, province, county or prefecture.

    Attributes:
        code: ISO 3166-2, the part after the hyphen.
        name: the name as mail uses it.
        latin: the name in Latin letters where `name` is not, else the same.
        also: other names that people know it by.
        postcodes: what its postcodes begin with: `900-961`, `10`; empty where that does not tell.
    """

    code: str
    name: str
    latin: str
    also: tuple[str, ...] = ()
    postcodes: tuple[str, ...] = ()


@dataclass(frozen=True, slots=True)
class LayoutComponent:
    """One component that a layout asks for.

    Attributes:
        component: its name.
        labels: label by BCP 47 language; `en` is always there.
        required: whether an address without it is incomplete.
        added: an administrator's own layout asks for it, the shipped one does not. Its name may
            then be one of the layout's own (an *extra*: a delivery note) beside the components.
    """

    component: str
    labels: dict[str, str]
    required: bool = False
    added: bool = False

    def label(self, language: str) -> str:
        """The label in a language, by its full tag, its first part, or in English."""
        return self.labels.get(language) or self.labels.get(
            language.split("-")[0], self.labels["en"]
        )


@dataclass(frozen=True, slots=True)
class OwnStep:
    """An administrator's own layout that had a say in a layout.

    Attributes:
        key: of the own layout.
        title: what its administrator calls it.
        version: its published version; None for a draft.
        of_form: whether it is there for named forms, not for the country everywhere.
    """

    key: str
    title: str
    version: int | None
    of_form: bool


@dataclass(frozen=True, slots=True)
class Layout:
    """A country's layout.

    Attributes:
        country_code: ISO 3166-1 alpha-2.
        names: names by BCP 47 language where CLDR's is not what mail is addressed to.
        languages: languages of the country, the commonest first.
        components: in the order of asking.
        masks: postcode patterns, alternatives to one another; empty where there are none.
        regions: regions that mail uses; empty where it uses none.
        lines: the domestic lines by ISO 15924 script; the key `""` is the default.
        called_unit: the line with street, number and unit where the unit says what it is (`Flat 3`
            and not `3`); empty where that makes no difference.
        version: counts the published states of this layout, from 1.
        source: where the facts come from.
        confidence: how sure these are.
        post_of: the country whose post it uses, and whose layout it inherits; empty for its own.
        postcode_starts: what every postcode begins with; empty where that is open.
        never_first: letters that no postcode begins with.
        postcode_prefixes: what people put before postcodes that does not belong to them.
        box: south, west, north and east of the country, in rounded degrees; west is greater than
            east where it lies across the 180th meridian. None where it is not known.
        hidden: components that an own layout took out of what is asked for.
        own: the own layouts that had a say in it, the strongest first; empty as shipped.
    """

    country_code: str
    names: dict[str, str]
    languages: tuple[str, ...]
    components: tuple[LayoutComponent, ...]
    masks: tuple[str, ...]
    regions: tuple[Region, ...]
    lines: dict[str, tuple[Line, ...]]
    called_unit: Line = ()
    version: int = 1
    source: str = ""
    confidence: Confidence = "sure"
    post_of: str = ""
    postcode_starts: tuple[str, ...] = ()
    postcode_prefixes: tuple[str, ...] = ()
    never_first: str = ""
    box: tuple[float, float, float, float] | None = None
    hidden: tuple[str, ...] = ()
    own: tuple[OwnStep, ...] = ()
    _components_by_name: dict[str, LayoutComponent] = field(init=False, repr=False, compare=False)
    _regions_by_code: dict[str, Region] = field(init=False, repr=False, compare=False)
    _regions_by_name: dict[str, Region] = field(init=False, repr=False, compare=False)

    def __post_init__(self) -> None:
        """Lays out what is looked up for every address."""
        by_name: dict[str, Region] = {}
        for region in self.regions:
            for name in (region.name, region.latin, *region.also):
                by_name.setdefault(fold(name), region)
        object.__setattr__(self, "_components_by_name", {a.component: a for a in self.components})
        object.__setattr__(self, "_regions_by_code", {r.code.upper(): r for r in self.regions})
        object.__setattr__(self, "_regions_by_name", by_name)

    @property
    def name(self) -> str:
        """The country's name in English."""
        return self.name_in("en")

    def name_in(self, language: str) -> str:
        """The country's name in a language (BCP 47), in English where there is none."""
        own = self.names.get(language) or self.names.get(language.split("-")[0])
        return own or country_name(self.country_code, language) or self.name_in("en")

    def first_language(self, wanted: Iterable[str]) -> str:
        """The first of some languages (BCP 47) that labels are in, as it was asked for; else `en`.

        `fr-BE` is one where labels are in `fr`.
        """
        there = {language for entry in self.components for language in entry.labels}
        tags = [tag.strip() for tag in wanted]
        return next((tag for tag in tags if {tag, tag.split("-")[0]} & there), "en")

    def known_names(self) -> list[str]:
        """The names that mail to the country is addressed by."""
        return list(dict.fromkeys(map(self.name_in, (*LANGUAGES_OF_MAIL, *self.languages))))

    def component(self, component: str) -> LayoutComponent | None:
        """The layout's entry for a component, or None where the country does not use it."""
        return self._components_by_name.get(component)

    @property
    def extras(self) -> frozenset[str]:
        """Names that an own layout asks for beside the components."""
        return frozenset(self._components_by_name) - COMPONENT_SET

    @property
    def stamp(self) -> str:
        """Which published states it consists of: `letters@2`; empty as shipped."""
        return " + ".join(f"{step.key}@{step.version}" for step in self.own)

    @property
    def number_first(self) -> bool:
        """Whether the street's number is written before its name."""
        for lines in self.lines.values():
            for line in lines:
                names = component_names(line)
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
        return self._regions_by_code.get(code.strip().upper())

    def region_by_name(self, name: str) -> Region | None:
        """The region that is known by a name, however it is cased or accented."""
        return self._regions_by_name.get(fold(name))


def component_names(parts: Iterable[Part]) -> list[str]:
    """The components that a line names, in order."""
    found: list[str] = []
    for part in parts:
        if isinstance(part, Named):
            found.append(part.component)
        elif isinstance(part, Bracket):
            found += component_names(part.parts)
    return found
