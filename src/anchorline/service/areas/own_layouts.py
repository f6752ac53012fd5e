"""API: administrators' own layouts: drafts, previews, publishing, going back."""

from __future__ import annotations

from collections.abc import Iterable

from anchorline.core.errors import DocumentError, Problem
from anchorline.core.forms import Form, fit_problems, read_form
from anchorline.core.layouts.own import (
    OwnLayout,
    conflicts,
    ground_of,
    read_own_layout,
    review,
)
from anchorline.store.database import NotThereError, StaleError
from anchorline.store.drafts import Document, Drafted
from anchorline.store.own_layouts import OwnLayoutVersion
from anchorline.wire.base import Shape
from anchorline.wire.own_layouts import (
    ConflictShape,
    GoBackRequest,
    OwnLayoutDocument,
    OwnLayoutDraft,
    OwnLayoutList,
    OwnLayoutSummary,
    OwnLayoutVersions,
    OwnLayoutVersionShape,
    PreviewAnswer,
    PreviewRequest,
    own_layout_as_kept,
)

from ..access import Access
from ..endpoints import Area, Call, Reply
from ..problems import invalid
from .drafts import ETAG, IF_MATCH, changed_meanwhile, etag, keep_draft
from .own_layout_preview import differences_from_below, places, preview

area = Area("own_layouts")


@area.endpoint("GET", "/own-layouts", access=Access.SERVER, answer=OwnLayoutList)
def list_own_layouts(call: Call) -> Shape:
    """All own layouts."""
    published = {kept.key: kept for kept in call.services.own_layouts.published()}
    return OwnLayoutList(
        own_layouts=[
            _summary(call, document, entry, published.get(entry.key))
            for document, entry in call.services.own_layouts.list()
        ]
    )


@area.endpoint(
    "GET",
    "/own-layouts/<own_layout>/draft",
    access=Access.SERVER,
    answer=OwnLayoutDraft,
    problems=(404,),
    answer_headers=ETAG,
)
def get_own_layout_draft(call: Call) -> Reply:
    """An own layout's draft, what stands against publishing it, and what it changes."""
    return _draft_reply(call, *call.services.own_layouts.draft(call.path["own_layout"]))


@area.endpoint(
    "PUT",
    "/own-layouts/<own_layout>/draft",
    access=Access.SERVER,
    body=OwnLayoutDocument,
    answer=OwnLayoutDraft,
    problems=(412, 428),
    request_headers=IF_MATCH,
    answer_headers=ETAG,
)
def put_own_layout_draft(call: Call) -> Reply:
    """Keeps a draft; makes the own layout where it is new."""
    key, document = call.path["own_layout"], call.body(OwnLayoutDocument)
    kept = own_layout_as_kept(document)
    _own, problems = read_own_layout(kept, call.services.layouts)
    if problems:
        raise invalid(problems)
    entry = keep_draft(call, call.services.own_layouts, key, kept)
    return _draft_reply(call, kept, entry)


@area.endpoint(
    "POST",
    "/own-layouts/<own_layout>/publish",
    access=Access.SERVER,
    answer=OwnLayoutSummary,
    problems=(404, 412),
)
def publish_own_layout(call: Call) -> Shape:
    """Publishes the draft as the next version; forms follow at once."""
    key, kept = call.path["own_layout"], call.services.own_layouts
    document, entry = kept.draft(key)
    own, problems = _reviewed(call, document)
    if problems:
        raise invalid(problems)
    ground = ground_of(own, call.services.layouts)
    try:
        entry = kept.publish(key, entry.revision, ground, call.caller.name)
    except StaleError as error:
        raise changed_meanwhile(error) from None
    return _summary(call, document, entry, _version_in_force(call, entry))


@area.endpoint(
    "GET",
    "/own-layouts/<own_layout>/versions",
    access=Access.SERVER,
    answer=OwnLayoutVersions,
    problems=(404,),
)
def list_own_layout_versions(call: Call) -> Shape:
    """All published versions of an own layout."""
    key = call.path["own_layout"]
    in_force = call.services.own_layouts.draft(key)[1].published_version
    return OwnLayoutVersions(
        versions=[
            OwnLayoutVersionShape(
                number=version.number,
                published_at=version.published_at,
                published_by=version.published_by,
                in_force=version.number == in_force,
            )
            for version in call.services.own_layouts.versions(key)
        ]
    )


