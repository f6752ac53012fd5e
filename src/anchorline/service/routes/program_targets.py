"""API: program targets: for agents that keep them at hand, proposed, and runs told of."""

from __future__ import annotations

from anchorline.application.once import once
from anchorline.core.errors import Problem, unknown_name_detail
from anchorline.core.targets.programs.proposal import propose_program
from anchorline.core.targets.programs.ready_made import ready_made_targets
from anchorline.wire.base import PageQuery, Schema
from anchorline.wire.program_proposals import (
    ProgramProposalAnswer,
    ProgramProposalRequest,
    ReadyMadeTargetList,
    ReadyMadeTargetSchema,
)
from anchorline.wire.program_targets import ProgramTargetDocument
from anchorline.wire.target_runs import (
    ProgramTargetList,
    PublishedProgram,
    TargetRunList,
    TargetRunReport,
    TargetRunSchema,
)

from ..access import Access
from ..endpoints import ApiRequest, ApiResponse, Router
from ..idempotency_header import IDEMPOTENCY, idempotency_key
from ..problems import invalid
from .looks import conditions_shown, look_from
from .seen_fields import reasons_shown, seen_field

router = Router("programs", "forms")


@router.endpoint(
    "GET",
    "/program-targets",
    access=Access.SERVER,
    answer=ProgramTargetList,
    scopes=("desk", "forms"),
)
def list_program_targets(request: ApiRequest) -> Schema:
    """All published program targets, for an agent that keeps them at hand."""
    found = []
    for document, version in request.services.published_targets.all():
        if document.get("kind") == "program":
            shown = ProgramTargetDocument.model_validate(document)
            addresses = [one.model_copy(update={"examples": []}) for one in shown.addresses]
            shown = shown.model_copy(update={"addresses": addresses})
            found.append(PublishedProgram(document=shown, version=version))
    return ProgramTargetList(targets=found)


@router.endpoint("GET", "/ready-made-targets", access=Access.SERVER, answer=ReadyMadeTargetList)
def list_ready_made_targets(_request: ApiRequest) -> Schema:
    """Ready-made targets to copy and change: the fields of a screen, and what fills them."""
    return ReadyMadeTargetList(
        targets=[
            ReadyMadeTargetSchema.model_validate(
                {"name": one.name, "title": one.title, "says": one.says, **one.content}
            )
            for one in ready_made_targets()
        ]
    )


@router.endpoint(
    "POST",
    "/program-proposals",
    access=Access.SERVER,
    body=ProgramProposalRequest,
    answer=ProgramProposalAnswer,
)
def propose_program_target(request: ApiRequest) -> Schema:
    """A target for a program's screen, from looks at it and from its fields; nothing is kept."""
    body = request.body(ProgramProposalRequest)
    ready_made = {one.name: one for one in ready_made_targets()}
    if body.like is not None and body.like not in ready_made:
        detail = unknown_name_detail("ready-made target", body.like, list(ready_made))
        raise invalid([Problem("/like", detail)])
    made = propose_program(
        body.key,
        body.title,
        [look_from(facts) for facts in body.looks],
        [look_from(facts) for facts in body.others],
        [seen_field(one) for one in body.fields],
        request.services.layouts_in_force.current().on_form(None),
        ready_made[body.like] if body.like else None,
    )
    document = ProgramTargetDocument.model_validate(made.document)
    if body.countries:
        addresses = [
            one.model_copy(update={"countries": body.countries}) for one in document.addresses
        ]
        document = document.model_copy(update={"addresses": addresses})
    return ProgramProposalAnswer(
        document=document,
        conditions=conditions_shown(made.signature.conditions),
        **reasons_shown(made.reasons),
        left=[label for label in made.left if label],
    )


@router.endpoint(
    "POST",
    "/targets/<target>/runs",
    access=Access.SERVER,
    body=TargetRunReport,
    answer=None,
    status=204,
    problems=(404, 409),
    request_headers=IDEMPOTENCY,
    scopes=("desk", "forms"),
    largest_body=131_072,
)
def report_target_run(request: ApiRequest) -> ApiResponse:
    """Keeps what came of a run: its outcome and its steps, never what was written."""
    body, key = request.body(TargetRunReport), request.path["target"]
    request.services.targets.require(key)
    report = body.model_dump(mode="json", exclude={"version"})
    services, name = request.services, request.caller.name
    once_by = idempotency_key(request, f"runs/{key}", request.http.get_data())
    once(services, once_by, lambda: str(services.target_runs.keep(key, body.version, report, name)))
    return ApiResponse(None, status=204)


@router.endpoint(
    "GET",
    "/targets/<target>/runs",
    access=Access.SERVER,
    query=PageQuery,
    answer=TargetRunList,
    problems=(404,),
)
def list_target_runs(request: ApiRequest) -> Schema:
    """The runs of a program target page by page, the latest first."""
    key, query = request.path["target"], request.query(PageQuery)
    request.services.targets.require(key)
    page = request.services.target_runs.page(key, query.limit, query.after)
    return TargetRunList(
        after=page.after,
        runs=[
            TargetRunSchema.model_validate(
                {**one.report, "id": one.id, "version": one.version, "key": one.by, "at": one.at}
            )
            for one in page.entries
        ],
    )
