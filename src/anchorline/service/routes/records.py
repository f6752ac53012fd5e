"""API: submitting a form, and what was kept."""

from __future__ import annotations

from anchorline.core.errors import Problem, nearest_names, unknown_name_detail
from anchorline.core.forms import languages_of
from anchorline.store.database import ReusedKeyError
from anchorline.store.record_model import NewRecord, Record
from anchorline.store.record_order import BadCursorError
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
from ..endpoints import ApiRequest, ApiResponse, Router
from ..problems import ProblemError, invalid
from .drafts import etag
from .idempotency_header import idempotency_key, reused_key
from .open_forms import OpenForm, open_form
from .public_guard import guard_public
from .record_answers import (
    checked_form,
    field_labels,
    label_of,
    layouts_of,
    record_answer,
    slots_answer,
    summary_data,
    texts_of,
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
    body = request.body(RecordRequest)
    opened = open_form(request, version=body.version)
    form, version = opened.form, opened.version
    key = idempotency_key(request, form.key, request.http.get_data())
    try:
        guard_public(request, form, body)
    except ProblemError:
        # Sent again after the form was closed: what was kept is not said to be lost.
        before = request.services.records.made_with(key)
        if before is None:
            raise
        return _kept(request, before, opened, body)
    filled = checked_form(request, form, body)
    new = NewRecord(
        form=form.key,
        form_version=version or 0,
        label=label_of(form, filled.values, filled.addresses, layouts_of(request, form.key)),
        values=filled.values,
        addresses=filled.addresses,
        made_by=request.caller.name,
        language=body.language or "",
        typed=filled.typed,
        planned=filled.planned,
    )
    try:
        record, _made_now = request.services.records.add(new, key)
    except ReusedKeyError:
        raise reused_key() from None
    return _kept(request, record, opened, body)


def _kept(
    request: ApiRequest, record: Record, opened: OpenForm, body: RecordRequest
) -> ApiResponse:
    form = opened.form
    answer: Schema
    if request.caller.is_anybody:
        answer = _received(record, opened, body)
    else:
        layouts = layouts_of(request, form.key)
        whole = record_answer(request, record, form, layouts, opened.document)
        answer = without_unfetched(request, whole)
    return ApiResponse(answer, status=201, headers={"Location": f"/api/v1/records/{record.id}"})


def _received(record: Record, opened: OpenForm, body: RecordRequest) -> ReceivedAnswer:
    return ReceivedAnswer(
        id=record.id,
        form=record.form,
        form_version=record.form_version,
        made_at=record.made_at,
        language=record.language or languages_of(opened.document)[0],
        values={key: value for key, value in record.values.items() if _was_sent(opened, body, key)},
    )


def _was_sent(opened: OpenForm, body: RecordRequest, key: str) -> bool:
    """Whether a value is somebody's own: what a formula makes of an address is not."""
    return key in body.values and opened.form.field(key).formula is None


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
    form = open_form(request, draft=True).form
    filled = checked_form(request, form, request.body(RecordRequest))
    values, addresses = filled.values, filled.addresses
    layouts = layouts_of(request, form.key)
    return DryRunAnswer(
        label=label_of(form, values, addresses, layouts),
        values=values,
        texts=texts_of(request, form, values),
        labels=field_labels(form, values, addresses, layouts),
        slots=slots_answer(form, addresses, layouts),
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
    request.services.forms.entry(request.path["form"])
    return _page(request, request.query(FormRecordQuery), request.path["form"])


@router.endpoint("GET", "/records", access=Access.SERVER, query=RecordQuery, answer=RecordList)
def list_records(request: ApiRequest) -> Schema:
    """The records of all forms, page by page."""
    query = request.query(RecordQuery)
    if query.form is not None:
        known = [entry.key for entry in request.services.forms.list()]
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
    record = request.services.records.get(request.path["record"])
    document, _number = request.services.forms.version(record.form, record.form_version)
    form = request.services.checked_forms.form(document)
    answer = record_answer(request, record, form, layouts_of(request, record.form), document)
    return ApiResponse(answer, headers=etag(record.revision))


def _page(request: ApiRequest, query: FormRecordQuery, form: str | None) -> RecordList:
    try:
        page = request.services.records.page(
            form=form,
            search=query.search,
            sort=query.sort,
            limit=query.limit,
            after=query.after,
        )
    except BadCursorError as error:
        raise invalid([Problem("?after", str(error))]) from None
    return RecordList(
        records=[RecordSummary(**summary_data(row)) for row in page.records],
        total=page.total,
        after=page.after,
    )
