"""The calls that all kinds of documents have: one life, declared once and for each kind."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import Any

from anchorline.wire.base import Schema
from anchorline.wire.documents import (
    CopyRequest,
    DifferenceAnswer,
    DifferenceQuery,
    DocumentListQuery,
    DocumentVersions,
    DraftQuery,
    EditorRequest,
    Editors,
    RestoreRequest,
    VersionsQuery,
)

from ..access import Access
from ..endpoints import ApiRequest, ApiResponse, Handler, Router
from ..idempotency_header import IDEMPOTENCY
from .api import DocumentApi
from .calls import DocumentCalls
from .if_match import ETAG, IF_MATCH, IF_MATCH_OF_DRAFT


def document_router(api: DocumentApi) -> Router:
    """The calls on the documents of one kind."""
    router, calls = Router(api.kind.plural, "forms"), DocumentCalls(api)
    for call in _READING + _CHANGING:
        declared: dict[str, Any] = {
            name: getattr(api, value[1:]) if str(value).startswith("=") else value
            for name, value in call.declared.items()
        }
        router.endpoint(
            call.method,
            f"/{api.path}{call.below(api)}",
            access=Access.SERVER,
            before=tuple(f"/{path}{call.below(api)}" for path in api.before),
            **declared,
        )(call.handler(api, getattr(calls, call.does)))
    return router


@dataclass(frozen=True, slots=True)
class _Call:
    """A call that every kind has.

    Attributes:
        path: below that of the kind; ONE stands for a document's key.
        name: of the operation, with `{kind}` and `{plural}` in it.
        says: its summary, with `{a}`, `{noun}` and `{plural}` in it.
        does: the method of `DocumentCalls`.
        declared: of the endpoint; `=draft` is the schema of that name of the kind's API.
    """

    method: str
    path: str
    name: str
    says: str
    does: str
    declared: Mapping[str, Any]

    def below(self, api: DocumentApi) -> str:
        return self.path.replace("ONE", f"<{api.parameter}>")

    def handler(self, api: DocumentApi, does: Callable[[ApiRequest], Any]) -> Handler:
        noun, plural = api.kind.stored.noun, api.kind.plural
        a = f"{'an' if noun[0] in 'aeiou' else 'a'} {noun}"

        def handle(request: ApiRequest) -> Schema | ApiResponse:
            answer: Schema | ApiResponse = does(request)
            return answer

        handle.__name__ = self.name.format(kind=api.kind.name, plural=plural)
        handle.__doc__ = self.says.format(a=a, noun=noun, plural=plural.replace("_", " "))
        return handle


_READING = (
    _Call(
        "GET", "", "list_{plural}", "All {plural}, page by page.", "list",
        {"query": DocumentListQuery, "answer": "=listed", "scopes": "=listed_for"},
    ),
    _Call(
        "GET", "/ONE/draft", "get_{kind}_draft",
        "The draft of {a}, and what there is to say of it.", "get_draft",
        {"answer": "=draft", "problems": (404,), "answer_headers": ETAG},
    ),
    _Call(
        "GET", "/ONE/versions", "list_{kind}_versions",
        "The published versions of {a}: who, when, what.", "versions",
        {"query": VersionsQuery, "answer": DocumentVersions, "problems": (404,)},
    ),
    _Call(
        "GET", "/ONE/versions/<version>", "get_{kind}_version",
        "A published version of {a} as it was.", "version",
        {"answer": "=version", "problems": (404,)},
    ),
    _Call(
        "GET", "/ONE/difference", "get_{kind}_difference",
        "What publishing {a} would change, in sentences, and what stands against it.", "difference",
        {"query": DifferenceQuery, "answer": DifferenceAnswer, "problems": (404,)},
    ),
    _Call(
        "POST", "/ONE/difference", "compare_{kind}",
        "The same for {a} that need not have been kept; keeps nothing.", "compare",
        {"body": "=difference", "answer": DifferenceAnswer, "problems": (404,)},
    ),
)  # fmt: skip
_CHANGED: dict[str, Any] = {
    "answer": "=summary", "problems": (404, 412, 428), "request_headers": IF_MATCH,
    "answer_headers": ETAG,
}  # fmt: skip
_CHANGING = (
    _Call(
        "PUT", "/ONE/draft", "put_{kind}_draft",
        "Keeps the draft of {a}; makes the {noun} where it is new.", "put_draft",
        {
            "query": DraftQuery, "body": "=document", "answer": "=draft", "problems": (412, 428),
            "request_headers": IF_MATCH_OF_DRAFT, "answer_headers": ETAG,
        },
    ),
    _Call(
        "POST", "/ONE/publish", "publish_{kind}",
        "Publishes the draft of {a} as the next version; the same where nothing differs.",
        "publish", _CHANGED,
    ),
    _Call(
        "POST", "/ONE/restore", "restore_{kind}",
        "Publishes an earlier version of {a} again, or none; a draft that was as published "
        "follows.", "restore", {"body": RestoreRequest, **_CHANGED},
    ),
    _Call(
        "POST", "/ONE/take-back", "take_{kind}_back",
        "Makes the draft of {a} what is published: what was changed since is gone.", "take_back",
        _CHANGED,
    ),
    _Call(
        "POST", "/ONE/copy", "copy_{kind}", "Makes another {noun} of the draft of {a}.", "copy",
        {
            "body": CopyRequest, "answer": "=draft", "status": 201, "problems": (404, 409),
            "request_headers": IDEMPOTENCY, "answer_headers": ETAG,
        },
    ),
    _Call(
        "POST", "/ONE/editors", "note_{kind}_editor",
        "Notes that a page has the draft of {a} open; who else has, and whether it has changed.",
        "note_editor",
        {
            "body": EditorRequest, "answer": Editors, "problems": (404,), "answer_headers": ETAG,
        },
    ),
    _Call(
        "DELETE", "/ONE", "delete_{kind}", "Deletes {a} that nothing needs.", "delete",
        {"answer": None, "status": 204, "problems": (404, 409, 412), "request_headers": IF_MATCH},
    ),
)  # fmt: skip
