"""What a slot is filled from: the same on forms, and on pages and programs that are not ours."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import NamedTuple

from anchorline.core.address import Address, component_problems
from anchorline.core.allowance import Allowance, AllowanceUsedUpError
from anchorline.core.checking import components_from_text, number_left_over
from anchorline.core.errors import Problem, unknown_name_detail
from anchorline.core.faults import Faults
from anchorline.core.forms import Form, Slot
from anchorline.core.forms.address_values import address_value, formula_facts
from anchorline.core.forms.public import read_public
from anchorline.core.forms.receiving import fill_slot
from anchorline.core.formula import AddressValue, today
from anchorline.core.layouts import Layout, LayoutLibrary, check_components, complete_region
from anchorline.core.mapping import Fill, KnownAddress
from anchorline.core.practice import is_practice

from .caller import Caller
from .errors import InvalidError, TooManyError
from .records.links import finder_of_records
from .services import Services


@dataclass(frozen=True, slots=True)
class WantedFill:
    """From which one source a slot is to be filled.

    Attributes:
        address_id: an address.
        group_id: a suggestion that stands for several addresses: what they share is filled.
        components: any components.
        typed: beside a group, what was typed to find it; alone, a text to take apart.
        country_code: of what was typed alone.
        capture: names one capture, within which an address counts once.
    """

    address_id: str | None = None
    group_id: str | None = None
    components: Mapping[str, str] | None = None
    typed: str | None = None
    country_code: str | None = None
    capture: str | None = None


@dataclass(frozen=True, slots=True)
class FilledFrom:
    """What a filling did, and what it was made from.

    Attributes:
        notes: what in the components does not fit their country's layout.
        address: of one address that was picked, with how formulas have it.
    """

    fill: Fill
    notes: Sequence[str]
    address: tuple[Address, AddressValue] | None


class Source(NamedTuple):
    """What a slot is filled from."""

    known: KnownAddress
    notes: Sequence[str] = ()
    address: tuple[Address, AddressValue] | None = None


def fill(
    services: Services,
    caller: Caller,
    form: Form,
    slot: Slot,
    wanted: WantedFill,
    values: Mapping[str, object],
    layouts: LayoutLibrary,
) -> FilledFrom:
    """What one source puts into the fields of a slot.

    Args:
        values: the form's values so far.
        layouts: those that hold where the slot stands.

    Raises:
        InvalidError: it names what there is not.
        TooManyError: the caller may fetch no more addresses.
    """
    source = source_of(services, caller, slot, wanted, layouts)
    filled = fill_slot(form, slot, source.known, values, finder_of_records(services, caller, form))
    return FilledFrom(filled, source.notes, source.address)


def source_of(
    services: Services, caller: Caller, slot: Slot, wanted: WantedFill, layouts: LayoutLibrary
) -> Source:
    """What the one source comes to.

    Raises:
        InvalidError: it names what there is not.
        TooManyError: the caller may fetch no more addresses.
    """
    gazetteer = services.gazetteer.having(wanted.address_id or wanted.group_id or "")
    if wanted.address_id is not None:
        found = gazetteer.address(wanted.address_id)
        if found is None:
            raise _invalid("/address_id", f"There is no address {wanted.address_id!r}.")
        address = found[0]
        count_address(services, caller, address.id, wanted.capture)
        layout = layouts.require(address.country_code)
        components = complete_region(layout, address.components)
        known = KnownAddress.of(address, layouts, today(services.database.now()))
        notes = reference_notes(layout, components)
        return Source(known, notes, (address, address_value(layout, components)))
    if wanted.group_id is not None:
        shared = gazetteer.group(wanted.group_id)
        if shared is None:
            raise _invalid("/group_id", f"There is no group {wanted.group_id!r}.")
        layout = layouts.require(shared["country_code"])
        if wanted.typed and "number" not in shared:
            shared["number"] = number_left_over(layout, wanted.typed, shared)
        return _unpicked(services, complete_region(layout, shared), layout)
    if wanted.components is not None:
        extras = {name for code in slot.countries for name in layouts.require(code).extras}
        problems = component_problems(dict(wanted.components), "/components", extras)
        if problems:
            raise InvalidError(problems)
        code = wanted.components.get("country_code", "").upper()
        layout = layouts.get(code) or layouts.require(slot.countries[0])
        return _unpicked(services, wanted.components, layout)
    country = (wanted.country_code or slot.only_country or "").upper()
    if not country:
        detail = f"Say of which country this is: one of {', '.join(slot.countries)}."
        raise _invalid("/country_code", detail)
    if country not in slot.countries:
        detail = unknown_name_detail("country of this slot", country, slot.countries)
        raise _invalid("/country_code", detail)
    layout = layouts.require(country)
    return _unpicked(services, components_from_text(layout, wanted.typed or ""), layout)


def reference_notes(layout: Layout, components: Mapping[str, str]) -> list[str]:
    """What in an address of the reference data does not fit its country's layout, in sentences.

    It is no reason to refuse the address: who picked it cannot help it.
    """
    _canonical, problems = check_components(layout, components)
    return [f"{problem.detail} The reference data has it so." for problem in problems]


def count_address(services: Services, caller: Caller, fetched: str, capture: str | None) -> None:
    """Counts an address for whoever asked for it; practice addresses cost nothing.

    Args:
        fetched: its id, or another name for what was fetched.

    Raises:
        TooManyError: the allowance of the key or the public page is used up.
    """
    if is_practice(fetched):
        return
    allowance = allowance_of_page(services, caller.form) if caller.form else caller.allowance
    try:
        services.address_uses.count(caller.subject, fetched, capture, allowance)
    except AllowanceUsedUpError as error:
        raise TooManyError(str(error)) from None


def allowance_of_page(services: Services, form: str) -> Allowance:
    """What the public page of a form may fetch, as its version in force says."""
    document, _version = services.published_forms.version(form)
    return read_public(document, Faults()).allowance


def facts_of(address: Address) -> dict[str, str]:
    """The facts of an address as formulas have them."""
    return formula_facts(address.facts, address.id)


def _unpicked(services: Services, components: Mapping[str, str], layout: Layout) -> Source:
    day = today(services.database.now())
    return Source(KnownAddress(components, layout, layouts=services.layouts, current_day=day))


def _invalid(pointer: str, detail: str) -> InvalidError:
    return InvalidError([Problem(pointer, detail)])
