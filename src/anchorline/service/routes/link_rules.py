"""Links that the rules of addresses set: found, or planned to be made with the record."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from anchorline.core.address import escape_pointer
from anchorline.core.errors import Problem
from anchorline.core.forms import Captured, Form, check_submission
from anchorline.core.forms.linking import WantedLink, wanted_links
from anchorline.core.formula import today
from anchorline.core.layouts import LayoutLibrary
from anchorline.core.mapping import FindRecord, FoundRecord
from anchorline.store.database import NotThereError
from anchorline.store.record_model import NewRecord, PlannedRecord
from anchorline.store.record_rows import new_record_id

from ..endpoints import ApiRequest


@dataclass(frozen=True, slots=True)
class SetLinks:
    """What rules set.

    Attributes:
        values: ids by the links' keys.
        planned: records that are made with the one that links to them.
        problems: why a record cannot be made.
    """

    values: Mapping[str, str]
    planned: Sequence[PlannedRecord]
    problems: Sequence[Problem]


def set_links(
    request: ApiRequest,
    form: Form,
    captured: Sequence[Captured],
    values: Mapping[str, object],
    layouts: LayoutLibrary,
) -> SetLinks:
    """Sets the links that are not set yet, each to a record that is there or one to be made."""
    found: dict[str, str] = {}
    planned: list[PlannedRecord] = []
    problems: list[Problem] = []
    day = today(request.services.database.now())
    for wanted in wanted_links(form, captured, values, layouts, day):
        if wanted.field in found:
            continue
        there = request.services.record_lookups.having(wanted.form, wanted.texts)
        if there is not None:
            found[wanted.field] = there[0]
        elif wanted.new is not None:
            plan, fault = _plan(request, wanted, wanted.new)
            if plan is not None:
                planned.append(plan)
                found[wanted.field] = plan.id
            else:
                problems.append(Problem(f"/values/{escape_pointer(wanted.field)}", fault))
    return SetLinks(found, planned, problems)


def _plan(
    request: ApiRequest, wanted: WantedLink, values: Mapping[str, str]
) -> tuple[PlannedRecord | None, str]:
    """A record that is to be made, or why it cannot be."""
    services = request.services
    try:
        document, version = services.published_forms.version(wanted.form)
    except NotThereError:
        return None, f"There is no published form {wanted.form!r} to make a record of."
    other = services.checked_forms.form(document)
    day = today(services.database.now())
    checked = check_submission(other, values, {}, services.layouts, lambda _id: None, day)
    if checked.problems:
        first = checked.problems[0]
        detail = (
            f"No record of “{other.title}” can be made for {', '.join(wanted.texts.values())!r}: "
            f"{first.detail} Choose one that is there."
        )
        return None, detail
    kept: dict[str, Any] = dict(checked.values)
    new = NewRecord(
        form=other.key,
        form_version=version,
        label=" · ".join(wanted.texts.values()),
        values=kept,
        addresses=(),
        made_by=request.caller.name,
    )
    identifier = new_record_id(services.database.now())
    return PlannedRecord(wanted.field, identifier, new, wanted.texts), ""


def finder_of_records(request: ApiRequest, form: Form) -> FindRecord:
    """How a fill finds records: those that whoever fills the form may look up."""
    is_public = request.caller.kind in ("browser", "page")
    is_open = {field.form for field in form.all_fields() if field.open_to_all}

    def find(other: str, texts: Mapping[str, str]) -> FoundRecord | None:
        if is_public and other not in is_open:  # set when it is sent, without a word
            return FoundRecord(None, "")
        there = request.services.record_lookups.having(other, texts)
        return None if there is None else FoundRecord(*there)

    return find
