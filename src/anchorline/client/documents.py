"""The calls that all kinds of documents have: forms, own layouts, targets."""

from __future__ import annotations

import builtins
import secrets
from typing import Generic, TypeVar

from pydantic import BaseModel

from anchorline.wire.documents import (
    CopyRequest,
    DifferenceAnswer,
    DifferenceRequest,
    DocumentDraft,
    DocumentList,
    DocumentSummary,
    DocumentVersion,
    DocumentVersions,
    DocumentVersionSchema,
    EditorRequest,
    Editors,
    RestoreRequest,
)

from .calls import Calls, part, read_answer, request_body
from .transport import Transport

_Document = TypeVar("_Document", bound=BaseModel, contravariant=True)
_Summary = TypeVar("_Summary", bound=DocumentSummary)
_Draft = TypeVar("_Draft", bound=DocumentDraft)
_Version = TypeVar("_Version", bound=DocumentVersion)


class Documents(Calls, Generic[_Document, _Summary, _Draft, _Version]):
    """The documents of one kind. All methods raise the errors of `errors`.

    Wherever an `etag` can be given, it names the state of the document that was looked at, and
    the service refuses where somebody else has changed it since then; left out, the state is
    asked for right before.

    Args:
        path: below the API's root, where they are.
        plural: what a list of them is called in its answer.
        listed, summary, draft, version, difference: the schemas.
    """

    def __init__(
        self,
        transport: Transport,
        path: str,
        plural: str,
        *,
        listed: type[DocumentList],
        summary: type[_Summary],
        draft: type[_Draft],
        version: type[_Version],
        difference: type[DifferenceRequest],
    ) -> None:
        super().__init__(transport)
        self._path, self._plural = path, plural
        self._listed, self._summary, self._draft = listed, summary, draft
        self._version, self._difference = version, difference

    def list(self, search: str = "") -> builtins.list[_Summary]:
        """All documents, by title.

        Args:
            search: only those in whose title or key each of its words stands.
        """
        pages = self._every(self._path, self._listed, {"search": search or None})
        return [one for page in pages for one in getattr(page, self._plural)]

    def draft(self, key: str) -> tuple[_Draft, str]:
        """A draft and what there is to say of it, and its ETag."""
        answer = self._transport.send("GET", self._at(key, "draft"))
        return read_answer(self._draft, answer), answer.headers.get("ETag", "")

    def put_draft(
        self, document: _Document, etag: str | None = None, *, unfinished: bool = False
    ) -> tuple[_Draft, str]:
        """Keeps a draft; returns it with its new ETag.

        Args:
            etag: of the draft that the change was made to; None for a new document.
            unfinished: keep it although something in it is wrong, which the answer names.
        """
        answer = self._transport.send(
            "PUT",
            self._at(getattr(document, "key", ""), "draft"),
            body=document,
            headers={"If-Match": etag} if etag else None,
            query={"unfinished": "true" if unfinished else None},
        )
        return read_answer(self._draft, answer), answer.headers.get("ETag", "")

    def publish(self, key: str, etag: str | None = None) -> _Summary:
        """Publishes the draft as the next version; the same version where nothing differs."""
        return self._change(key, "publish", etag)

    def restore(self, key: str, version: int, etag: str | None = None) -> _Summary:
        """Publishes an earlier version again; with 0, none is published any more."""
        return self._change(key, "restore", etag, request_body(RestoreRequest, version=version))

    def take_back(self, key: str, etag: str | None = None) -> _Summary:
        """Makes the draft what is published: what was changed since then is gone."""
        return self._change(key, "take-back", etag)

    def copy(self, key: str, new_key: str, title: str | None = None) -> tuple[_Draft, str]:
        """Makes another document of a draft; returns its draft and ETag."""
        answer = self._transport.send(
            "POST",
            self._at(key, "copy"),
            body=request_body(CopyRequest, key=new_key, title=title),
            headers={"Idempotency-Key": secrets.token_hex(16)},
            repeatable=True,
        )
        return read_answer(self._draft, answer), answer.headers.get("ETag", "")

    def delete(self, key: str, etag: str | None = None) -> None:
        """Deletes a document that nothing needs."""
        headers = {"If-Match": etag} if etag else None
        self._transport.send("DELETE", self._at(key), headers=headers)

    def versions(self, key: str) -> builtins.list[DocumentVersionSchema]:
        """The published versions, the newest first."""
        found: builtins.list[DocumentVersionSchema] = []
        after: str | None = None
        while True:
            page = self._get(self._at(key, "versions"), DocumentVersions, {"after": after})
            found += page.versions
            if page.after is None:
                return found
            after = page.after

    def version(self, key: str, number: int) -> _Version:
        """A published version as it was."""
        return self._get(self._at(key, f"versions/{number}"), self._version)

    def difference(
        self,
        key: str,
        document: _Document | None = None,
        *,
        since: int | None = None,
        until: int | None = None,
    ) -> DifferenceAnswer:
        """What publishing would change, in sentences, and what stands against it.

        Args:
            document: instead of the draft; it need not have been kept.
            since: a version, instead of the published one.
            until: a version, instead of the draft.
        """
        if document is None:
            query = {"since": since, "until": until}
            return self._get(self._at(key, "difference"), DifferenceAnswer, query)
        body = request_body(self._difference, document=document, since=since, until=until)
        return self._post(self._at(key, "difference"), DifferenceAnswer, body)

    def note_editor(self, key: str, page: str, *, leaves: bool = False) -> Editors:
        """Notes that a page has the draft open, or was closed; who else has it open."""
        body = request_body(EditorRequest, page=page, leaves=leaves)
        return self._post(self._at(key, "editors"), Editors, body)

    def _at(self, key: str, below: str = "") -> str:
        return f"{self._path}/{part(key)}" + (f"/{below}" if below else "")

    def _change(
        self, key: str, below: str, etag: str | None, body: BaseModel | None = None
    ) -> _Summary:
        headers = {"If-Match": self.draft(key)[1] if etag is None else etag}
        answer = self._transport.send("POST", self._at(key, below), body=body, headers=headers)
        return read_answer(self._summary, answer)
