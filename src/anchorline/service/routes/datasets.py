"""API: datasets, loads, editions and jobs."""

from __future__ import annotations

from collections.abc import Iterator

from anchorline.application.reference.editions import (
    activate_edition,
    remove_dataset,
    remove_edition,
)
from anchorline.application.reference.loads import (
    dataset_name,
    discard_file,
    receive_load,
    try_again,
    wanted_load,
    work_on_edition,
)
from anchorline.core.reference.report import report_lines
from anchorline.store.datasets import DatasetRules
from anchorline.store.idempotency import IdempotencyKey
from anchorline.store.job_model import Job
from anchorline.wire.base import PageQuery, Schema
from anchorline.wire.datasets import (
    DatasetAnswer,
    DatasetList,
    EditionAnswer,
    JobAnswer,
    LoadQuery,
    RetryQuery,
    RulesRequest,
)

from ..access import Access
from ..endpoints import ApiRequest, ApiResponse, Router
from ..idempotency_header import IDEMPOTENCY, idempotency_key
from ..problems import not_found
from .dataset_answers import dataset_answer, dataset_summary, edition_answer, job_answer
from .uploads import file_of

router = Router("datasets", "data")
_JOB_HEADERS = {"Location": "Where the job can be read"}
_KEY_HEADER = {"Idempotency-Key": "The same key and file make one load only"}


@router.endpoint("GET", "/datasets", access=Access.SERVER, query=PageQuery, answer=DatasetList)
def list_datasets(request: ApiRequest) -> Schema:
    """All datasets, page by page: what they hold, and whether work on them is going on."""
    query, services = request.query(PageQuery), request.services
    page = services.datasets.page(query.limit, query.after)
    return DatasetList(
        after=page.after, datasets=[dataset_summary(services, one) for one in page.entries]
    )


@router.endpoint("GET", "/datasets/<dataset>", access=Access.SERVER, answer=DatasetAnswer)
def get_dataset(request: ApiRequest) -> Schema:
    """A dataset with its rules, its editions and its latest jobs."""
    return dataset_answer(request.services, request.path["dataset"])


@router.endpoint(
    "PUT",
    "/datasets/<dataset>/rules",
    access=Access.SERVER,
    body=RulesRequest,
    answer=DatasetAnswer,
)
def set_dataset_rules(request: ApiRequest) -> Schema:
    """Sets how a dataset's loads are treated; makes the dataset where it is new."""
    name = dataset_name(request.path["dataset"])
    request.services.datasets.set_rules(
        name, DatasetRules(**request.body(RulesRequest).model_dump())
    )
    return dataset_answer(request.services, name)


@router.endpoint(
    "POST",
    "/datasets/<dataset>/editions",
    access=Access.SERVER,
    query=LoadQuery,
    answer=JobAnswer,
    status=202,
    upload=True,
    problems=(409, 415),
    request_headers=_KEY_HEADER,
    answer_headers=_JOB_HEADERS,
)
def load_edition(request: ApiRequest) -> ApiResponse:
    """Loads a file of reference data as the dataset's next edition.

    The file is CSV or JSON Lines in UTF-8, or either gzipped: as the part `file` of a form, or as
    the body itself. A worker does the load; the answer is its job.
    """
    query, services = request.query(LoadQuery), request.services
    new = wanted_load(
        services,
        request.path["dataset"],
        request.caller.name,
        query.name,
        changes=query.changes,
        base=query.base,
        bad_share=query.bad_share,
        activate=query.activate,
    )
    file_name, pieces = file_of(request.http, services.settings.max_upload)

    def key_of(upload: bytes) -> IdempotencyKey | None:
        return idempotency_key(request, f"load/{new.dataset}", upload)

    return _accepted(request, receive_load(services, new, file_name, pieces, key_of))


@router.endpoint(
    "GET", "/datasets/<dataset>/editions/<number>", access=Access.SERVER, answer=EditionAnswer
)
def get_edition(request: ApiRequest) -> Schema:
    """An edition: what was noticed in its rows, and what it changes."""
    return edition_answer(request.services, request.path["dataset"], _number(request))


@router.endpoint(
    "POST",
    "/datasets/<dataset>/editions/<number>/activate",
    access=Access.SERVER,
    answer=DatasetAnswer,
    problems=(409,),
)
def activate_dataset_edition(request: ApiRequest) -> Schema:
    """Makes an edition the active one; going back to an older one is the same step."""
    name, number = request.path["dataset"], _number(request)
    activate_edition(request.services, name, number)
    return dataset_answer(request.services, name)


