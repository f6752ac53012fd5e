"""API: a mapping run over many addresses, and what came of it."""

from __future__ import annotations

from anchorline.core.errors import Problem
from anchorline.core.forms.table import TableError
from anchorline.core.forms.table.addresses import address_rows
from anchorline.store.database import AlreadyThereError
from anchorline.store.job_model import NewJob
from anchorline.wire.base import Schema
from anchorline.wire.coverage import CoverageRequest, CoverageRun, CoverageRuns
from anchorline.wire.datasets import JobAnswer

from ..access import Access
from ..endpoints import ApiRequest, ApiResponse, Router
from ..problems import ProblemError, invalid
from .dataset_answers import job_answer
from .layouts import require_components
from .mapping import draft_document, read_draft
from .open_forms import require_slot

router = Router("coverage", "forms")


@router.endpoint(
    "POST",
    "/forms/<form>/slots/<slot>/coverage",
    access=Access.SERVER,
    body=CoverageRequest,
    answer=JobAnswer,
    status=202,
    problems=(404, 409),
    answer_headers={"Location": "Where the job can be watched"},
)
def start_coverage(request: ApiRequest) -> ApiResponse:
    """Runs a draft's mapping over many addresses: a job."""
    body, services = request.body(CoverageRequest), request.services
    form, layouts = read_draft(request, draft_document(request, None))
    slot = require_slot(form, request.path["slot"])
    rows = body.rows
    if body.table:
        try:
            rows = address_rows(body.table, layouts)
        except TableError as error:
            raise invalid([Problem("/table", str(error))]) from None
    for number, row in enumerate(body.rows):
        require_components(row, f"/rows/{number}")
    given = body.model_dump(exclude={"rows", "table"})
    options = {"form": form.key, "slot": slot.key, **given, "rows": rows}
    alone = f"coverage of {form.key}/{slot.key}"
    new = NewJob("coverage", "", request.caller.name, options=options, alone=alone)
    try:
        job = services.jobs.make(new)
    except AlreadyThereError:
        detail = "This address is being run over already; wait until that is done."
        raise ProblemError(409, detail) from None
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
    request.services.forms.entry(form)
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
            for run in request.services.coverage_runs.list(form, slot)
        ]
    )
