"""API: administrators' own layouts: drafts, previews, publishing, restoring."""

from __future__ import annotations

from collections.abc import Iterable

from anchorline.core.errors import DocumentError, Problem
from anchorline.core.forms import Form, fit_problems, read_form
from anchorline.core.layouts.own import (
    OwnLayout,
    base_of,
    conflicts,
    read_own_layout,
    review,
)
from anchorline.store.database import NotThereError, StaleError
from anchorline.store.drafts import Document, Drafted
from anchorline.store.own_layouts import OwnLayoutVersion
from anchorline.wire.base import Schema
from anchorline.wire.own_layouts import (
    ConflictSchema,
    OwnLayoutDocument,
    OwnLayoutDraft,
    OwnLayoutList,
    OwnLayoutSummary,
    OwnLayoutVersions,
    OwnLayoutVersionSchema,
    PreviewAnswer,
    PreviewRequest,
    RestoreRequest,
    own_layout_as_kept,
)

from ..access import Access
from ..endpoints import ApiRequest, ApiResponse, Router
from ..problems import invalid, places
from .drafts import ETAG, IF_MATCH, changed_meanwhile, etag, keep_draft
from .own_layout_preview import differences_from_base, preview

router = Router("own_layouts", "forms")


@router.endpoint("GET", "/own-layouts", access=Access.SERVER, answer=OwnLayoutList)
def list_own_layouts(request: ApiRequest) -> Schema:
    """All own layouts."""
    published = {kept.key: kept for kept in request.services.own_layouts.published()}
    return OwnLayoutList(
        own_layouts=[
            _summary(request, document, entry, published.get(entry.key))
            for document, entry in request.services.own_layouts.list()
        ]
    )


@router.endpoint(
    "GET",
    "/own-layouts/<own_layout>/draft",
    access=Access.SERVER,
    answer=OwnLayoutDraft,
    problems=(404,),
    answer_headers=ETAG,
)
def get_own_layout_draft(request: ApiRequest) -> ApiResponse:
    """An own layout's draft, what stands against publishing it, and what it changes."""
    return _draft_response(request, *request.services.own_layouts.draft(request.path["own_layout"]))


@router.endpoint(
    "PUT",
    "/own-layouts/<own_layout>/draft",
    access=Access.SERVER,
    body=OwnLayoutDocument,
    answer=OwnLayoutDraft,
    problems=(412, 428),
    request_headers=IF_MATCH,
    answer_headers=ETAG,
)
def put_own_layout_draft(request: ApiRequest) -> ApiResponse:
    """Keeps a draft; makes the own layout where it is new."""
    key, document = request.path["own_layout"], request.body(OwnLayoutDocument)
    kept = own_layout_as_kept(document)
    _own, problems = read_own_layout(kept, request.services.layouts)
    if problems:
        raise invalid(problems)
    entry = keep_draft(request, request.services.own_layouts, key, kept)
    return _draft_response(request, kept, entry)


@router.endpoint(
    "POST",
    "/own-layouts/<own_layout>/publish",
    access=Access.SERVER,
    answer=OwnLayoutSummary,
    problems=(404, 412),
)
def publish_own_layout(request: ApiRequest) -> Schema:
    """Publishes the draft as the next version; forms follow at once."""
    key, kept = request.path["own_layout"], request.services.own_layouts
    document, entry = kept.draft(key)
    own, problems = _reviewed(request, document)
    if problems:
        raise invalid(problems)
    base = base_of(own, request.services.layouts)
    try:
        entry = kept.publish(key, entry.revision, base, request.caller.name)
    except StaleError as error:
        raise changed_meanwhile(error) from None
    return _summary(request, document, entry, _version_in_force(request, entry))


@router.endpoint(
    "GET",
    "/own-layouts/<own_layout>/versions",
    access=Access.SERVER,
    answer=OwnLayoutVersions,
    problems=(404,),
)
def list_own_layout_versions(request: ApiRequest) -> Schema:
    """All published versions of an own layout."""
    key = request.path["own_layout"]
    in_force = request.services.own_layouts.draft(key)[1].published_version
    return OwnLayoutVersions(
        versions=[
            OwnLayoutVersionSchema(
                number=version.number,
                published_at=version.published_at,
                published_by=version.published_by,
                in_force=version.number == in_force,
            )
            for version in request.services.own_layouts.versions(key)
        ]
    )


