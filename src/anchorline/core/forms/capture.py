"""What address a submitted form captured in each slot, and what was changed by hand."""

from __future__ import annotations

from collections.abc import Mapping

from ..address import (
    COMPONENT_SET,
    Address,
    Components,
    Facts,
    escape_pointer,
    normalize_components,
)
from ..errors import Problem, nearest_names, unknown_name_detail
from ..formula import AddressValue
from ..layouts import Layout, check_components
from ..mapping import KnownAddress, owned
from ..mapping.back import back
from ..said import said
from .address_values import address_value, formula_facts
from .captured import Captured, Reference, SlotInput
from .logic import Worked, formulas_of
from .model import Form, Slot
from .position import kept_position
from .receiving import fill_slot, receivers_of
from .values import Values

# What is kept as the country spells it, however it was typed.
_SPELT_BY_THE_COUNTRY = frozenset({"postcode", "region", "region_code"})


def slot_addresses(
    form: Form,
    values: Values,
    inputs: Mapping[str, SlotInput],
    reference: Reference,
) -> dict[str, AddressValue]:
    """The addresses that formulas speak of, shown or not, as they have them; none if faulty."""
    wanted = {
        key for item in form.order for _, f in formulas_of(form.item(item)) for key in f.slots
    }
    found: dict[str, AddressValue] = {}
    for slot in form.slots:
        if slot.key not in wanted:
            continue
        given = inputs.get(slot.key, SlotInput())
        captured, _faults = _capture(form, slot, dict(values), given, reference, needed=False)
        if captured is not None:
            pin = captured.position
            place = pin if pin is not None and pin.source == "pin" else captured.facts
            found[slot.key] = address_value(
                reference.layouts.require(captured.country_code),
                captured.components,
                latitude=place.latitude,
                longitude=place.longitude,
                picked=captured.address_id is not None,
                facts=formula_facts(captured.facts, captured.address_id or ""),
            )
    return found


def capture_slots(
    form: Form,
    values: Values,
    inputs: Mapping[str, SlotInput],
    reference: Reference,
    worked: Worked,
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
        is_shown = slot.key in worked.shown
        if not is_shown and not (form.keeps_hidden and slot.key in inputs):
            continue
        given = inputs.get(slot.key, SlotInput())
        needed = slot.key in worked.needed
        one, faults = _capture(form, slot, values, given, reference, needed=needed)
        if not is_shown:  # nobody could mend it: what is wrong with it is left as it is
            faults = []
        problems += faults
        if one is not None:
            captured.append(one)
    return captured, problems


def _capture(
    form: Form,
    slot: Slot,
    values: Values,
    given: SlotInput,
    reference: Reference,
    *,
    needed: bool,
) -> tuple[Captured | None, list[Problem]]:
    pointer = f"/slots/{escape_pointer(slot.key)}"
    found = reference.find(given.address_id) if given.address_id else None
    if given.address_id and found is None:
        detail = f"There is no address {given.address_id!r}; pick it again or leave it out."
        return None, [Problem(f"{pointer}/address_id", detail)]
    address, edition = found or (None, None)
    country = _country(slot, values, given, address)
    if country is None:
        detail = f"Say of which country the address is: one of {', '.join(slot.countries)}."
        return None, [Problem(f"{pointer}/country_code", detail)]
    if country not in slot.countries:
        detail = unknown_name_detail("country of this slot", country, slot.countries)
        return None, [Problem(f"{pointer}/country_code", detail)]
    if address is not None and address.country_code != country:
        detail = f"The address {address.id!r} is in {address.country_code}, not in {country}."
        return None, [Problem(f"{pointer}/address_id", detail)]
    layout = reference.layouts.require(country)
    components, changed = _components(form, slot, values, address, layout, reference)
    edited = {part.component for part in slot.parts if part.key in changed}
    if not components:
        if needed:
            sentence = "{label}: an address is needed."
            return None, [Problem(pointer, said("address_needed", sentence, label=slot.label))]
        return None, []
    components["country_code"] = country
    components["country"] = layout.name
    if address is None or edited & {"region", "region_code"}:
        components = _with_asked_region(layout, components)
    canonical, faults = check_components(layout, components)
    if address is not None:
        faults = [fault for fault in faults if fault.pointer in edited]
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
            kept_position(given.position, slot.settings, facts),
        ),
        problems,
    )