@router.endpoint(
    "POST",
    "/datasets/<dataset>/editions/<number>/rebuild",
    access=Access.SERVER,
    answer=JobAnswer,
    status=202,
    problems=(409,),
    request_headers=IDEMPOTENCY,
    answer_headers=_JOB_HEADERS,
)
def rebuild_edition(request: ApiRequest) -> ApiResponse:
    """Builds an edition's index anew from its rows."""
    return _work_on(request, "rebuild")


@router.endpoint(
    "POST",
    "/datasets/<dataset>/editions/<number>/compare",
    access=Access.SERVER,
    answer=JobAnswer,
    status=202,
    problems=(409,),
    request_headers=IDEMPOTENCY,
    answer_headers=_JOB_HEADERS,
)
def compare_edition(request: ApiRequest) -> ApiResponse:
    """Compares an edition with the one that is active now."""
    return _work_on(request, "compare")


@router.endpoint(
    "DELETE",
    "/datasets/<dataset>/editions/<number>",
    access=Access.SERVER,
    answer=None,
    status=204,
    problems=(409,),
)
def delete_edition(request: ApiRequest) -> ApiResponse:
    """Takes an edition away with its rows and its index; the active one stays."""
    remove_edition(request.services, request.path["dataset"], _number(request))
    return ApiResponse(None, status=204)


@router.endpoint(
    "DELETE",
    "/datasets/<dataset>",
    access=Access.SERVER,
    answer=None,
    status=204,
    problems=(409,),
)
def delete_dataset(request: ApiRequest) -> ApiResponse:
    """Takes a dataset away with all its editions, also the active one, for good."""
    remove_dataset(request.services, request.path["dataset"])
    return ApiResponse(None, status=204)


@router.endpoint(
    "GET", "/jobs/<job>", access=Access.SERVER, answer=JobAnswer, scopes=("data", "forms")
)
def get_job(request: ApiRequest) -> Schema:
    """A job as it stands."""
    return job_answer(request.services, request.services.jobs.get(request.path["job"]))


@router.endpoint(
    "POST", "/jobs/<job>/cancel", access=Access.SERVER, answer=JobAnswer, scopes=("data", "forms")
)
def cancel_job(request: ApiRequest) -> Schema:
    """Asks a job to end; one that has ended stays as it is."""
    return job_answer(request.services, request.services.jobs.cancel(request.path["job"]))


@router.endpoint(
    "POST",
    "/jobs/<job>/retry",
    access=Access.SERVER,
    query=RetryQuery,
    answer=JobAnswer,
    status=202,
    problems=(409,),
)
def retry_job(request: ApiRequest) -> ApiResponse:
    """Puts a load that failed or was cancelled in line again, with the file that is kept."""
    job = try_again(request.services, request.path["job"], request.query(RetryQuery).bad_share)
    return ApiResponse(job_answer(request.services, job), status=202)


@router.endpoint(
    "DELETE", "/jobs/<job>/file", access=Access.SERVER, answer=JobAnswer, problems=(409,)
)
def discard_job_file(request: ApiRequest) -> Schema:
    """Throws the file of a load that failed or was cancelled away."""
    return job_answer(request.services, discard_file(request.services, request.path["job"]))


@router.endpoint(
    "GET",
    "/jobs/<job>/report",
    access=Access.SERVER,
    answer=None,
    download="text/csv",
    answer_headers={"Content-Disposition": "A name for the file"},
)
def get_job_report(request: ApiRequest) -> ApiResponse:
    """The rows that a load left out, as CSV: line, id, finding, column, reason, row."""
    job = request.services.jobs.get(request.path["job"])

    def content() -> Iterator[bytes]:
        for line in report_lines(request.services.load_data.bad_rows(job.id)):
            yield line.encode()

    headers = {
        "Content-Type": "text/csv; charset=utf-8",
        "Content-Disposition": f'attachment; filename="{job.dataset}-rows-left-out.csv"',
        "Cache-Control": "no-store",
    }
    return ApiResponse(None, headers=headers, stream=content())


def _work_on(request: ApiRequest, kind: str) -> ApiResponse:
    """A new job on an edition that is there."""
    name, number = request.path["dataset"], _number(request)
    once_by = idempotency_key(request, f"{kind} {name}/{number}", b"")
    made = work_on_edition(request.services, kind, name, number, request.caller.name, once_by)
    return _accepted(request, made)


def _accepted(request: ApiRequest, job: Job) -> ApiResponse:
    headers = {"Location": f"/api/v1/jobs/{job.id}"}
    return ApiResponse(job_answer(request.services, job), status=202, headers=headers)


def _number(request: ApiRequest) -> int:
    text = request.path["number"]
    if not text.isascii() or not text.isdecimal() or len(text) > 9:
        raise not_found(f"There is no edition {text!r}; editions have numbers.")
    return int(text)
