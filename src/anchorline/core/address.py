"""Components, facts and the address made of them.

The list of components is closed: every part of Anchorline spells them this way
(ISO 19160-4 and UPU S42 terms where those have a short one). An address holds only
the components it has; an absent component and an empty one are the same thing.
"""

from __future__ import annotations

from collections.abc import Collection, Iterable, Mapping
from dataclasses import dataclass, field

from .errors import Problem, UnknownNameError, nearest_names, unknown_name_detail

COMPONENTS: tuple[str, ...] = (
    "recipient",
    "organisation",
    "place",
    "unit",
    "building",
    "number",
    "street",
    "po_box",
    "district",
    "town",
    "region",
    "region_code",
    "nation",
    "postcode",
    "country",
    "country_code",
)
COMPONENT_SET = frozenset(COMPONENTS)
USES: tuple[str, ...] = ("residential", "business", "mixed", "public")

Components = dict[str, str]


@dataclass(frozen=True, slots=True)
class Facts:
    """What is known of an address beside its components.

    Attributes:
        latitude: WGS 84 degrees north, or None.
        longitude: WGS 84 degrees east, or None.
        use: one of `USES`, or None.
        languages: BCP 47 tags of the languages the components are written in.
    """

    latitude: float | None = None
    longitude: float | None = None
    use: str | None = None
    languages: tuple[str, ...] = ()


@dataclass(frozen=True, slots=True)
class Address:
    """One address: `id` is unique in its gazetteer; `components` holds no empty values."""

    id: str
    components: Components
    facts: Facts = field(default_factory=Facts)

    @property
    def country_code(self) -> str:
        """ISO 3166-1 alpha-2."""
        return self.components["country_code"]


def require_component(name: str) -> str:
    """Returns `name` if it is a component.

    Raises:
        UnknownNameError: it is not; carries the nearest component names.
    """
    if name not in COMPONENT_SET:
        raise UnknownNameError("component", name, COMPONENTS)
    return name


def component_problems(
    names: Iterable[str], pointer: str, extras: Collection[str] = ()
) -> list[Problem]:
    """A problem for each name that is no component nor one of `extras`, at `pointer`/name."""
    return [
        Problem(
            f"{pointer}/{escape_pointer(name)}",
            unknown_name_detail("component", name, nearest_names(name, [*COMPONENTS, *extras])),
        )
        for name in names
        if name not in COMPONENT_SET and name not in extras
    ]


def normalize_components(raw: Mapping[str, str], extras: Collection[str] = ()) -> Components:
    """Components in their fixed order, white space folded, empty ones left out.

    Args:
        raw: as somebody gave them.
        extras: names that a layout asks for beside the components; they come last.

    Raises:
        UnknownNameError: a key is neither a component nor one of `extras`.
    """
    for name in raw:
        if name not in extras:
            require_component(name)
    names = [*COMPONENTS, *sorted(extras)]
    normalized = {name: " ".join(raw[name].split()) for name in names if name in raw}
    return {name: value for name, value in normalized.items() if value}


def escape_pointer(part: str) -> str:
    """One reference token of a JSON pointer, escaped as RFC 6901 section 3 says."""
    return part.replace("~", "~0").replace("/", "~1")
