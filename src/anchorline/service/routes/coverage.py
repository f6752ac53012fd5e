"""API: a mapping run over many addresses, and what came of it."""

from __future__ import annotations

from collections.abc import Sequence

from anchorline.application.coverage import WantedRun, start_coverage
from anchorline.application.mapped_drafts import FORMS_MAPPED
from anchorline.store.coverage_runs import CoverageRun as StoredRun
from anchorline.wire.base import Schema
from anchorline.wire.coverage import CoverageRequest, CoverageRun, CoverageRuns
from anchorline.wire.datasets import JobAnswer

from ..access import Access
from ..endpoints import ApiRequest, ApiResponse, Router
from ..idempotency_header import IDEMPOTENCY, idempotency_key
from .dataset_answers import job_answer

router = Router("coverage", "forms")


@router.endpoint(
    "POST",
    "/forms/<form>/slots/<slot>/coverage",
    access=Access.SERVER,
    body=CoverageRequest,
    answer=JobAnswer,
    status=202,
    problems=(404, 409),
    request_headers=IDEMPOTENCY,
    answer_headers={"Location": "Where the job can be watched"},
)
def start_mapping_coverage(request: ApiRequest) -> ApiResponse:
    """Runs a draft's mapping over many addresses: a job."""
    form, slot = request.path["form"], request.path["slot"]
    body, services = request.body(CoverageRequest), request.services
    once_by = idempotency_key(request, f"coverage {form}/{slot}", request.http.get_data())
    wanted = WantedRun(body.source, body.per_country, body.rows, body.table)
    job = start_coverage(services, request.caller, FORMS_MAPPED, form, slot, wanted, once_by)
    headers = {"Location": f"/api/v1/jobs/{job.id}"}
    return ApiResponse(job_answer(services, job), status=202, headers=headers)


@router.endpoint(
    "GET",
    "/forms/<form>/slots/<slot>/coverage",
    access=Access.SERVER,
    answer=CoverageRuns,
    problems=(404,),
)
def list_coverage(request: ApiRequest) -> Schema:
    """The latest runs over many addresses, newest first."""
    form, slot = request.path["form"], request.path["slot"]
    request.services.forms.require(form)
    return coverage_runs(request.services.coverage_runs.list("form", form, slot))


def coverage_runs(runs: Sequence[StoredRun]) -> CoverageRuns:
    """Runs as they are answered, of forms and targets alike."""
    return CoverageRuns(
        runs=[
            CoverageRun(
                job=run.job,
                form=run.form,
                slot=run.slot,
                version=run.version,
                revision=run.revision,
                source=run.source,
                made_at=run.made_at,
                made_by=run.made_by,
                seconds=run.seconds,
                **run.result,
            )
            for run in runs
        ]
    )
