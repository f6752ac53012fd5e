"""API: datasets, loads, editions and jobs."""

from __future__ import annotations

import re
from collections.abc import Iterator
from dataclasses import asdict

from anchorline.application.once import once
from anchorline.core.errors import EditionError, Problem
from anchorline.core.practice import PRACTICE
from anchorline.core.reference.report import report_lines
from anchorline.store.database import InUseError
from anchorline.store.datasets import DatasetRules
from anchorline.store.job_model import OPEN_STATES, Job, NewJob, NoFileError
from anchorline.wire.base import Schema
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
from ..loading.editions import activate_edition, remove_dataset, remove_edition
from ..loading.jobs import LoadOptions
from ..problems import ProblemError, invalid, not_found
from .dataset_answers import dataset_answer, dataset_summary, edition_answer, job_answer
from .uploads import receive_load

router = Router("datasets", "data")
# No colon: in ids it parts the dataset's name from the row's id.
_NAME = re.compile(r"[a-z0-9][a-z0-9-]{0,63}")
_JOB_HEADERS = {"Location": "Where the job can be read"}
_KEY_HEADER = {"Idempotency-Key": "The same key and file make one load only"}


@router.endpoint("GET", "/datasets", access=Access.SERVER, answer=DatasetList)
def list_datasets(request: ApiRequest) -> Schema:
    """All datasets, with what they hold and whether work on them is going on."""
    services = request.services
    return DatasetList(
        datasets=[dataset_summary(services, dataset) for dataset in services.datasets.list()]
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
    name = _dataset_name(request)
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
    name, query = _dataset_name(request), request.query(LoadQuery)
    known = {dataset.name: dataset for dataset in request.services.datasets.list()}
    rules = known[name].rules if name in known else DatasetRules()
    if query.changes:
        _require_base(request, name, query)
    options = LoadOptions(
        changes=query.changes,
        base=query.base,
        bad_share=rules.bad_share if query.bad_share is None else query.bad_share,
        activate=query.activate,
    )
    new = NewJob("load", name, request.caller.name, query.name, asdict(options))
    return _accepted(request, receive_load(request, new))


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
    try:
        activate_edition(request.services, name, number)
    except EditionError as error:
        raise ProblemError(409, f"{error} Build its index anew first (rebuild).") from error
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
    name, number = request.path["dataset"], _number(request)
    if request.services.datasets.get(name).active == number:
        raise ProblemError(409, f"Edition {number} is active. Activate another one first.")
    remove_edition(request.services, name, number)
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
    try:
        remove_dataset(request.services, request.path["dataset"])
    except InUseError as error:
        raise ProblemError(409, str(error)) from None
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
    share, services = request.query(RetryQuery).bad_share, request.services
    job = services.jobs.get(request.path["job"])
    if share is None:
        rule = services.datasets.get(job.dataset).rules.bad_share
        share = max(rule, job.options.get("bad_share", 0.0))
    try:
        job = services.jobs.retry(job.id, {"bad_share": share})
    except NoFileError as error:
        raise ProblemError(409, str(error)) from None
    return ApiResponse(job_answer(request.services, job), status=202)


@router.endpoint(
    "DELETE", "/jobs/<job>/file", access=Access.SERVER, answer=JobAnswer, problems=(409,)
)
def discard_job_file(request: ApiRequest) -> Schema:
    """Throws the file of a load that failed or was cancelled away."""
    try:
        job = request.services.jobs.discard_file(request.path["job"])
    except NoFileError as error:
        raise ProblemError(409, str(error)) from None
    return job_answer(request.services, job)


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
    request.services.datasets.edition(name, number)
    new, jobs = NewJob(kind, name, request.caller.name, edition=number), request.services.jobs
    once_by = idempotency_key(request, f"{kind} {name}/{number}", b"")
    made = once(request.services, once_by, lambda: jobs.make(new).id)
    return _accepted(request, jobs.get(made))


def _accepted(request: ApiRequest, job: Job) -> ApiResponse:
    headers = {"Location": f"/api/v1/jobs/{job.id}"}
    return ApiResponse(job_answer(request.services, job), status=202, headers=headers)


def _require_base(request: ApiRequest, name: str, query: LoadQuery) -> None:
    """Refuses changes to an edition that there is not; loads that wait may still make one."""
    numbers = [entry.number for entry in request.services.datasets.editions(name)]
    if query.base is not None and query.base not in numbers:
        raise not_found(f"There is no edition {query.base} of dataset {name!r} to change.")
    waiting = any(job.state in OPEN_STATES for job in request.services.jobs.list(name))
    if not numbers and not waiting:
        raise ProblemError(409, f"Dataset {name!r} has no edition to change; load a whole file.")


def _dataset_name(request: ApiRequest) -> str:
    name = request.path["dataset"]
    if not _NAME.fullmatch(name):
        detail = f"{name!r} cannot name a dataset: use small letters, digits and -, at most 64."
        raise invalid([Problem("/dataset", detail)])
    if name == PRACTICE:
        detail = f"{name!r} names the addresses that are built in for practice; choose another."
        raise invalid([Problem("/dataset", detail)])
    return name


def _number(request: ApiRequest) -> int:
    text = request.path["number"]
    if not text.isascii() or not text.isdecimal() or len(text) > 9:
        raise not_found(f"There is no edition {text!r}; editions have numbers.")
    return int(text)
