"""Targets: tried while they are set up, and attached to and filled once they are published."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import NamedTuple

from anchorline.core.errors import DocumentError, Problem, nearest_names, unknown_name_detail
from anchorline.core.forms import Slot
from anchorline.core.practice import practice_id
from anchorline.core.targets import Target, read_target
from anchorline.core.targets.countries import CountryField, country_field
from anchorline.core.targets.pages import PageTarget
from anchorline.core.targets.programs import ProgramTarget
from anchorline.core.targets.programs.planning import steps_of
from anchorline.core.targets.programs.program import read_program_target
from anchorline.core.targets.programs.steps import Step
from anchorline.store.database import NotThereError
from anchorline.store.document_model import Document

from .caller import Caller
from .errors import ForbiddenError, InvalidError
from .filling import FilledFrom, WantedFill, fill
from .services import Services


class Trial(NamedTuple):
    """What an address would put into a target.

    Attributes:
        label: of the address in one line.
        steps: with what each says, in which a program is written; none for a page.
    """

    label: str
    filled: FilledFrom
    steps: Sequence[tuple[Step, str]]


class Attached(NamedTuple):
    """A published target, as it is attached to."""

    document: Document
    version: int
    target: Target


def try_out(
    services: Services,
    caller: Caller,
    document: Document,
    address: str | None,
    address_id: str | None,
) -> Trial:
    """What an address would put into a page or a program; nothing is kept.

    Args:
        address: the key of the target's address; the first one by default.
        address_id: what is written; by default a practice address of the first country.
    """
    layouts = services.layouts_in_force.current().on_form(None)
    target, _problems = read_target(document, layouts)
    keys = [one.key for one in target.addresses]
    slot = target.address(address or (keys[0] if keys else ""))
    if slot is None:
        detail = unknown_name_detail("address of this target", address or "", keys)
        raise InvalidError([Problem("/address", detail)])
    country = slot.country or slot.countries[0]
    wanted = WantedFill(address_id=address_id or practice_id(country))
    filled = fill(services, caller, target.form, slot, wanted, {}, layouts)
    label = filled.address[1].line if filled.address else ""
    return Trial(label, filled, _steps(target, slot.key))


def attach(services: Services, caller: Caller, key: str) -> Attached:
    """The published target that a page or an agent asks for.

    Raises:
        ForbiddenError: the key is not for it, or the page not on one of its origins.
        NotThereError: there is none, or it is not published.
    """
    if not caller.may_use_target(key):
        near = nearest_names(key, caller.targets or ())
        meant = f" Did you mean {near[0]}?" if near else ""
        raise ForbiddenError(f"This key may not be used for the target {key!r}.{meant}")
    document, number = services.published_targets.version(key)
    target, _problems = read_target(document, services.layouts_in_force.current().on_form(None))
    if not isinstance(target, PageTarget):
        if caller.is_anybody:
            detail = f"The target {key!r} is a program: it is filled with a server key."
            raise ForbiddenError(detail)
    elif caller.origin and caller.origin not in target.origins:
        raise ForbiddenError(
            f"The target {key!r} is not for pages of {caller.origin[:100]}: it is for "
            f"{', '.join(target.origins)}. Add the origin to the target."
        )
    return Attached(document, number, target)


def country_fields(services: Services, target: Target) -> Mapping[str, CountryField]:
    """By the keys of a target's addresses, where each says its country; those that do not miss."""
    layouts = services.layouts_in_force.current().on_form(None)
    found = {slot.key: country_field(target.form, slot, layouts) for slot in target.form.slots}
    return {key: one for key, one in found.items() if one is not None}


def fill_attached(
    services: Services,
    caller: Caller,
    key: str,
    address: str,
    wanted: WantedFill,
    values: Mapping[str, object],
) -> FilledFrom:
    """What an address, or what is known of one, puts into a published target.

    Args:
        address: the key of the target's address.
    """
    target = attach(services, caller, key).target
    slot = _require_address(target, address)
    layouts = services.layouts_in_force.current().on_form(None)
    return fill(services, caller, target.form, slot, wanted, values, layouts)


def programs_among(services: Services, documents: Sequence[Document]) -> list[ProgramTarget]:
    """The program targets among documents; one that cannot be read is left out."""
    layouts = services.layouts_in_force.current().on_form(None)
    found = []
    for document in documents:
        if document.get("kind") == "program":
            try:
                found.append(read_program_target(document, layouts)[0])
            except DocumentError:
                continue
    return found


def _require_address(target: Target, key: str) -> Slot:
    slot = target.address(key)
    if slot is None:
        keys = [one.key for one in target.addresses]
        near = nearest_names(key, keys)
        raise NotThereError(unknown_name_detail("address of this target", key, near))
    return slot


def _steps(target: Target, address: str) -> Sequence[tuple[Step, str]]:
    if not isinstance(target, ProgramTarget):
        return []
    labels = {field.key: field.label for field in target.form.all_fields()}
    return [(step, step.says(labels)) for step in steps_of(target.plans[address])]
