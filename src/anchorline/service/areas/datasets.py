"""API: datasets, loads, editions and jobs."""

from __future__ import annotations

import re
from collections.abc import Iterator
from dataclasses import asdict

from anchorline.core.errors import EditionError, Problem
from anchorline.core.reference.report import report_lines
from anchorline.store.database import InUseError
from anchorline.store.datasets import DatasetRules
from anchorline.store.job_model import OPEN_STATES, Job, NewJob, NoFileError
from anchorline.wire.base import Shape
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
from ..endpoints import Area, Call, Reply
from ..loading.editions import activate_edition, remove_dataset, remove_edition
from ..loading.jobs import LoadOptions
from ..problems import ProblemError, invalid, not_found
from .dataset_answers import dataset_answer, dataset_summary, edition_answer, job_answer
from .uploads import receive_load

area = Area("datasets")
# No colon: in ids it parts the dataset's name from the row's id.
_NAME = re.compile(r"[a-z0-9][a-z0-9-]{0,63}")
_JOB_HEADERS = {"Location": "Where the job can be read"}
_KEY_HEADER = {"Idempotency-Key": "The same key and file make one load only"}


@area.endpoint("GET", "/datasets", access=Access.SERVER, answer=DatasetList)
def list_datasets(call: Call) -> Shape:
    """All datasets, with what they hold and whether work on them is going on."""
    services = call.services
    return DatasetList(
        datasets=[dataset_summary(services, dataset) for dataset in services.datasets.list()]
    )


@area.endpoint("GET", "/datasets/<dataset>", access=Access.SERVER, answer=DatasetAnswer)
def get_dataset(call: Call) -> Shape:
    """A dataset with its rules, its editions and its latest jobs."""
    return dataset_answer(call.services, call.path["dataset"])


@area.endpoint(
    "PUT",
    "/datasets/<dataset>/rules",
    access=Access.SERVER,
    body=RulesRequest,
    answer=DatasetAnswer,
)
def set_dataset_rules(call: Call) -> Shape:
    """Sets how a dataset's loads are treated; makes the dataset where it is new."""
    name = _dataset_name(call)
    call.services.datasets.set_rules(name, DatasetRules(**call.body(RulesRequest).model_dump()))
    return dataset_answer(call.services, name)


