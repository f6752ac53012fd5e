"""API: changing a record, and what it was before."""

from __future__ import annotations

from anchorline.application import records
from anchorline.store.database import StaleError
from anchorline.wire.base import Schema
from anchorline.wire.records import RecordAnswer, RecordHistory, RecordRequest, RecordStateSchema

from ..access import Access
from ..documents.if_match import changed_meanwhile, etag, revision_given
from ..endpoints import ApiRequest, ApiResponse, Router
from .record_answers import record_answer, slots_answer, submission_of, without_unfetched

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
    identifier, services = request.path["record"], request.services
    services.records.get(identifier)  # 404 goes before what is lacking in the request
    revision = revision_given(request, "record")
    submission = submission_of(request.body(RecordRequest))
    try:
        kept = records.change(services, request.caller, identifier, submission, revision)
    except StaleError as error:
        raise changed_meanwhile(error, "record") from None
    answer = without_unfetched(request, record_answer(kept))
    return ApiResponse(answer, headers=etag(kept.record.revision))


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
    record, states = records.history(services, request.path["record"])
    layouts = services.layouts_in_force.current().on_form(record.form)
    return RecordHistory(
        states=[
            RecordStateSchema(
                number=one.state.number,
                form_version=one.state.form_version,
                made_at=one.state.made_at,
                made_by=one.state.made_by,
                values=one.state.values,
                texts=one.texts,
                slots=slots_answer(one.form, one.state.addresses, layouts),
            )
            for one in states
        ]
    )
