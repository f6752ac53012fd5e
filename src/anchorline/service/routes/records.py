"""API: submitting a form, and what was kept."""

from __future__ import annotations

from anchorline.application import records
from anchorline.application.records import Kept
from anchorline.core.errors import Problem, nearest_names, unknown_name_detail
from anchorline.core.forms import languages_of
from anchorline.wire.base import Schema
from anchorline.wire.records import (
    DryRunAnswer,
    FormRecordQuery,
    ReceivedAnswer,
    RecordAnswer,
    RecordList,
    RecordQuery,
    RecordRequest,
    RecordSummary,
)

from ..access import Access
from ..documents.if_match import etag
from ..endpoints import ApiRequest, ApiResponse, Router
from ..idempotency_header import idempotency_key
from ..problems import invalid
from .record_answers import (
    field_labels,
    record_answer,
    slots_answer,
    submission_of,
    summary_data,
    without_unfetched,
)

router = Router("records", "records")


@router.endpoint(
    "POST",
    "/forms/<form>/records",
    access=Access.CAPTURE,
    body=RecordRequest,
    answer=(RecordAnswer, ReceivedAnswer),
    status=201,
    problems=(404, 409),
    request_headers={"Idempotency-Key": "The same key and request make one record only"},
    answer_headers={"Location": "Where the record can be read"},
)
def submit_record(request: ApiRequest) -> ApiResponse:
    """Submits a filled form; makes a record.

    A browser key and a public page are told what was kept of what they sent; all others the record.
    """
    body, form, services = request.body(RecordRequest), request.path["form"], request.services
    address = request.http.remote_addr or ""
    kept = records.submit(
        services,
        request.caller,
        form,
        submission_of(body),
        lambda key, most: services.allowed.take_record(key, address, most),
        idempotency_key(request, form, request.http.get_data()),
    )
    answer: Schema
    if request.caller.is_anybody:
        answer = _received(kept, body)
    else:
        answer = without_unfetched(request, record_answer(kept))
    headers = {"Location": f"/api/v1/records/{kept.record.id}"}
    return ApiResponse(answer, status=201, headers=headers)


def _received(kept: Kept, body: RecordRequest) -> ReceivedAnswer:
    record = kept.record
    return ReceivedAnswer(
        id=record.id,
        form=record.form,
        form_version=record.form_version,
        made_at=record.made_at,
        language=record.language or languages_of(kept.document)[0],
        values={key: value for key, value in record.values.items() if _was_sent(kept, body, key)},
    )


def _was_sent(kept: Kept, body: RecordRequest, key: str) -> bool:
    """Whether a value is somebody's own: what a formula makes of an address is not."""
    return key in body.values and kept.form.field(key).formula is None


@router.endpoint(
    "POST",
    "/forms/<form>/dry-run",
    access=Access.SERVER,
    scopes=("forms",),
    body=RecordRequest,
    answer=DryRunAnswer,
    problems=(404,),
)
def dry_run_record(request: ApiRequest) -> Schema:
    """What a record would hold, were the draft submitted now; nothing is kept."""
    submission = submission_of(request.body(RecordRequest))
    would = records.dry_run(request.services, request.caller, request.path["form"], submission)
    values, addresses = would.filled.values, would.filled.addresses
    return DryRunAnswer(
        label=would.label,
        values=values,
        texts=would.texts,
        labels=field_labels(would.form, values, addresses, would.layouts),
        slots=slots_answer(would.form, addresses, would.layouts),
    )


@router.endpoint(
    "GET",
    "/forms/<form>/records",
    access=Access.SERVER,
    query=FormRecordQuery,
    answer=RecordList,
    problems=(404,),
)
def list_form_records(request: ApiRequest) -> Schema:
    """The records of a form, page by page."""
    request.services.forms.require(request.path["form"])
    return _page(request, request.query(FormRecordQuery), request.path["form"])


@router.endpoint("GET", "/records", access=Access.SERVER, query=RecordQuery, answer=RecordList)
def list_records(request: ApiRequest) -> Schema:
    """The records of all forms, page by page."""
    query = request.query(RecordQuery)
    if query.form is not None:
        known = request.services.forms.keys()
        if query.form not in known:
            detail = unknown_name_detail("form", query.form, nearest_names(query.form, known))
            raise invalid([Problem("?form", detail)])
    return _page(request, query, query.form)


@router.endpoint(
    "GET",
    "/records/<record>",
    access=Access.SERVER,
    answer=RecordAnswer,
    problems=(404,),
    answer_headers={"ETag": "Names the record's revision; send it back in If-Match"},
)
def get_record(request: ApiRequest) -> ApiResponse:
    """A whole record with its captured addresses."""
    kept = records.read(request.services, request.path["record"])
    return ApiResponse(record_answer(kept), headers=etag(kept.record.revision))


def _page(request: ApiRequest, query: FormRecordQuery, form: str | None) -> RecordList:
    page = request.services.records.page(
        form=form,
        search=query.search,
        sort=query.sort,
        limit=query.limit,
        after=query.after,
    )
    return RecordList(
        records=[RecordSummary(**summary_data(row)) for row in page.records],
        total=page.total,
        after=page.after,
    )
