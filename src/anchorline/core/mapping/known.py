"""An address with what is known of it: what a mapping is filled from."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from functools import cached_property

from ..address import COMPONENTS, Address, Facts
from ..formula import Given, Names, Value
from ..layouts import Layout, LayoutLibrary, complete_region, one_line, write_lines


class KnownAddress:
    """An address with what is known of it.

    Attributes:
        components: without empty ones.
        identifier: of a picked address; empty where it was typed, or taken as far as it goes.
        layout: of its country.
        layouts: of all countries; None where no other one is needed.
        current_day: serial number of today, for formulas.
    """

    def __init__(
        self,
        components: Mapping[str, str],
        layout: Layout,
        facts: Facts | None = None,
        identifier: str = "",
        *,
        layouts: LayoutLibrary | None = None,
        current_day: int = 0,
    ) -> None:
        there = {name: text.strip() for name, text in components.items() if text.strip()}
        if there:  # whoever names a part of an address has named its country with the layout
            there = {"country": layout.name, "country_code": layout.country_code} | there
        self.components = there
        self.layout, self.layouts = layout, layouts
        self.facts, self.identifier = facts or Facts(), identifier
        self.current_day = current_day

    @classmethod
    def of(cls, address: Address, layouts: LayoutLibrary, current_day: int = 0) -> KnownAddress:
        """An address of the reference data as a mapping is filled from it."""
        layout = layouts.require(address.country_code)
        return cls(
            complete_region(layout, address.components),
            layout,
            address.facts,
            address.id,
            layouts=layouts,
            current_day=current_day,
        )

    @property
    def is_empty(self) -> bool:
        """Whether nothing but a country is known."""
        return self.components.keys() <= {"country", "country_code"}

    def fact(self, name: str) -> str:
        """A fact of FACTS as a text; empty where it is not known."""
        return "" if self.is_empty else FACTS[name](self)

    @cached_property
    def given(self) -> Given:
        """What formulas of a mapping are worked out from: components and facts by their names."""
        values: dict[str, Value] = dict(self.components)
        values |= {
            "latitude": self.facts.latitude,
            "longitude": self.facts.longitude,
            "use": self.facts.use,
            "languages": FACTS["languages"](self) or None,
            "id": self.identifier or None,
        }
        return Given(values, {}, self.current_day)


def _degrees(value: float | None) -> str:
    return "" if value is None else f"{value:.6f}".rstrip("0").rstrip(".")


# Each is a text of an address, empty where it is not known.
FACTS: dict[str, Callable[[KnownAddress], str]] = {
    "latitude": lambda known: _degrees(known.facts.latitude),
    "longitude": lambda known: _degrees(known.facts.longitude),
    "use": lambda known: known.facts.use or "",
    "languages": lambda known: ", ".join(known.facts.languages),
    "id": lambda known: known.identifier,
    "line": lambda known: one_line(known.layout, known.components),
    "lines": lambda known: "\n".join(write_lines(known.layout, known.components)),
}
_TEXT, _NUMBER = frozenset({"text", "empty"}), frozenset({"number", "empty"})
# What the formulas of a mapping may speak of.
FORMULA_NAMES = Names(
    dict.fromkeys((*COMPONENTS, "use", "languages", "id"), _TEXT)
    | dict.fromkeys(("latitude", "longitude"), _NUMBER)
)
