"""The address of a slot: as it is sent, as it is kept, and what it is checked against."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import NamedTuple

from ..address import Address, Components, Facts
from ..layouts import LayoutLibrary
from ..mapping import KnownAddress
from .position import Position


@dataclass(frozen=True, slots=True)
class SlotInput:
    """What comes with a submitted form for one slot beside the values of its fields.

    Attributes:
        country_code: the country that was chosen; None: the picked address's, or the slot's own.
        address_id: the address that was picked; None where it was typed in by hand.
        typed: what was typed into the finder.
        position: of a pin that was moved, or of the person; None where neither was sent.
    """

    country_code: str | None = None
    address_id: str | None = None
    typed: str = ""
    position: Position | None = None


@dataclass(frozen=True, slots=True)
class Captured:
    """The address captured in one slot.

    Attributes:
        slot: the slot's key.
        country_code: ISO 3166-1 alpha-2.
        components: the address, canonical, with what was changed by hand.
        facts: of the picked address.
        address_id: of the picked address, or None.
        edition: dataset and number of the edition it came from, or None.
        typed: what was typed into the finder.
        changed: keys of the fields whose value is not what filling wrote.
        layout: the own layouts it was captured with and their versions; empty as shipped.
        position: of a pin that was moved, or of the person.
    """

    slot: str
    country_code: str
    components: Components
    facts: Facts
    address_id: str | None
    edition: str | None
    typed: str
    changed: tuple[str, ...]
    layout: str = ""
    position: Position | None = None

    def known(self, layouts: LayoutLibrary, current_day: int) -> KnownAddress:
        """What a mapping is filled from again."""
        return KnownAddress(
            self.components,
            layouts.require(self.country_code),
            self.facts,
            self.address_id or "",
            layouts=layouts,
            current_day=current_day,
        )


# From an address id to the address and the name of its edition, or None.
FindAddress = Callable[[str], tuple[Address, str] | None]


class Reference(NamedTuple):
    """What a submitted form is checked against.

    Attributes:
        layouts: those that hold on the form.
        find: from an address id to the address and its edition's name.
        current_day: serial number of today.
    """

    layouts: LayoutLibrary
    find: FindAddress
    current_day: int
