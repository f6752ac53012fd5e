"""A filled form, checked: what a record would keep of it."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from typing import Any

from anchorline.core.address import Address
from anchorline.core.errors import Problem
from anchorline.core.forms import (
    Captured,
    Form,
    SlotInput,
    check_submission,
    find_or_captured,
    kept_as_before,
)
from anchorline.core.forms.linking import has_link_rules
from anchorline.core.formula import today
from anchorline.core.layouts import LayoutLibrary, one_line
from anchorline.store.record_model import PlannedRecord, Record

from ..caller import Caller
from ..errors import InvalidError
from ..open_forms import OpenForm
from ..services import Services
from .links import link_problems, set_links


@dataclass(frozen=True, slots=True)
class Submission:
    """A form as somebody has filled it.

    Attributes:
        version: that was filled; None for the one in force.
        language: in which it was read.
        trap: what was put into the field that people do not see.
        seconds: that the page was open, as it says itself.
    """

    values: Mapping[str, Any] = field(default_factory=dict)
    slots: Mapping[str, SlotInput] = field(default_factory=dict)
    version: int | None = None
    language: str = ""
    trap: str = ""
    seconds: float | None = None


@dataclass(frozen=True, slots=True)
class Filled:
    """What a record keeps of a filled form.

    Attributes:
        typed: what was typed into fields that keep it otherwise, by their keys.
        planned: records of other forms that are made with it.
    """

    values: dict[str, Any]
    addresses: Sequence[Captured]
    typed: Mapping[str, str]
    planned: Sequence[PlannedRecord] = ()


def check(
    services: Services,
    caller: Caller,
    opened: OpenForm,
    submission: Submission,
    before: Record | None = None,
) -> Filled:
    """The values and addresses to keep.

    Args:
        before: the record that is changed by it.

    Raises:
        InvalidError: with everything that is wrong with it.
    """

    def find(address_id: str) -> tuple[Address, str] | None:
        found = services.gazetteer.having(address_id).address(address_id)
        return (found[0], f"{found[1].dataset}@{found[1].number}") if found else None

    form, layouts = opened.form, opened.layouts
    finds = find_or_captured(find, before.addresses) if before else find
    day = today(services.database.now())
    inputs = submission.slots
    checked = check_submission(form, submission.values, inputs, layouts, finds, day)
    planned: Sequence[PlannedRecord] = ()
    problems: list[Problem] = []
    if has_link_rules(form):
        links = set_links(services, caller, form, checked.captured, checked.values, layouts)
        planned, problems = links.planned, list(links.problems)
        if links.values:  # a link may be needed, or decide what is shown
            values = {**submission.values, **links.values}
            checked = check_submission(form, values, inputs, layouts, finds, day)
    made = {plan.field for plan in planned}
    there = {key: value for key, value in checked.values.items() if key not in made}
    problems += [*checked.problems, *link_problems(services, form, there)]
    if problems:
        raise InvalidError(problems)
    addresses: Sequence[Captured] = checked.captured
    if before is not None:
        addresses = kept_as_before(
            form, before.addresses, checked.captured, before.values, checked.values
        )
    planned = [plan for plan in planned if plan.field in checked.values]
    return Filled(checked.values, addresses, checked.typed, planned)


def label_of(form: Form, filled: Filled, layouts: LayoutLibrary) -> str:
    """What lists show: the first text that was given, and the first address in one line."""
    texts = [f.key for f in form.all_fields() if f.type == "text" and f.slot is None]
    parts = [str(filled.values[key]) for key in texts if key in filled.values][:1]
    if filled.addresses:
        first = filled.addresses[0]
        line = one_line(layouts.require(first.country_code), first.components)
        if line not in parts:
            parts.append(line)
    return " · ".join(parts) or form.title