@area.endpoint(
    "POST",
    "/own-layouts/<own_layout>/go-back",
    access=Access.SERVER,
    body=GoBackRequest,
    answer=OwnLayoutSummary,
    problems=(404,),
)
def go_back_to_version(call: Call) -> Shape:
    """Puts an earlier version in force again, or none; forms follow at once."""
    key, kept = call.path["own_layout"], call.services.own_layouts
    number = call.body(GoBackRequest).version or None
    if number is not None:
        earlier = next((v for v in kept.versions(key) if v.number == number), None)
        if earlier is None:
            raise NotThereError(f"The own layout {key!r} has no version {number}.")
        problems = _reviewed(call, earlier.document)[1]
        if problems:
            raise invalid(problems)
    entry = kept.go_back(key, number)
    return _summary(call, kept.draft(key)[0], entry, _version_in_force(call, entry))


@area.endpoint(
    "DELETE",
    "/own-layouts/<own_layout>",
    access=Access.SERVER,
    answer=None,
    status=204,
    problems=(404,),
)
def delete_own_layout(call: Call) -> Reply:
    """Deletes an own layout; the layouts below it hold again at once."""
    call.services.own_layouts.remove(call.path["own_layout"])
    return Reply(None, status=204)


@area.endpoint(
    "POST",
    "/own-layouts/preview",
    access=Access.SERVER,
    body=PreviewRequest,
    answer=PreviewAnswer,
)
def preview_own_layout(call: Call) -> Shape:
    """How a country would be asked for and written, were a document published; keeps nothing."""
    body = call.body(PreviewRequest)
    document = own_layout_as_kept(body.document)
    own, problems = _reviewed(call, document)
    return preview(call, own, problems, body)


def _reviewed(call: Call, document: Document) -> tuple[OwnLayout, list[Problem]]:
    """The own layout of a document, and everything that stands against publishing it."""
    own, problems = read_own_layout(document, call.services.layouts)
    in_force = call.services.layouts_in_force.current()
    if not problems:
        problems = review(own, in_force)
        problems += fit_problems(own, in_force.with_trial(own), _published_forms(call))
    return own, problems


def _published_forms(call: Call) -> Iterable[Form]:
    for document in call.services.forms.published():
        try:
            yield read_form(document, call.services.layouts)
        except DocumentError:
            continue  # one that an older release kept, and that nobody can open now


def _version_in_force(call: Call, entry: Drafted) -> OwnLayoutVersion | None:
    versions = call.services.own_layouts.versions(entry.key)
    return next((v for v in versions if v.number == entry.published_version), None)


def _conflicts(call: Call, published: OwnLayoutVersion | None) -> list[ConflictShape]:
    if published is None:
        return []
    own, _problems = read_own_layout(published.document, call.services.layouts)
    return [
        ConflictShape(
            country_code=c.country_code, pointer=c.pointer, was=c.was, now=c.now, detail=c.detail
        )
        for c in conflicts(own, published.ground, call.services.layouts)
    ]


def _summary(
    call: Call, document: Document, entry: Drafted, published: OwnLayoutVersion | None
) -> OwnLayoutSummary:
    return OwnLayoutSummary(
        key=entry.key,
        title=entry.title,
        countries=document["countries"],
        forms=document.get("forms", []),
        published_version=entry.published_version,
        draft_differs=entry.draft_differs,
        changed_at=entry.changed_at,
        conflicts=len(_conflicts(call, published)),
    )


def _draft_reply(call: Call, document: Document, entry: Drafted) -> Reply:
    own, problems = _reviewed(call, document)
    published = _version_in_force(call, entry)
    answer = OwnLayoutDraft(
        document=OwnLayoutDocument.model_validate(document),
        own_layout=_summary(call, document, entry, published),
        problems=places(problems),
        conflicts=_conflicts(call, published),
        differences=differences_from_below(call, own),
    )
    return Reply(answer, headers=etag(entry.revision))