@area.endpoint(
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
def load_edition(call: Call) -> Reply:
    """Loads a file of reference data as the dataset's next edition.

    The file is CSV or JSON Lines in UTF-8, or either gzipped: as the part `file` of a form, or as
    the body itself. A worker does the load; the answer is its job.
    """
    name, query = _dataset_name(call), call.query(LoadQuery)
    known = {dataset.name: dataset for dataset in call.services.datasets.list()}
    rules = known[name].rules if name in known else DatasetRules()
    if query.changes:
        _require_base(call, name, query)
    options = LoadOptions(
        changes=query.changes,
        base=query.base,
        bad_share=rules.bad_share if query.bad_share is None else query.bad_share,
        activate=query.activate,
    )
    new = NewJob("load", name, call.caller.name, query.name, asdict(options))
    return _accepted(call, receive_load(call, new))


@area.endpoint(
    "GET", "/datasets/<dataset>/editions/<number>", access=Access.SERVER, answer=EditionAnswer
)
def get_edition(call: Call) -> Shape:
    """An edition: what was noticed in its rows, and what it changes."""
    return edition_answer(call.services, call.path["dataset"], _number(call))


@area.endpoint(
    "POST",
    "/datasets/<dataset>/editions/<number>/activate",
    access=Access.SERVER,
    answer=DatasetAnswer,
    problems=(409,),
)
def activate_dataset_edition(call: Call) -> Shape:
    """Makes an edition the active one; going back to an older one is the same step."""
    name, number = call.path["dataset"], _number(call)
    try:
        activate_edition(call.services, name, number)
    except EditionError as error:
        raise ProblemError(409, f"{error} Build its index anew first (rebuild).") from error
    return dataset_answer(call.services, name)


@area.endpoint(
    "POST",
    "/datasets/<dataset>/editions/<number>/rebuild",
    access=Access.SERVER,
    answer=JobAnswer,
    status=202,
    answer_headers=_JOB_HEADERS,
)
def rebuild_edition(call: Call) -> Reply:
    """Builds an edition's index anew from its rows."""
    return _work_on(call, "rebuild")


@area.endpoint(
    "POST",
    "/datasets/<dataset>/editions/<number>/compare",
    access=Access.SERVER,
    answer=JobAnswer,
    status=202,
    answer_headers=_JOB_HEADERS,
)
def compare_edition(call: Call) -> Reply:
    """Compares an edition with the one that is active now."""
    return _work_on(call, "compare")


@area.endpoint(
    "DELETE",
    "/datasets/<dataset>/editions/<number>",
    access=Access.SERVER,
    answer=None,
    status=204,
    problems=(409,),
)
def delete_edition(call: Call) -> Reply:
    """Takes an edition away with its rows and its index; the active one stays."""
    name, number = call.path["dataset"], _number(call)
    if call.services.datasets.get(name).active == number:
        raise ProblemError(409, f"Edition {number} is active. Activate another one first.")
    remove_edition(call.services, name, number)
    return Reply(None, status=204)


@area.endpoint(
    "DELETE",
    "/datasets/<dataset>",
    access=Access.SERVER,
    answer=None,
    status=204,
    problems=(409,),
)
def delete_dataset(call: Call) -> Reply:
    """Takes a dataset away with all its editions, also the active one, for good."""
    try:
        remove_dataset(call.services, call.path["dataset"])
    except InUseError as error:
        raise ProblemError(409, str(error)) from None
    return Reply(None, status=204)


@area.endpoint("GET", "/jobs/<job>", access=Access.SERVER, answer=JobAnswer)
def get_job(call: Call) -> Shape:
    """A job as it stands."""
    return job_answer(call.services, call.services.jobs.get(call.path["job"]))


@area.endpoint("POST", "/jobs/<job>/cancel", access=Access.SERVER, answer=JobAnswer)
def cancel_job(call: Call) -> Shape:
    """Asks a job to end; one that has ended stays as it is."""
    return job_answer(call.services, call.services.jobs.cancel(call.path["job"]))


@area.endpoint(
    "POST",
    "/jobs/<job>/retry",
    access=Access.SERVER,
    query=RetryQuery,
    answer=JobAnswer,
    status=202,
    problems=(409,),
)
def retry_job(call: Call) -> Reply:
    """Puts a load that failed or was cancelled in line again, with the file that is kept."""
    share, services = call.query(RetryQuery).bad_share, call.services
    job = services.jobs.get(call.path["job"])
    if share is None:
        rule = services.datasets.get(job.dataset).rules.bad_share
        share = max(rule, job.options.get("bad_share", 0.0))
    try:
        job = services.jobs.retry(job.id, {"bad_share": share})
    except NoFileError as error:
        raise ProblemError(409, str(error)) from None
    return Reply(job_answer(call.services, job), status=202)


@area.endpoint(
    "DELETE", "/jobs/<job>/file", access=Access.SERVER, answer=JobAnswer, problems=(409,)
)
def discard_job_file(call: Call) -> Shape:
    """Throws the file of a load that failed or was cancelled away."""
    try:
        job = call.services.jobs.discard_file(call.path["job"])
    except NoFileError as error:
        raise ProblemError(409, str(error)) from None
    return job_answer(call.services, job)


@area.endpoint(
    "GET",
    "/jobs/<job>/report",
    access=Access.SERVER,
    answer=None,
    download="text/csv",
    answer_headers={"Content-Disposition": "A name for the file"},
)
def get_job_report(call: Call) -> Reply:
    """The rows that a load left out, as CSV: line, id, finding, column, reason, row."""
    job = call.services.jobs.get(call.path["job"])

    def content() -> Iterator[bytes]:
        for line in report_lines(call.services.load_data.bad_rows(job.id)):
            yield line.encode()

    headers = {
        "Content-Type": "text/csv; charset=utf-8",
        "Content-Disposition": f'attachment; filename="{job.dataset}-rows-left-out.csv"',
        "Cache-Control": "no-store",
    }
    return Reply(None, headers=headers, stream=content())


def _work_on(call: Call, kind: str) -> Reply:
    """A new job on an edition that is there."""
    name, number = call.path["dataset"], _number(call)
    call.services.datasets.edition(name, number)
    job = call.services.jobs.make(NewJob(kind, name, call.caller.name, edition=number))
    return _accepted(call, job)


def _accepted(call: Call, job: Job) -> Reply:
    headers = {"Location": f"/api/v1/jobs/{job.id}"}
    return Reply(job_answer(call.services, job), status=202, headers=headers)


def _require_base(call: Call, name: str, query: LoadQuery) -> None:
    """Refuses changes to an edition that there is not; loads that wait may still make one."""
    numbers = [entry.number for entry in call.services.datasets.editions(name)]
    if query.base is not None and query.base not in numbers:
        raise not_found(f"There is no edition {query.base} of dataset {name!r} to change.")
    waiting = any(job.state in OPEN_STATES for job in call.services.jobs.list(name))
    if not numbers and not waiting:
        raise ProblemError(409, f"Dataset {name!r} has no edition to change; load a whole file.")


def _dataset_name(call: Call) -> str:
    name = call.path["dataset"]
    if not _NAME.fullmatch(name):
        detail = f"{name!r} cannot name a dataset: use small letters, digits and -, at most 64."
        raise invalid([Problem("/dataset", detail)])
    return name


def _number(call: Call) -> int:
    text = call.path["number"]
    if not text.isascii() or not text.isdecimal() or len(text) > 9:
        raise not_found(f"There is no edition {text!r}; editions have numbers.")
    return int(text)
