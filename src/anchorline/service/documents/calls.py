"""What the calls on documents do: each parses, calls a use case, and answers."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from anchorline.application.documents import life
from anchorline.store.cursors import Cursor
from anchorline.store.database import NotThereError, StaleError
from anchorline.store.document_model import Document, Entry
from anchorline.wire.base import Schema
from anchorline.wire.documents import (
    ChangeSchema,
    CopyRequest,
    DifferenceAnswer,
    DifferenceQuery,
    DocumentListQuery,
    DocumentVersions,
    DocumentVersionSchema,
    DraftQuery,
    EditorRequest,
    Editors,
    EditorSchema,
    RestoreRequest,
    VersionsQuery,
)

from ..endpoints import ApiRequest, ApiResponse
from ..idempotency_header import idempotency_key
from ..problems import ProblemError, places
from .api import DocumentApi
from .if_match import changed_meanwhile, etag, is_given, state_given


class DocumentCalls:
    """The calls on the documents of one kind."""

    def __init__(self, api: DocumentApi) -> None:
        self._api, self._kind = api, api.kind

    def list(self, request: ApiRequest) -> Schema:
        query, store = request.query(DocumentListQuery), self._kind.store(request.services)
        page = store.page(query.limit, after=query.after, search=query.search)
        listed = self._api.summaries(request.services, page.entries)
        return self._api.listed.model_validate({self._kind.plural: listed, "after": page.after})

    def get_draft(self, request: ApiRequest) -> ApiResponse:
        return self._drafted(request, *self._kind.store(request.services).draft(self._key(request)))

    def put_draft(self, request: ApiRequest) -> ApiResponse:
        key, services = self._key(request), request.services
        kept = self._api.as_kept(request.body(self._api.document))
        unfinished = request.query(DraftQuery).unfinished
        try:
            revision = self._revision_of_draft(request, key)
            entry = life.keep_draft(
                services, self._kind, key, kept, revision, unfinished=unfinished
            )
        except StaleError as error:
            raise changed_meanwhile(error, "draft") from None
        except NotThereError:
            gone = f"There is no {self._kind.stored.noun} {key!r} any more."
            raise ProblemError(412, f"{gone} To make it anew, send it without If-Match.") from None
        return self._drafted(request, kept, entry)

    def _revision_of_draft(self, request: ApiRequest, key: str) -> int | None:
        """The revision that a change was made to; None for a new document."""
        store = self._kind.store(request.services)
        if not is_given(request):
            try:
                store.require(key)
            except NotThereError:
                return None
        seen = state_given(request, "draft")
        return seen.revision if seen else store.draft(key)[1].revision

    def publish(self, request: ApiRequest) -> ApiResponse:
        seen = state_given(request, self._kind.stored.noun)
        revision = seen.revision if seen else None
        return self._changed(
            request,
            lambda key: life.publish(
                request.services, self._kind, key, revision, request.caller.name
            ),
        )

    def restore(self, request: ApiRequest) -> ApiResponse:
        number = request.body(RestoreRequest).version or None
        seen = state_given(request, self._kind.stored.noun)
        return self._changed(
            request, lambda key: life.restore(request.services, self._kind, key, number, seen)
        )

    def take_back(self, request: ApiRequest) -> ApiResponse:
        seen, store = (
            state_given(request, self._kind.stored.noun),
            self._kind.store(request.services),
        )
        return self._changed(request, lambda key: store.take_back(key, seen))

    def copy(self, request: ApiRequest) -> ApiResponse:
        key, body = self._key(request), request.body(CopyRequest)
        scope = f"copy {self._kind.name}/{key}"
        once_by = idempotency_key(request, scope, request.http.get_data())
        made = life.copy(request.services, self._kind, key, body.key, body.title, once_by)
        answer = self._drafted(request, *made)
        return ApiResponse(answer.content, status=201, headers=answer.headers)

    def delete(self, request: ApiRequest) -> ApiResponse:
        seen = state_given(request, self._kind.stored.noun) if is_given(request) else None
        try:
            life.delete(request.services, self._kind, self._key(request), seen)
        except StaleError as error:
            raise changed_meanwhile(error, self._kind.stored.noun) from None
        return ApiResponse(None, status=204)

    def versions(self, request: ApiRequest) -> Schema:
        query, cursor = request.query(VersionsQuery), Cursor("versions")
        before = None if query.after is None else cursor.read(query.after, int)[0]
        key, limit = self._key(request), query.limit
        found = life.versions(request.services, self._kind, key, limit + 1, before)
        return DocumentVersions(
            versions=[
                DocumentVersionSchema.model_validate(
                    {**{name: getattr(one, name) for name in _OF_VERSION}, "records": one.uses}
                )
                for one in found[:limit]
            ],
            after=cursor.after(found[limit - 1].number) if len(found) > limit else None,
        )

    def version(self, request: ApiRequest) -> Schema:
        given = request.path["version"]
        number = int(given) if given.isdecimal() and len(given) < 10 else 0
        version = self._kind.store(request.services).version(self._key(request), number)
        return self._api.shown_version(request.services, version)

    def difference(self, request: ApiRequest) -> Schema:
        query = request.query(DifferenceQuery)
        return self._difference(request, None, query.since, query.until)

    def compare(self, request: ApiRequest) -> Schema:
        body: Any = request.body(self._api.difference)
        document = None if body.document is None else self._api.as_kept(body.document)
        return self._difference(request, document, body.since, body.until)

    def _difference(
        self, request: ApiRequest, document: Document | None, since: int | None, until: int | None
    ) -> Schema:
        found = life.difference(
            request.services,
            self._kind,
            self._key(request),
            document=document,
            since=since,
            until=until,
        )
        return DifferenceAnswer(
            changes=[
                ChangeSchema(kind=one.kind, pointer=one.pointer, detail=detail, records=records)
                for one, detail, records in found.changes
            ],
            problems=places(found.problems),
            warnings=places(found.warnings),
            unreadable=found.unreadable,
            is_new=found.is_new,
        )

    def note_editor(self, request: ApiRequest) -> ApiResponse:
        body = request.body(EditorRequest)
        others, entry = life.note_editor(
            request.services,
            self._kind,
            self._key(request),
            body.page,
            request.caller.name,
            leaves=body.leaves,
        )
        answer = Editors(
            editors=[EditorSchema(name=other.name, since=other.since) for other in others],
            revision=entry.revision,
        )
        return ApiResponse(answer, headers=etag(entry.tag))

    def _key(self, request: ApiRequest) -> str:
        return request.path[self._api.parameter]

    def _changed(self, request: ApiRequest, change: Callable[[str], Entry]) -> ApiResponse:
        try:
            entry = change(self._key(request))
        except StaleError as error:
            raise changed_meanwhile(error, "draft") from None
        [summary] = self._api.summaries(request.services, [entry])
        return ApiResponse(summary, headers=etag(entry.tag))

    def _drafted(self, request: ApiRequest, document: Document, entry: Entry) -> ApiResponse:
        checked = self._kind.noticed(request.services, document)
        answer = self._api.shown_draft(request.services, document, entry, checked)
        return ApiResponse(answer, headers=etag(entry.tag))


_OF_VERSION = ("number", "published_at", "published_by", "in_force", "changes", "more_changes")