def _country(slot: Slot, values: Values, given: SlotInput, address: Address | None) -> str | None:
    """The country that was named, or that can be meant only; None where that is open."""
    if given.country_code:
        return given.country_code.upper()
    if address is not None:
        return address.country_code
    if slot.only_country or any(values.get(part.key) for part in slot.parts):
        return slot.only_country
    return slot.countries[0]  # nothing was given, so any will do


def _components(
    form: Form,
    slot: Slot,
    values: Values,
    address: Address | None,
    layout: Layout,
    reference: Reference,
) -> tuple[Components, list[str]]:
    """The address as the form's fields have it, and the fields that filling wrote otherwise."""
    typed = {
        part.component: str(values.get(part.key, ""))
        for part in slot.parts
        if part.component in COMPONENT_SET or part.component in layout.extras
    }
    if address is None:
        read = _read_from_lines(form, slot, values, layout)
        given = {name: text for name, text in typed.items() if text.strip()}
        return normalize_components({**read, **given}, layout.extras), []
    picked = KnownAddress.of(address, reference.layouts, reference.current_day)
    filled = fill_slot(form, slot, picked).values
    changed = [
        key
        for key, text in filled.items()
        if str(values.get(key, "")) != text and form.field(key).type != "link"
    ]
    extras = {name: text for name, text in typed.items() if name in layout.extras}
    edited = {
        part.component: typed[part.component]
        for part in slot.parts
        if part.key in changed and part.component in typed
    }
    known = {**picked.components, **extras, **edited}
    return normalize_components(known, layout.extras), changed


def _read_from_lines(form: Form, slot: Slot, values: Values, layout: Layout) -> Components:
    """What fields of a slot that stand for no component say of the address: its lines, typed."""
    lines = {part.key for part in slot.parts if part.component is None}
    there = {key: str(values[key]) for key in owned(slot.mapping) if values.get(key)}
    if not lines & there.keys():
        return {}
    own = {part.key for part in slot.parts}
    mapping = [rule for rule in slot.mapping if set(rule.into) <= own]
    return back(mapping, receivers_of(form), there, layout).components


def _with_asked_region(layout: Layout, components: Components) -> Components:
    """Components in which a region's name and code are of one region: of the one asked for.

    The other one stands in a field that nobody sees, and so it may be of an earlier address.
    """
    code, name = components.get("region_code", ""), components.get("region", "")
    by_code = layout.region_by_code(code) if layout.component("region_code") else None
    by_name = layout.region_by_name(name) if layout.component("region") else None
    if by_code is not None and layout.region_by_name(name) is not by_code:
        return {**components, "region": by_code.name}
    if by_code is None and by_name is not None and layout.region_by_code(code) is not by_name:
        return {**components, "region_code": by_name.code}
    return components


def _placed(slot: Slot, layout: Layout, faults: list[Problem]) -> list[Problem]:
    """Problems of components as problems of the fields that hold them."""
    parts = {part.component: part for part in slot.parts if part.component}
    placed = []
    for fault in faults:
        part = parts.get(fault.pointer)
        if part is not None:
            placed.append(Problem(f"/values/{escape_pointer(part.key)}", fault.detail))
        elif any(part.component for part in slot.parts) and layout.component(fault.pointer):
            continue  # the form does not ask for this component: its administrator's choice
    return placed


def _write_back(slot: Slot, canonical: Components, values: Values) -> None:
    for part in slot.parts:
        name = part.component
        if name in _SPELT_BY_THE_COUNTRY and values.get(part.key) and name in canonical:
            values[part.key] = canonical[name]
