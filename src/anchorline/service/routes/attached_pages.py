"""API: pages that attach to a published target: read, filled, their mistakes reported."""

from __future__ import annotations

from anchorline.core.errors import nearest_names, unknown_name_detail
from anchorline.core.forms.receiving import fill_slot
from anchorline.core.targets import Target, read_target
from anchorline.core.targets.pages import PageTarget
from anchorline.store.database import NotThereError
from anchorline.store.drafts import Document
from anchorline.wire.base import Schema
from anchorline.wire.filling import FillAnswer, FillRequest
from anchorline.wire.page_targets import PageTargetDocument
from anchorline.wire.targets import AttachedTarget, TargetFaultReport

from ..access import Access
from ..endpoints import ApiRequest, ApiResponse, Router
from ..problems import ProblemError, not_found
from .filling import fill_answer, what_to_fill
from .link_rules import finder_of_records

router = Router("attached", "forms")


@router.endpoint(
    "GET",
    "/targets/<target>",
    access=Access.CAPTURE,
    answer=AttachedTarget,
    problems=(404,),
)
def attach_target(request: ApiRequest) -> Schema:
    """A published target, for the page that attaches to it."""
    document, number, target = published_target(request)
    if not isinstance(target, PageTarget):
        raise not_found(
            f"The target {target.key!r} is a program: anchorline desk writes into it, no page."
        )
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
    scopes=("desk", "forms"),
)
def fill_target(request: ApiRequest) -> Schema:
    """What an address, or what is known of one, puts into the inputs of a page."""
    _document, _number, target = published_target(request)
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
    published_target(request)
    body = request.body(TargetFaultReport)
    named = request.http.headers.get("User-Agent", "")
    browser = "".join(sign for sign in named if sign.isprintable())[:200]
    request.services.target_faults.note(
        request.path["target"], body.kind, body.subject, body.detail, browser
    )
    return ApiResponse(None, status=204)


def published_target(request: ApiRequest) -> tuple[Document, int, Target]:
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
    target, _problems = read_target(document, services.layouts_in_force.current().on_form(None))
    if not isinstance(target, PageTarget):
        if caller.kind in ("browser", "page"):
            detail = f"The target {key!r} is a program: it is filled with a server key."
            raise ProblemError(403, detail)
        return document, number, target
    if caller.origin and caller.origin not in target.origins:
        raise ProblemError(
            403,
            f"The target {key!r} is not for pages of {caller.origin[:100]}: it is for "
            f"{', '.join(target.origins)}. Add the origin to the target.",
        )
    return document, number, target
