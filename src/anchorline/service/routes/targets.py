"""API: targets, pages that are not ours: drafts, publishing, attaching to them, filling them."""

from __future__ import annotations

from anchorline.application.mappings import AT_PUBLISH, FEWEST_AT_PUBLISH, linked_forms, sample_of
from anchorline.core.errors import DocumentError, Problem, unknown_name_detail
from anchorline.core.forms.mapping_lint import lint_mappings
from anchorline.core.forms.receiving import fill_slot
from anchorline.core.formula import today
from anchorline.core.practice import practice_id
from anchorline.core.targets import Target, read_target
from anchorline.core.targets.pages.proposal import propose_target
from anchorline.core.targets.pages.seen import SeenInput
from anchorline.core.targets.programs import ProgramTarget
from anchorline.core.targets.programs.planning import steps_of
from anchorline.core.targets.programs.steps import as_entry
from anchorline.core.targets.programs.wording import with_wording
from anchorline.core.targets.receivers import as_form, of_target
from anchorline.store.database import StaleError
from anchorline.store.drafts import Document, Drafted
from anchorline.wire.base import Schema
from anchorline.wire.filling import FillRequest
from anchorline.wire.page_targets import PageTargetDocument
from anchorline.wire.target_proposals import (
    PlannedStep,
    TargetProposalAnswer,
    TargetProposalRequest,
    TargetTrialAnswer,
    TargetTrialRequest,
)
from anchorline.wire.targets import (
    TargetDocument,
    TargetDraft,
    TargetFaultList,
    TargetFaultSchema,
    TargetList,
    TargetRestoreRequest,
    TargetSummary,
    target_as_kept,
)

from ..access import Access
from ..endpoints import ApiRequest, ApiResponse, Router
from ..problems import invalid, places
from .drafts import ETAG, IF_MATCH, changed_meanwhile, etag, keep_draft
from .filling import fill_answer, what_to_fill
from .link_rules import finder_of_records

router = Router("targets", "forms")


@router.endpoint("GET", "/targets", access=Access.SERVER, answer=TargetList)
def list_targets(request: ApiRequest) -> Schema:
    """All targets."""
    return TargetList(targets=[_summary(*one) for one in request.services.targets.list()])


@router.endpoint(
    "POST",
    "/target-proposals",
    access=Access.SERVER,
    body=TargetProposalRequest,
    answer=TargetProposalAnswer,
)
def propose_page_target(request: ApiRequest) -> Schema:
    """A target for a page with these inputs, each with what it is taken for and why.

    Nothing is kept.
    """
    body = request.body(TargetProposalRequest)
    seen = [
        SeenInput(
            **one.model_dump(exclude={"options"}),
            options=tuple((option.value, option.text) for option in one.options),
        )
        for one in body.inputs
    ]
    layouts = request.services.layouts_in_force.current().on_form(None)
    made = propose_target(seen, body.key, body.title, body.origins, layouts)
    return TargetProposalAnswer(
        document=PageTargetDocument.model_validate(made.document), because=dict(made.because)
    )


@router.endpoint(
    "POST",
    "/target-trials",
    access=Access.SERVER,
    body=TargetTrialRequest,
    answer=TargetTrialAnswer,
)
def try_target(request: ApiRequest) -> Schema:
    """What an address would put into a page or a program; nothing is kept.

    Where no address is named, it is a practice address of the first country.
    """
    body = request.body(TargetTrialRequest)
    layouts = request.services.layouts_in_force.current().on_form(None)
    document = target_as_kept(body.document)
    target, _problems = read_target(document, layouts)
    keys = [one.key for one in target.addresses]
    slot = target.address(body.address or (keys[0] if keys else ""))
    if slot is None:
        detail = unknown_name_detail("address of this target", body.address or "", keys)
        raise invalid([Problem("/address", detail)])
    country = slot.country or slot.countries[0]
    wanted = FillRequest(address_id=body.address_id or practice_id(country))
    source = what_to_fill(request, slot, wanted, layouts)
    filled = fill_slot(target.form, slot, source.known, {}, finder_of_records(request, target.form))
    label = source.address.line if source.address else ""
    steps = _steps(target, slot.key)
    return TargetTrialAnswer(label=label, fill=fill_answer(filled, source.notes), steps=steps)


@router.endpoint(
    "GET",
    "/targets/<target>/draft",
    access=Access.SERVER,
    answer=TargetDraft,
    problems=(404,),
    answer_headers=ETAG,
)
def get_target_draft(request: ApiRequest) -> ApiResponse:
    """A target's draft, and what stands against publishing it."""
    return _draft_response(request, *request.services.targets.draft(request.path["target"]))


