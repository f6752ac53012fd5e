"""The calls on administrators' own layouts."""

from __future__ import annotations

from collections.abc import Mapping

from anchorline.wire.own_layouts import (
    OwnLayoutDocument,
    OwnLayoutDraft,
    OwnLayoutList,
    OwnLayoutSummary,
    OwnLayoutVersions,
    PreviewAnswer,
    PreviewRequest,
    RestoreRequest,
)

from .calls import Calls, part, read_answer, request_body


class OwnLayouts(Calls):
    """Own layouts, as `Client.own_layouts`. All methods raise the errors of `errors`."""

    def all(self) -> list[OwnLayoutSummary]:
        """All own layouts."""
        return self._get("own-layouts", OwnLayoutList).own_layouts

    def draft(self, key: str) -> tuple[OwnLayoutDraft, str]:
        """A draft, what it changes, what stands against publishing it; and its ETag."""
        answer = self._transport.send("GET", f"{_own(key)}/draft")
        return read_answer(OwnLayoutDraft, answer), answer.headers["ETag"]

    def put_draft(self, document: OwnLayoutDocument, *, etag: str | None = None) -> OwnLayoutDraft:
        """Keeps a draft; `etag` is that of the draft it was made from, None for a new one."""
        headers = {"If-Match": etag} if etag else {}
        path = f"{_own(document.key)}/draft"
        answer = self._transport.send("PUT", path, body=document, headers=headers)
        return read_answer(OwnLayoutDraft, answer)

    def preview(
        self,
        document: OwnLayoutDocument,
        country_code: str,
        components: Mapping[str, str] | None = None,
        *,
        language: str = "en",
    ) -> PreviewAnswer:
        """How a country would be asked for and written, were a document published."""
        body = request_body(
            PreviewRequest,
            document=document,
            country_code=country_code,
            language=language,
            components=dict(components or {}),
        )
        return self._post("own-layouts/preview", PreviewAnswer, body)

    def publish(self, key: str) -> OwnLayoutSummary:
        """Publishes the draft as the next version."""
        return self._post(f"{_own(key)}/publish", OwnLayoutSummary)

    def versions(self, key: str) -> OwnLayoutVersions:
        """All published versions, the newest first."""
        return self._get(f"{_own(key)}/versions", OwnLayoutVersions)

    def restore(self, key: str, version: int) -> OwnLayoutSummary:
        """Puts an earlier version in force again; 0 lets the base layouts hold."""
        body = request_body(RestoreRequest, version=version)
        return self._post(f"{_own(key)}/restore", OwnLayoutSummary, body)

    def remove(self, key: str) -> None:
        """Deletes an own layout; the base layouts hold again."""
        self._transport.send("DELETE", _own(key))


def _own(key: str) -> str:
    return f"own-layouts/{part(key)}"
