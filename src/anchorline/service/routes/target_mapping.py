"""API: the mapping of a target's addresses: checked, tried, proposed, run over samples."""

from __future__ import annotations

from anchorline.application import mapping_workbench as workbench
from anchorline.application.coverage import WantedRun, start_coverage
from anchorline.application.mapped_drafts import TARGETS_MAPPED
from anchorline.store.document_model import Document
from anchorline.wire.base import Schema
from anchorline.wire.coverage import CoverageRequest, CoverageRuns
from anchorline.wire.datasets import JobAnswer
from anchorline.wire.filling import FillAnswer
from anchorline.wire.mapping import LintAnswer, MappingSamples, ProposedRules
from anchorline.wire.target_mapping import LintTargetRequest, TryTargetMappingRequest
from anchorline.wire.targets import target_as_kept

from ..access import Access
from ..endpoints import ApiRequest, ApiResponse, Router
from ..idempotency_header import IDEMPOTENCY, idempotency_key
from .coverage import coverage_runs
from .dataset_answers import job_answer
from .filling import fill_answer
from .mapping_answers import lint_answer, proposals_answer, samples_answer, tried_of

router = Router("target_mapping", "forms")


@router.endpoint(
    "POST",
    "/targets/<target>/lint",
    access=Access.SERVER,
    body=LintTargetRequest,
    answer=LintAnswer,
    problems=(404,),
)
def lint_target(request: ApiRequest) -> Schema:
    """What is wrong with the mappings of a draft, and what should be known; keeps nothing."""
    given = _kept(request.body(LintTargetRequest))
    found = workbench.lint(request.services, TARGETS_MAPPED, request.path["target"], given)
    return lint_answer(found)


@router.endpoint(
    "GET",
    "/targets/<target>/addresses/<slot>/samples",
    access=Access.SERVER,
    answer=MappingSamples,
    problems=(404,),
)
def list_target_samples(request: ApiRequest) -> Schema:
    """Addresses to try a mapping with: usual ones and odd ones of each country."""
    return samples_answer(workbench.samples(request.services, TARGETS_MAPPED, *_place(request)))


@router.endpoint(
    "POST",
    "/targets/<target>/addresses/<slot>/proposals",
    access=Access.SERVER,
    body=LintTargetRequest,
    answer=ProposedRules,
    problems=(404,),
)
def propose_target_rules(request: ApiRequest) -> Schema:
    """Rules for the fields of a draft that no rule of an address writes yet, with their reasons."""
    given = _kept(request.body(LintTargetRequest))
    found = workbench.propose(request.services, TARGETS_MAPPED, *_place(request), given)
    return proposals_answer(found)


@router.endpoint(
    "POST",
    "/targets/<target>/addresses/<slot>/try",
    access=Access.SERVER,
    body=TryTargetMappingRequest,
    answer=FillAnswer,
    problems=(404,),
)
def try_target_mapping(request: ApiRequest) -> Schema:
    """What a draft's mapping makes of an address, step by step; keeps nothing."""
    body = request.body(TryTargetMappingRequest)
    return fill_answer(
        workbench.try_out(
            request.services,
            request.caller,
            TARGETS_MAPPED,
            *_place(request),
            _kept(body),
            tried_of(body),
            body.values,
        )
    )


@router.endpoint(
    "POST",
    "/targets/<target>/addresses/<slot>/coverage",
    access=Access.SERVER,
    body=CoverageRequest,
    answer=JobAnswer,
    status=202,
    problems=(404, 409),
    request_headers=IDEMPOTENCY,
    answer_headers={"Location": "Where the job can be watched"},
)
def start_target_coverage(request: ApiRequest) -> ApiResponse:
    """Runs a draft's mapping over many addresses: a job."""
    target, slot = _place(request)
    body, services = request.body(CoverageRequest), request.services
    once_by = idempotency_key(
        request, f"coverage of target {target}/{slot}", request.http.get_data()
    )
    wanted = WantedRun(body.source, body.per_country, body.rows, body.table)
    job = start_coverage(services, request.caller, TARGETS_MAPPED, target, slot, wanted, once_by)
    headers = {"Location": f"/api/v1/jobs/{job.id}"}
    return ApiResponse(job_answer(services, job), status=202, headers=headers)


@router.endpoint(
    "GET",
    "/targets/<target>/addresses/<slot>/coverage",
    access=Access.SERVER,
    answer=CoverageRuns,
    problems=(404,),
)
def list_target_coverage(request: ApiRequest) -> Schema:
    """The latest runs over many addresses, newest first."""
    target, slot = _place(request)
    request.services.targets.require(target)
    return coverage_runs(request.services.coverage_runs.list("target", target, slot))


def _kept(body: LintTargetRequest | TryTargetMappingRequest) -> Document | None:
    """A document that was given in place of the draft."""
    return None if body.document is None else target_as_kept(body.document)


def _place(request: ApiRequest) -> tuple[str, str]:
    """The target and its address of the path."""
    return request.path["target"], request.path["slot"]
