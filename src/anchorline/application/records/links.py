"""Links to records of other forms: chosen by people, or set by the rules of addresses."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from anchorline.core.address import escape_pointer
from anchorline.core.errors import Problem
from anchorline.core.forms import Captured, Field, Form, check_submission
from anchorline.core.forms.linking import WantedLink, wanted_links
from anchorline.core.formula import today
from anchorline.core.layouts import LayoutLibrary
from anchorline.core.mapping import FindRecord, FoundRecord
from anchorline.core.said import said
from anchorline.store.database import NotThereError
from anchorline.store.record_model import NewRecord, PlannedRecord
from anchorline.store.record_rows import new_record_id

from ..caller import Caller
from ..errors import ForbiddenError
from ..open_forms import open_form
from ..services import Services

MOST_OFFERED = 20


def links_of(form: Form) -> Iterator[Field]:
    """The fields of a form that are links."""
    return (field for field in form.all_fields() if field.type == "link")


def link_choices(
    services: Services,
    caller: Caller,
    form: str,
    key: str,
    *,
    text: str = "",
    record: str | None = None,
    draft: bool = False,
) -> Sequence[tuple[str, str]]:
    """Records that a link can be set to, with what the form shows of each and no more.

    Args:
        text: its words stand in what is shown.
        record: this one alone.

    Raises:
        NotThereError: there is no such form, or it has no such link.
        ForbiddenError: these records are not open to the caller.
    """
    opened = open_form(services, caller, form, draft=draft).form
    field = next((one for one in links_of(opened) if one.key == key), None)
    if field is None:
        raise NotThereError(f"The form {form!r} has no link {key!r}.")
    if caller.is_anybody and not field.open_to_all:
        raise ForbiddenError(f"The records of the link {field.key!r} are not open to everybody.")
    if record is not None:
        shown = linked(services, field, record)
        return [] if shown is None else [(record, shown)]
    return services.record_lookups.choices(
        field.form or "", field.shows, text, MOST_OFFERED, field.searches
    )


def linked(services: Services, field: Field, value: object) -> str | None:
    """What is shown of the record that a link leads to; None where there is none."""
    lookups = services.record_lookups
    return lookups.shown(str(value), field.form or "", field.shows, field.searches)


def link_problems(services: Services, form: Form, values: Mapping[str, object]) -> list[Problem]:
    """Links that lead nowhere: to a record that is not there, or of another form."""
    return [
        Problem(
            f"/values/{escape_pointer(field.key)}",
            said("not_there", "This record is not there any more; choose another one."),
        )
        for field in links_of(form)
        if field.key in values and linked(services, field, values[field.key]) is None
    ]


def finder_of_records(services: Services, caller: Caller, form: Form) -> FindRecord:
    """How a fill finds records: those that whoever fills the form may look up."""
    is_open = {field.form for field in form.all_fields() if field.open_to_all}

    def find(other: str, texts: Mapping[str, str]) -> FoundRecord | None:
        if caller.is_anybody and other not in is_open:  # set when it is sent, without a word
            return FoundRecord(None, "")
        there = services.record_lookups.having(other, texts)
        return None if there is None else FoundRecord(*there)

    return find


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
    services: Services,
    caller: Caller,
    form: Form,
    captured: Sequence[Captured],
    values: Mapping[str, object],
    layouts: LayoutLibrary,
) -> SetLinks:
    """Sets the links that are not set yet, each to a record that is there or one to be made."""
    found: dict[str, str] = {}
    planned: list[PlannedRecord] = []
    problems: list[Problem] = []
    day = today(services.database.now())
    for wanted in wanted_links(form, captured, values, layouts, day):
        if wanted.field in found:
            continue
        there = services.record_lookups.having(wanted.form, wanted.texts)
        if there is not None:
            found[wanted.field] = there[0]
        elif wanted.new is not None:
            plan, fault = _plan(services, caller, wanted, wanted.new)
            if plan is not None:
                planned.append(plan)
                found[wanted.field] = plan.id
            else:
                problems.append(Problem(f"/values/{escape_pointer(wanted.field)}", fault))
    return SetLinks(found, planned, problems)


def _plan(
    services: Services, caller: Caller, wanted: WantedLink, values: Mapping[str, str]
) -> tuple[PlannedRecord | None, str]:
    """A record that is to be made, or why it cannot be."""
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
        made_by=caller.name,
    )
    identifier = new_record_id(services.database.now())
    return PlannedRecord(wanted.field, identifier, new, wanted.texts), ""
