"""API: pages that attach to a published target: read, filled, their mistakes reported."""

from __future__ import annotations

from anchorline.application import targets
from anchorline.core.targets.pages import PageTarget
from anchorline.wire.base import Schema
from anchorline.wire.filling import FillAnswer, FillRequest
from anchorline.wire.page_targets import PageTargetDocument
from anchorline.wire.targets import AttachedTarget, CountryFieldSchema, TargetFaultReport

from ..access import Access
from ..endpoints import ApiRequest, ApiResponse, Router
from ..problems import not_found
from .filling import fill_answer, wanted_fill

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
    document, number, target = targets.attach(
        request.services, request.caller, request.path["target"]
    )
    if not isinstance(target, PageTarget):
        raise not_found(
            f"The target {target.key!r} is a program: anchorline desk writes into it, no page."
        )
    shown = PageTargetDocument.model_validate(document)
    addresses = [one.model_copy(update={"examples": []}) for one in shown.addresses]
    return AttachedTarget(
        document=shown.model_copy(update={"addresses": addresses}),
        version=number,
        country_fields={
            key: CountryFieldSchema(field=one.field, texts=one.texts)
            for key, one in targets.country_fields(request.services, target).items()
        },
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
    """What an address, or what is known of one, puts into the fields of a page."""
    body, path = request.body(FillRequest), request.path
    return fill_answer(
        targets.fill_attached(
            request.services,
            request.caller,
            path["target"],
            path["slot"],
            wanted_fill(body),
            body.values,
        )
    )


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
    key, body = request.path["target"], request.body(TargetFaultReport)
    targets.attach(request.services, request.caller, key)
    named = request.http.headers.get("User-Agent", "")
    browser = "".join(sign for sign in named if sign.isprintable())[:200]
    request.services.target_faults.note(key, body.kind, body.subject, body.detail, browser)
    return ApiResponse(None, status=204)
