"""What address a submitted form captured in each slot, and what was changed by hand."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass

from ..address import COMPONENT_SET, Address, Components, Facts, escape_pointer, tidy_components
from ..errors import Problem, nearest_names, unknown_name_detail
from ..layouts import Layout, LayoutLibrary, check_components
from ..mapping.fill import fill_slot
from .model import Form, Slot
from .values import Values
from .visibility import is_shown


@dataclass(frozen=True, slots=True)
class SlotInput:
    """What comes with a submitted form for one slot beside the values of its fields.

    Attributes:
        country_code: the country that was chosen; None for the slot's own.
        address_id: the address that was picked; None where it was typed in by hand.
        typed: what was typed into the finder.
    """

    country_code: str | None = None
    address_id: str | None = None
    typed: str = ""


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


# From an address id to the address and the name of its edition, or None.
FindAddress = Callable[[str], tuple[Address, str] | None]


def capture_slots(
    form: Form,
    values: Values,
    inputs: Mapping[str, SlotInput],
    layouts: LayoutLibrary,
    find: FindAddress,
) -> tuple[list[Captured], list[Problem]]:
    """The captured addresses of the slots that are shown and filled, and the problems.

    Canonical spellings (a postcode's) are written back into `values`.
    """
    keys = [slot.key for slot in form.slots]
    problems = [
        Problem(
            f"/slots/{escape_pointer(key)}",
            unknown_name_detail("slot", key, nearest_names(key, keys)),
        )
        for key in inputs
        if key not in keys
    ]
    captured: list[Captured] = []
    for slot in form.slots:
        if not is_shown(form, slot, values):
            continue
        one, faults = _capture(form, slot, values, inputs.get(slot.key, SlotInput()), layouts, find)
        problems += faults
        if one is not None:
            captured.append(one)
    return captured, problems


def _capture(
    form: Form,
    slot: Slot,
    values: Values,
    given: SlotInput,
    layouts: LayoutLibrary,
    find: FindAddress,
) -> tuple[Captured | None, list[Problem]]:
    pointer = f"/slots/{escape_pointer(slot.key)}"
    country = (given.country_code or slot.country).upper()
    if country not in slot.countries:
        detail = unknown_name_detail("country of this slot", country, slot.countries)
        return None, [Problem(f"{pointer}/country_code", detail)]
    found = find(given.address_id) if given.address_id else None
    if given.address_id and found is None:
        detail = f"There is no address {given.address_id!r}; pick it again or leave it out."
        return None, [Problem(f"{pointer}/address_id", detail)]
    address, edition = found or (None, None)
    if address is not None and address.country_code != country:
        detail = f"The address {address.id!r} is in {address.country_code}, not in {country}."
        return None, [Problem(f"{pointer}/address_id", detail)]
    layout = layouts.require(country)
    components, changed = _components(form, slot, values, address, layout)
    if not components:
        if slot.required:
            first = slot.parts[0].key if slot.parts else slot.key
            detail = f"{slot.label}: an address is needed."
            return None, [Problem(f"/values/{escape_pointer(first)}", detail)]
        return None, []
    components["country_code"] = country
    components["country"] = layout.name
    canonical, faults = check_components(layout, components)
    problems = _placed(slot, layout, faults)
    if not problems:
        _write_back(slot, canonical, values)
    facts = address.facts if address is not None else Facts()
    identifier = address.id if address is not None else None
    return (
        Captured(
            slot.key,
            country,
            canonical,
            facts,
            identifier,
            edition,
            given.typed,
            tuple(changed),
            layout.stamp,
        ),
        problems,
    )


def _components(
    form: Form, slot: Slot, values: Values, address: Address | None, layout: Layout
) -> tuple[Components, list[str]]:
    """The address as the form's fields have it, and the fields that filling wrote otherwise."""
    typed = {
        part.component: str(values.get(part.key, ""))
        for part in slot.parts
        if part.component in COMPONENT_SET or part.component in layout.extras
    }
    if address is None:
        return tidy_components(typed, layout.extras), []
    filled = fill_slot(form, slot, address.components, {}).values
    changed = [key for key, text in filled.items() if str(values.get(key, "")) != text]
    extras = {name: text for name, text in typed.items() if name in layout.extras}
    edited = {
        part.component: typed[part.component]
        for part in slot.parts
        if part.key in changed and part.component in typed
    }
    return tidy_components({**address.components, **extras, **edited}, layout.extras), changed


def _placed(slot: Slot, layout: Layout, faults: list[Problem]) -> list[Problem]:
    """Problems of components as problems of the fields that hold them."""
    parts = {part.component: part for part in slot.parts if part.component}
    placed = []
    for fault in faults:
        part = parts.get(fault.pointer)
        if part is not None:
            placed.append(Problem(f"/values/{escape_pointer(part.key)}", fault.detail))
        elif any(part.component for part in slot.parts) and layout.asks_for(fault.pointer):
            continue  # the form does not ask for this component: its administrator's choice
    return placed


def _write_back(slot: Slot, canonical: Components, values: Values) -> None:
    for part in slot.parts:
        if part.component == "postcode" and values.get(part.key) and "postcode" in canonical:
            values[part.key] = canonical["postcode"]