@router.endpoint(
    "PUT",
    "/targets/<target>/draft",
    access=Access.SERVER,
    body=TargetDocument,
    answer=TargetDraft,
    problems=(412, 428),
    request_headers=IF_MATCH,
    answer_headers=ETAG,
)
def put_target_draft(request: ApiRequest) -> ApiResponse:
    """Keeps a draft, finished or not; makes the target where it is new."""
    key, kept = request.path["target"], target_as_kept(request.body(TargetDocument).root)
    entry = keep_draft(request, request.services.targets, key, kept)
    return _draft_response(request, kept, entry)


@router.endpoint(
    "POST",
    "/targets/<target>/publish",
    access=Access.SERVER,
    answer=TargetSummary,
    problems=(404, 412),
)
def publish_target(request: ApiRequest) -> Schema:
    """Publishes the draft as the next version; the same version where nothing differs."""
    key, targets = request.path["target"], request.services.targets
    document, entry = targets.draft(key)
    problems, _warnings = _checked(request, document)
    if problems:
        raise DocumentError(f"target {key}", problems)
    try:
        return _summary(document, targets.publish(key, entry.revision, request.caller.name))
    except StaleError as error:
        raise changed_meanwhile(error) from None


@router.endpoint(
    "POST",
    "/targets/<target>/restore",
    access=Access.SERVER,
    body=TargetRestoreRequest,
    answer=TargetSummary,
    problems=(404,),
)
def restore_target(request: ApiRequest) -> Schema:
    """Publishes an earlier version again; with 0, no page can attach any more."""
    number = request.body(TargetRestoreRequest).version or None
    key, targets = request.path["target"], request.services.targets
    entry = targets.restore(key, number)
    return _summary(targets.draft(key)[0], entry)


@router.endpoint(
    "POST",
    "/targets/<target>/take-back",
    access=Access.SERVER,
    answer=TargetSummary,
    problems=(404,),
)
def take_target_back(request: ApiRequest) -> Schema:
    """Makes the draft what is published: all that was changed since then is gone."""
    key, targets = request.path["target"], request.services.targets
    entry = targets.take_back(key)
    return _summary(targets.draft(key)[0], entry)


@router.endpoint(
    "DELETE",
    "/targets/<target>",
    access=Access.SERVER,
    answer=None,
    status=204,
    problems=(404,),
)
def delete_target(request: ApiRequest) -> ApiResponse:
    """Deletes a target with all its versions: pages that attach to it go on without a finder."""
    request.services.targets.remove(request.path["target"])
    request.services.target_runs.forget(request.path["target"])
    return ApiResponse(None, status=204)


@router.endpoint(
    "GET",
    "/targets/<target>/faults",
    access=Access.SERVER,
    answer=TargetFaultList,
    problems=(404,),
)
def list_target_faults(request: ApiRequest) -> Schema:
    """Mistakes of set-up that pages have reported, the latest first."""
    key = request.path["target"]
    request.services.targets.draft(key)
    return TargetFaultList(
        faults=[
            TargetFaultSchema.model_validate(one, from_attributes=True)
            for one in request.services.target_faults.list(key)
        ]
    )


def _checked(request: ApiRequest, document: Document) -> tuple[list[Problem], list[Problem]]:
    """Everything that stands against publishing a target, and what should be known of it."""
    services = request.services
    layouts = services.layouts_in_force.current().on_form(None)
    _target, problems = read_target(document, layouts)
    form = as_form(with_wording(document))
    if not all(entry.get("countries") is None or entry["countries"] for entry in form["slots"]):
        return problems, []
    sample = sample_of(services, form, AT_PUBLISH, FEWEST_AT_PUBLISH)
    day = today(services.database.now())
    found = lint_mappings(form, layouts, sample, linked_forms(services, form), day)
    warnings: list[Problem] = []
    for one in found:
        if one.check != "document":
            listed = problems if one.severity == "problem" else warnings
            problem = Problem(one.pointer, one.detail, offers=one.offers)
            listed.append(of_target(problem, document))
    return problems, warnings


def _steps(target: Target, address: str) -> list[PlannedStep]:
    """The steps that a program is written by; none for a page."""
    if not isinstance(target, ProgramTarget):
        return []
    labels = {field.key: field.label for field in target.form.all_fields()}
    return [
        PlannedStep(says=step.says(labels), step=dict(as_entry(step)))
        for step in steps_of(target.plans[address])
    ]


def _summary(document: Document, entry: Drafted) -> TargetSummary:
    return TargetSummary(
        key=entry.key,
        kind=document.get("kind") or "page",
        title=entry.title,
        published_version=entry.published_version,
        draft_differs=entry.draft_differs,
        changed_at=entry.changed_at,
    )


def _draft_response(request: ApiRequest, document: Document, entry: Drafted) -> ApiResponse:
    problems, warnings = _checked(request, document)
    answer = TargetDraft(
        document=TargetDocument.model_validate(document).root,
        summary=_summary(document, entry),
        problems=places(problems),
        warnings=places(warnings),
    )
    return ApiResponse(answer, headers=etag(entry.revision))
