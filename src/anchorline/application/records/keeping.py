"""Sending a filled form, changing what was kept of it, and reading it again."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from anchorline.core.forms import Form, text_of
from anchorline.core.layouts import LayoutLibrary
from anchorline.store.document_model import Document
from anchorline.store.idempotency import IdempotencyKey
from anchorline.store.record_changes import RecordState
from anchorline.store.record_model import NewRecord, Record

from ..caller import Caller
from ..errors import RefusedError
from ..open_forms import OpenForm, open_form
from ..services import Services
from .checking import Filled, Submission, check, label_of
from .guard import RecordGuard, guard_public
from .links import linked, links_of


@dataclass(frozen=True, slots=True)
class Kept:
    """A record with the form that it was made with.

    Attributes:
        layouts: those that hold on its form now.
        texts: its values as people read them; none for anybody.
    """

    record: Record
    form: Form
    document: Document
    layouts: LayoutLibrary
    texts: dict[str, str]


@dataclass(frozen=True, slots=True)
class DryRun:
    """What a record would hold."""

    label: str
    filled: Filled
    form: Form
    layouts: LayoutLibrary
    texts: dict[str, str]


@dataclass(frozen=True, slots=True)
class EarlierState:
    """A state of a record with the form of its version."""

    state: RecordState
    form: Form
    texts: dict[str, str]


def submit(
    services: Services,
    caller: Caller,
    form: str,
    submission: Submission,
    count: RecordGuard,
    once_by: IdempotencyKey | None,
) -> Kept:
    """Keeps a filled form as a record.

    Args:
        count: counts a record that anybody sends, and raises where there are too many.
        once_by: the same key and request make one record only.

    Raises:
        NotThereError: there is no such form, or it is not published.
        RefusedError: the caller may not send it, or something in it is wrong.
        ReusedKeyError: the key came before with another request.
    """
    opened = open_form(services, caller, form, version=submission.version)
    try:
        guard_public(caller, opened.form, submission, services.database.now(), count)
    except RefusedError:
        # Sent again after the form was closed: what was kept is not said to be lost.
        before = services.records.made_with(once_by)
        if before is None:
            raise
        return _kept(services, caller, before, opened)
    filled = check(services, caller, opened, submission)
    new = NewRecord(
        form=opened.form.key,
        form_version=opened.version or 0,
        label=label_of(opened.form, filled, opened.layouts),
        values=filled.values,
        addresses=filled.addresses,
        made_by=caller.name,
        language=submission.language,
        typed=filled.typed,
        planned=filled.planned,
    )
    record, _made_now = services.records.add(new, once_by)
    return _kept(services, caller, record, opened)


def dry_run(services: Services, caller: Caller, form: str, submission: Submission) -> DryRun:
    """What a record would hold, were the draft sent now; nothing is kept."""
    opened = open_form(services, caller, form, draft=True)
    filled = check(services, caller, opened, submission)
    texts = texts_of(services, opened.form, filled.values)
    label = label_of(opened.form, filled, opened.layouts)
    return DryRun(label, filled, opened.form, opened.layouts, texts)


def change(
    services: Services, caller: Caller, identifier: str, submission: Submission, revision: int
) -> Kept:
    """Changes a record: its form, as it is published now, filled anew.

    Values of fields and addresses of slots that the form no longer has stay as they are; of a
    phone that was not touched, what was typed once stays as well.

    Args:
        revision: of the record that the change was made to.

    Raises:
        NotThereError: there is no such record.
        StaleError: it has been changed since then.
        InvalidError: with everything that is wrong with it.
    """
    before = services.records.get(identifier)
    opened = open_form(services, caller, before.form, version=submission.version)
    form = opened.form
    filled = check(services, caller, opened, submission, before)
    known = {field.key for field in form.all_fields()}
    left = {key: value for key, value in before.values.items() if key not in known}
    addresses = [*filled.addresses, *(a for a in before.addresses if form.slot(a.slot) is None)]
    typed = {
        key: text
        for key, text in before.typed.items()
        if filled.values.get(key) == before.values.get(key)
    }
    new = NewRecord(
        form=form.key,
        form_version=opened.version or 0,
        label=label_of(form, filled, opened.layouts),
        values={**filled.values, **left},
        addresses=addresses,
        made_by=caller.name,
        language=before.language,
        typed={**filled.typed, **typed},
        planned=filled.planned,
    )
    record = services.record_changes.change(before.id, new, revision)
    return _kept(services, caller, record, opened)


def read(services: Services, identifier: str) -> Kept:
    """A record, as far as the version of its form that it was made with can be read today."""
    record = services.records.get(identifier)
    document = services.forms.version(record.form, record.form_version).document
    form = services.checked_forms.form(document)
    layouts = services.layouts_in_force.current().on_form(record.form)
    return Kept(record, form, document, layouts, texts_of(services, form, record.values))


def history(services: Services, identifier: str) -> tuple[Record, Sequence[EarlierState]]:
    """A record and every state of it, the newest first."""
    record = services.records.get(identifier)
    states = []
    for state in services.record_changes.history(record.id):
        document = services.forms.version(record.form, state.form_version).document
        form = services.checked_forms.form(document)
        states.append(EarlierState(state, form, texts_of(services, form, state.values)))
    return record, states


def texts_of(services: Services, form: Form, values: dict[str, object]) -> dict[str, str]:
    """Values as people read them: of a choice its label, of a link what is shown of its record."""
    texts = {
        field.key: text_of(field, values[field.key])
        for field in form.all_fields()
        if field.key in values
    }
    for field in links_of(form):
        if field.key in values:
            texts[field.key] = linked(services, field, values[field.key]) or texts[field.key]
    return texts


def _kept(services: Services, caller: Caller, record: Record, opened: OpenForm) -> Kept:
    # Anybody is told of what they have sent, and not what lists show of other records.
    texts = {} if caller.is_anybody else texts_of(services, opened.form, record.values)
    return Kept(record, opened.form, opened.document, opened.layouts, texts)