@router.endpoint(
    "POST",
    "/own-layouts/<own_layout>/restore",
    access=Access.SERVER,
    body=RestoreRequest,
    answer=OwnLayoutSummary,
    problems=(404,),
)
def restore_own_layout(request: ApiRequest) -> Schema:
    """Puts an earlier version in force again, or none; forms follow at once."""
    key, kept = request.path["own_layout"], request.services.own_layouts
    number = request.body(RestoreRequest).version or None
    if number is not None:
        earlier = next((v for v in kept.versions(key) if v.number == number), None)
        if earlier is None:
            raise NotThereError(f"The own layout {key!r} has no version {number}.")
        problems = _reviewed(request, earlier.document)[1]
        if problems:
            raise invalid(problems)
    entry = kept.restore(key, number)
    return _summary(request, kept.draft(key)[0], entry, _version_in_force(request, entry))


@router.endpoint(
    "DELETE",
    "/own-layouts/<own_layout>",
    access=Access.SERVER,
    answer=None,
    status=204,
    problems=(404,),
)
def delete_own_layout(request: ApiRequest) -> ApiResponse:
    """Deletes an own layout; the base layouts hold again at once."""
    request.services.own_layouts.remove(request.path["own_layout"])
    return ApiResponse(None, status=204)


@router.endpoint(
    "POST",
    "/own-layouts/preview",
    access=Access.SERVER,
    body=PreviewRequest,
    answer=PreviewAnswer,
)
def preview_own_layout(request: ApiRequest) -> Schema:
    """How a country would be asked for and written, were a document published; keeps nothing."""
    body = request.body(PreviewRequest)
    document = own_layout_as_kept(body.document)
    own, problems = _reviewed(request, document)
    return preview(request, own, problems, body)


def _reviewed(request: ApiRequest, document: Document) -> tuple[OwnLayout, list[Problem]]:
    """The own layout of a document, and everything that stands against publishing it."""
    own, problems = read_own_layout(document, request.services.layouts)
    in_force = request.services.layouts_in_force.current()
    if not problems:
        problems = review(own, in_force)
        problems += fit_problems(own, in_force.with_draft(own), _published_forms(request))
    return own, problems


def _published_forms(request: ApiRequest) -> Iterable[Form]:
    for document in request.services.forms.published():
        try:
            yield read_form(document, request.services.layouts)
        except DocumentError:
            continue  # one that an older release kept, and that nobody can open now


def _version_in_force(request: ApiRequest, entry: Drafted) -> OwnLayoutVersion | None:
    versions = request.services.own_layouts.versions(entry.key)
    return next((v for v in versions if v.number == entry.published_version), None)


def _conflicts(request: ApiRequest, published: OwnLayoutVersion | None) -> list[ConflictSchema]:
    if published is None:
        return []
    own, _problems = read_own_layout(published.document, request.services.layouts)
    return [
        ConflictSchema(
            country_code=c.country_code, pointer=c.pointer, was=c.was, now=c.now, detail=c.detail
        )
        for c in conflicts(own, published.base, request.services.layouts)
    ]


def _summary(
    request: ApiRequest, document: Document, entry: Drafted, published: OwnLayoutVersion | None
) -> OwnLayoutSummary:
    return OwnLayoutSummary(
        key=entry.key,
        title=entry.title,
        countries=document["countries"],
        forms=document.get("forms", []),
        published_version=entry.published_version,
        draft_differs=entry.draft_differs,
        changed_at=entry.changed_at,
        conflicts=len(_conflicts(request, published)),
    )


def _draft_response(request: ApiRequest, document: Document, entry: Drafted) -> ApiResponse:
    own, problems = _reviewed(request, document)
    published = _version_in_force(request, entry)
    answer = OwnLayoutDraft(
        document=OwnLayoutDocument.model_validate(document),
        own_layout=_summary(request, document, entry, published),
        problems=places(problems),
        conflicts=_conflicts(request, published),
        differences=differences_from_base(request, own),
    )
    return ApiResponse(answer, headers=etag(entry.revision))
