"""API: changing a record, and what it was before."""

from __future__ import annotations

from anchorline.store.database import StaleError
from anchorline.store.record_model import NewRecord
from anchorline.wire.base import Schema
from anchorline.wire.records import RecordAnswer, RecordHistory, RecordRequest, RecordStateSchema

from ..access import Access
from ..endpoints import ApiRequest, ApiResponse, Router
from .drafts import changed_meanwhile, etag, revision_given
from .open_forms import open_form_of
from .record_answers import (
    checked_form,
    label_of,
    layouts_of,
    record_answer,
    slots_answer,
    texts_of,
    without_unfetched,
)

router = Router("record changes", "records")


@router.endpoint(
    "PUT",
    "/records/<record>",
    access=Access.SERVER,
    body=RecordRequest,
    answer=RecordAnswer,
    problems=(404, 412, 428),
    request_headers={"If-Match": "The record's ETag"},
    answer_headers={"ETag": "Names the record's revision; send it back in If-Match"},
)
def change_record(request: ApiRequest) -> ApiResponse:
    """Changes a record: its form, as it is published now, filled anew.

    Values of fields and addresses of slots that the form no longer has stay as they are; of a
    phone that was not touched, what was typed once stays as well.
    """
    records = request.services.records
    before = records.get(request.path["record"])
    revision = revision_given(request, "record")
    body = request.body(RecordRequest)
    opened = open_form_of(request, before.form, version=body.version)
    form = opened.form
    filled = checked_form(request, form, body, before)
    known = {field.key for field in form.all_fields()}
    left = {key: value for key, value in before.values.items() if key not in known}
    addresses = [*filled.addresses, *(a for a in before.addresses if form.slot(a.slot) is None)]
    typed = {
        key: text
        for key, text in before.typed.items()
        if filled.values.get(key) == before.values.get(key)
    }
    layouts = layouts_of(request, form.key)
    new = NewRecord(
        form=form.key,
        form_version=opened.version or 0,
        label=label_of(form, filled.values, filled.addresses, layouts),
        values={**filled.values, **left},
        addresses=addresses,
        made_by=request.caller.name,
        language=before.language,
        typed={**filled.typed, **typed},
        planned=filled.planned,
    )
    try:
        record = request.services.record_changes.change(before.id, new, revision)
    except StaleError as error:
        raise changed_meanwhile(error, "record") from None
    answer = record_answer(request, record, form, layouts, opened.document)
    return ApiResponse(without_unfetched(request, answer), headers=etag(record.revision))


@router.endpoint(
    "GET",
    "/records/<record>/history",
    access=Access.SERVER,
    answer=RecordHistory,
    problems=(404,),
)
def get_record_history(request: ApiRequest) -> Schema:
    """Every state of a record, the newest first: what, who, when, from which edition."""
    services = request.services
    record = services.records.get(request.path["record"])
    layouts = layouts_of(request, record.form)
    states = []
    for state in services.record_changes.history(record.id):
        document, _number = services.forms.version(record.form, state.form_version)
        form = services.checked_forms.form(document)
        states.append(
            RecordStateSchema(
                number=state.number,
                form_version=state.form_version,
                made_at=state.made_at,
                made_by=state.made_by,
                values=state.values,
                texts=texts_of(request, form, state.values),
                slots=slots_answer(form, state.addresses, layouts),
            )
        )
    return RecordHistory(states=states)
