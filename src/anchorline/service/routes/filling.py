"""What a slot is filled from, and the answer: the same on forms and on pages that are not ours."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import NamedTuple

from anchorline.core.address import Address, Components
from anchorline.core.allowance import Allowance, AllowanceUsedUpError
from anchorline.core.checking import components_from_text, number_left_over
from anchorline.core.errors import Problem, unknown_name_detail
from anchorline.core.faults import Faults
from anchorline.core.forms import Slot
from anchorline.core.forms.address_values import address_value, formula_facts
from anchorline.core.forms.public import read_public
from anchorline.core.formula import today
from anchorline.core.layouts import Layout, LayoutLibrary, complete_region
from anchorline.core.mapping import Fill, KnownAddress
from anchorline.core.practice import is_practice
from anchorline.wire.filling import FillAnswer, FilledAddress, FillRequest, TraceEntry

from ..context import Services
from ..endpoints import ApiRequest
from ..problems import ProblemError, invalid
from .layouts import reference_notes, require_components


def fill_answer(
    filled: Fill, notes: Sequence[str] = (), address: FilledAddress | None = None
) -> FillAnswer:
    """What a filling did, as it is answered."""
    return FillAnswer(
        values=filled.values,
        labels=filled.labels,
        cleared=filled.cleared,
        warnings=[*(one.detail for one in filled.warnings), *notes],
        trace=[
            TraceEntry(
                kind=step.kind,
                field=step.field,
                components=list(step.sources),
                detail=step.detail,
                rule=step.rule,
                text=step.text,
            )
            for step in filled.trace
        ],
        address=address,
    )


def count_address(request: ApiRequest, fetched: str, capture: str | None) -> None:
    """Counts an address for whoever asked for it; practice addresses cost nothing.

    Args:
        fetched: its id, or another name for what was fetched.

    Raises:
        ProblemError: 429 where the allowance of the key or the public page is used up.
    """
    if is_practice(fetched):
        return
    caller = request.caller
    allowance = (
        allowance_of_page(request.services, caller.form) if caller.form else caller.allowance
    )
    try:
        request.services.address_uses.count(caller.subject, fetched, capture, allowance)
    except AllowanceUsedUpError as error:
        raise ProblemError(429, str(error)) from None


def allowance_of_page(services: Services, form: str) -> Allowance:
    """What the public page of a form may fetch, as its version in force says."""
    document, _version = services.published_forms.version(form)
    return read_public(document, Faults()).allowance


class FillSource(NamedTuple):
    """What a slot is filled from.

    Attributes:
        notes: what in the components does not fit their country's layout.
        address: of one address that was picked.
    """

    known: KnownAddress
    notes: list[str]
    address: FilledAddress | None = None


def _filled_address(address: Address, layout: Layout, components: Components) -> FilledAddress:
    value = address_value(layout, components)
    return FilledAddress(
        components=dict(value.components),
        line=value.line,
        lines=list(value.lines),
        latitude=address.facts.latitude,
        longitude=address.facts.longitude,
        facts=formula_facts(address.facts, address.id),
    )


def what_to_fill(
    request: ApiRequest, slot: Slot, body: FillRequest, layouts: LayoutLibrary
) -> FillSource:
    """What the one source of a request comes to; 422 where it names what there is not.

    Args:
        layouts: those that hold where the slot stands.
    """
    gazetteer = request.services.gazetteer.having(body.address_id or body.group_id or "")
    if body.address_id is not None:
        found = gazetteer.address(body.address_id)
        if found is None:
            raise invalid([Problem("/address_id", f"There is no address {body.address_id!r}.")])
        address = found[0]
        count_address(request, address.id, body.capture)
        layout = layouts.require(address.country_code)
        components = complete_region(layout, address.components)
        picked = _filled_address(address, layout, components)
        known = KnownAddress.of(address, layouts, today(request.services.database.now()))
        return FillSource(known, reference_notes(layout, components), picked)
    if body.group_id is not None:
        shared = gazetteer.group(body.group_id)
        if shared is None:
            raise invalid([Problem("/group_id", f"There is no group {body.group_id!r}.")])
        layout = layouts.require(shared["country_code"])
        if body.typed and "number" not in shared:
            shared["number"] = number_left_over(layout, body.typed, shared)
        return _unpicked(request, complete_region(layout, shared), layout)
    if body.components is not None:
        extras = {name for code in slot.countries for name in layouts.require(code).extras}
        require_components(body.components, "/components", extras)
        code = body.components.get("country_code", "").upper()
        return _unpicked(
            request, body.components, layouts.get(code) or layouts.require(slot.countries[0])
        )
    country = (body.country_code or slot.only_country or "").upper()
    if not country:
        detail = f"Say of which country this is: one of {', '.join(slot.countries)}."
        raise invalid([Problem("/country_code", detail)])
    if country not in slot.countries:
        detail = unknown_name_detail("country of this slot", country, slot.countries)
        raise invalid([Problem("/country_code", detail)])
    layout = layouts.require(country)
    return _unpicked(request, components_from_text(layout, body.typed or ""), layout)


def _unpicked(request: ApiRequest, components: Mapping[str, str], layout: Layout) -> FillSource:
    services = request.services
    day = today(services.database.now())
    known = KnownAddress(components, layout, layouts=services.layouts, current_day=day)
    return FillSource(known, [])
