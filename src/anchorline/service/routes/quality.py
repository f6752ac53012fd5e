"""API: how well capture goes: what pages report, and what that comes to."""

from __future__ import annotations

import csv
import io
from collections.abc import Iterator

from anchorline.application.capture_quality import add_report, quality
from anchorline.application.open_forms import open_form
from anchorline.application.targets import attach
from anchorline.core.capture_counts import COUNTED
from anchorline.wire.base import Schema
from anchorline.wire.quality import (
    CaptureReport,
    DayCounts,
    NotFound,
    QualityAnswer,
    QualityDay,
    QualityQuery,
)

from ..access import Access
from ..endpoints import ApiRequest, ApiResponse, Router

router = Router("quality", "administer")
_LARGEST = 16_384


@router.endpoint(
    "POST",
    "/forms/<form>/capture-counts",
    access=Access.CAPTURE,
    body=CaptureReport,
    answer=None,
    status=204,
    problems=(404,),
    largest_body=_LARGEST,
    scopes=("records",),
)
def report_form_capture(request: ApiRequest) -> ApiResponse:
    """Adds what a page has counted of a form's captures."""
    open_form(request.services, request.caller, request.path["form"])
    return _add(request, "form", request.path["form"])


@router.endpoint(
    "POST",
    "/targets/<target>/capture-counts",
    access=Access.CAPTURE,
    body=CaptureReport,
    answer=None,
    status=204,
    problems=(404,),
    largest_body=_LARGEST,
    scopes=("records",),
)
def report_target_capture(request: ApiRequest) -> ApiResponse:
    """Adds what a page has counted of a target's captures."""
    attach(request.services, request.caller, request.path["target"])
    return _add(request, "target", request.path["target"])


@router.endpoint(
    "GET", "/capture-quality", access=Access.SERVER, query=QualityQuery, answer=QualityAnswer
)
def get_capture_quality(request: ApiRequest) -> Schema:
    """How capture went, per form and target and day: shown, begun, picked, typed by hand …"""
    return _quality(request)


@router.endpoint(
    "GET",
    "/capture-quality-table",
    access=Access.SERVER,
    query=QualityQuery,
    answer=None,
    download="text/csv",
)
def export_capture_quality(request: ApiRequest) -> ApiResponse:
    """The same as CSV: a line for each form or target and day."""
    days = _quality(request).days

    def content() -> Iterator[bytes]:
        yield _line(["kind", "name", "day", *COUNTED])
        for one in days:
            counts = one.counts.model_dump()
            yield _line([one.kind, one.name, one.day.isoformat(), *map(str, counts.values())])

    headers = {
        "Content-Type": "text/csv; charset=utf-8",
        "Content-Disposition": 'attachment; filename="capture-quality.csv"',
    }
    return ApiResponse(None, headers=headers, stream=content())


def _quality(request: ApiRequest) -> QualityAnswer:
    query = request.query(QualityQuery)
    found = quality(request.services, query.kind, query.name, query.since, query.until)
    return QualityAnswer(
        days=[
            QualityDay(
                kind=one.kind,
                name=one.name,
                title=found.titles.get((one.kind, one.name), one.name),
                day=one.day,
                counts=DayCounts(**one.counts),
            )
            for one in found.days
        ],
        not_found=[
            text if request.caller.may_observe else text.model_copy(update={"text": None})
            for text in (
                NotFound.model_validate(one, from_attributes=True) for one in found.not_found
            )
        ],
    )


def _add(request: ApiRequest, kind: str, name: str) -> ApiResponse:
    """Keeps what was not found as a digest; whole only while somebody observes."""
    body, services = request.body(CaptureReport), request.services
    add_report(
        services,
        kind,
        name,
        body.counts.model_dump(),
        body.not_found,
        secret=services.settings.signing_secret().encode(),
        is_observed=services.activity.is_observed(kind, name),
    )
    return ApiResponse(None, status=204)


def _line(values: list[str]) -> bytes:
    buffer = io.StringIO()
    csv.writer(buffer).writerow(values)
    return buffer.getvalue().encode()
