"""API: targets, pages that are not ours: drafts, publishing, attaching to them, filling them."""

from __future__ import annotations

from anchorline.core.errors import DocumentError, Problem, nearest_names, unknown_name_detail
from anchorline.core.forms.mapping_lint import lint_mappings
from anchorline.core.forms.receiving import fill_slot
from anchorline.core.formula import today
from anchorline.core.targets import PageTarget, read_page_target
from anchorline.core.targets.page import as_form, of_target
from anchorline.core.targets.proposal import propose_target
from anchorline.core.targets.seen import SeenInput
from anchorline.store.database import NotThereError, StaleError
from anchorline.store.drafts import Document, Drafted
from anchorline.wire.base import Schema
from anchorline.wire.filling import FillAnswer, FillRequest
from anchorline.wire.targets import (
    AttachedTarget,
    PageTargetDocument,
    TargetDraft,
    TargetFaultList,
    TargetFaultReport,
    TargetFaultSchema,
    TargetList,
    TargetProposalAnswer,
    TargetProposalRequest,
    TargetRestoreRequest,
    TargetSummary,
    target_as_kept,
)

from ..access import Access
from ..endpoints import ApiRequest, ApiResponse, Router
from ..mappings import AT_PUBLISH, FEWEST_AT_PUBLISH, linked_forms, sample_of
from ..problems import ProblemError, not_found, places
from .drafts import ETAG, IF_MATCH, changed_meanwhile, etag, keep_draft
from .filling import fill_answer, what_to_fill
from .link_rules import finder_of_records

router = Router("targets", "forms")


@router.endpoint("GET", "/targets", access=Access.SERVER, answer=TargetList)
def list_targets(request: ApiRequest) -> Schema:
    """All targets."""
    return TargetList(targets=[_summary(entry) for _, entry in request.services.targets.list()])


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
    body=PageTargetDocument,
    answer=TargetDraft,
    problems=(412, 428),
    request_headers=IF_MATCH,
    answer_headers=ETAG,
)
def put_target_draft(request: ApiRequest) -> ApiResponse:
    """Keeps a draft, finished or not; makes the target where it is new."""
    key, kept = request.path["target"], target_as_kept(request.body(PageTargetDocument))
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
        return _summary(targets.publish(key, entry.revision, request.caller.name))
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
    return _summary(request.services.targets.restore(request.path["target"], number))


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
    return ApiResponse(None, status=204)


@router.endpoint(
    "GET",
    "/targets/<target>",
    access=Access.CAPTURE,
    answer=AttachedTarget,
    problems=(404,),
)
def attach_target(request: ApiRequest) -> Schema:
    """A published target, for the page that attaches to it."""
    document, number, _target = _published(request)
    shown = PageTargetDocument.model_validate(document)
    addresses = [one.model_copy(update={"examples": []}) for one in shown.addresses]
    return AttachedTarget(
        document=shown.model_copy(update={"addresses": addresses}), version=number
    )


@router.endpoint(
    "POST",
    "/targets/<target>/addresses/<slot>/fill",
    access=Access.CAPTURE,
    body=FillRequest,
    answer=FillAnswer,
    problems=(404,),
)
def fill_target(request: ApiRequest) -> Schema:
    """What an address, or what is known of one, puts into the inputs of a page."""
    _document, _number, target = _published(request)
    key = request.path["slot"]
    slot = target.address(key)
    if slot is None:
        keys = [one.key for one in target.addresses]
        raise not_found(
            unknown_name_detail("address of this target", key, nearest_names(key, keys))
        )
    body = request.body(FillRequest)
    layouts = request.services.layouts_in_force.current().on_form(None)
    source = what_to_fill(request, slot, body, layouts)
    find = finder_of_records(request, target.form)
    filled = fill_slot(target.form, slot, source.known, body.values, find)
    return fill_answer(filled, source.notes, source.address)


@router.endpoint(
    "POST",
    "/targets/<target>/faults",
    access=Access.CAPTURE,
    body=TargetFaultReport,
    answer=None,
    status=204,
    problems=(404,),
    largest_body=8_192,
)
def report_target_fault(request: ApiRequest) -> ApiResponse:
    """Counts a mistake of set-up that a page has found in how it is attached."""
    _published(request)
    body = request.body(TargetFaultReport)
    named = request.http.headers.get("User-Agent", "")
    browser = "".join(sign for sign in named if sign.isprintable())[:200]
    request.services.target_faults.note(
        request.path["target"], body.kind, body.subject, body.detail, browser
    )
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


def _published(request: ApiRequest) -> tuple[Document, int, PageTarget]:
    """The published target that a page asks for.

    Raises:
        ProblemError: 403 where the key is not for it, or the page not on one of its origins; 404
            where there is none, with the nearest one that the key is for.
    """
    key, services, caller = request.path["target"], request.services, request.caller
    if not caller.may_use_target(key):
        near = nearest_names(key, caller.targets or ())
        meant = f" Did you mean {near[0]}?" if near else ""
        raise ProblemError(403, f"This key may not be used for the target {key!r}.{meant}")
    try:
        document, number = services.published_targets.version(key)
    except NotThereError as error:
        raise not_found(str(error)) from None
    target, _problems = read_page_target(
        document, services.layouts_in_force.current().on_form(None)
    )
    if caller.origin and caller.origin not in target.origins:
        raise ProblemError(
            403,
            f"The target {key!r} is not for pages of {caller.origin[:100]}: it is for "
            f"{', '.join(target.origins)}. Add the origin to the target.",
        )
    return document, number, target


def _checked(request: ApiRequest, document: Document) -> tuple[list[Problem], list[Problem]]:
    """Everything that stands against publishing a target, and what should be known of it."""
    services = request.services
    layouts = services.layouts_in_force.current().on_form(None)
    _target, problems = read_page_target(document, layouts)
    form = as_form(document)
    if not all(entry.get("countries") is None or entry["countries"] for entry in form["slots"]):
        return problems, []
    sample = sample_of(services, form, AT_PUBLISH, FEWEST_AT_PUBLISH)
    day = today(services.database.now())
    found = lint_mappings(form, layouts, sample, linked_forms(services, form), day)
    warnings: list[Problem] = []
    for one in found:
        if one.check != "document":
            listed = problems if one.severity == "problem" else warnings
            listed.append(of_target(Problem(one.pointer, one.detail, offers=one.offers)))
    return problems, warnings


def _summary(entry: Drafted) -> TargetSummary:
    return TargetSummary(
        key=entry.key,
        kind="page",
        title=entry.title,
        published_version=entry.published_version,
        draft_differs=entry.draft_differs,
        changed_at=entry.changed_at,
    )


def _draft_response(request: ApiRequest, document: Document, entry: Drafted) -> ApiResponse:
    problems, warnings = _checked(request, document)
    answer = TargetDraft(
        document=PageTargetDocument.model_validate(document),
        summary=_summary(entry),
        problems=places(problems),
        warnings=places(warnings),
    )
    return ApiResponse(answer, headers=etag(entry.revision))
