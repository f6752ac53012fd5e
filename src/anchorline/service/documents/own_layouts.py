"""What is answered of own layouts as documents."""

from __future__ import annotations

from collections.abc import Sequence

from anchorline.application.documents import OWN_LAYOUTS, Checked
from anchorline.application.documents.own_layouts import conflicts_of, differences_from_base
from anchorline.core.layouts.own import Conflict, read_own_layout
from anchorline.store.document_model import Document, Entry, Version
from anchorline.wire.documents import DocumentDraft, DocumentSummary, DocumentVersion
from anchorline.wire.own_layouts import (
    ConflictSchema,
    DifferenceSchema,
    OwnLayoutDifferenceRequest,
    OwnLayoutDocument,
    OwnLayoutDraft,
    OwnLayoutList,
    OwnLayoutSummary,
    OwnLayoutVersion,
    own_layout_as_kept,
)

from ..context import Services
from ..problems import places
from .api import DocumentApi, as_written, of_entry, of_version


class OwnLayoutApi(DocumentApi):
    """Own layouts."""

    kind, path, parameter = OWN_LAYOUTS, "layouts/own", "own_layout"
    before = ("own-layouts",)
    document, summary, listed = OwnLayoutDocument, OwnLayoutSummary, OwnLayoutList
    draft, version, difference = OwnLayoutDraft, OwnLayoutVersion, OwnLayoutDifferenceRequest

    def as_kept(self, document: OwnLayoutDocument) -> Document:
        """Without what has no effect."""
        return own_layout_as_kept(document)

    def summaries(self, services: Services, entries: Sequence[Entry]) -> Sequence[DocumentSummary]:
        """With how much of them newer shipped layouts say otherwise."""
        keys = [entry.key for entry in entries if entry.published_version is not None]
        published = {one.key: one for one in services.own_layouts.published(keys)} if keys else {}
        return [
            OwnLayoutSummary(
                **of_entry(entry),
                countries=entry.about["countries"],
                forms=entry.about["forms"],
                conflicts=len(conflicts_of(services, published.get(entry.key))),
            )
            for entry in entries
        ]

    def shown_draft(
        self, services: Services, document: Document, entry: Entry, checked: Checked
    ) -> DocumentDraft:
        """With what it says otherwise than its base, and what newer shipped layouts say."""
        own, _problems = read_own_layout(document, services.layouts)
        is_published = entry.published_version is not None
        published = services.own_layouts.version(entry.key) if is_published else None
        [summary] = self.summaries(services, [entry])
        return OwnLayoutDraft.model_validate(
            {
                "document": OwnLayoutDocument.model_validate(document),
                "summary": summary,
                "problems": places(checked.problems),
                "warnings": places(checked.warnings),
                "conflicts": [_conflict(one) for one in conflicts_of(services, published)],
                "differences": [
                    DifferenceSchema(
                        country_code=one.country_code, about=one.about, detail=one.detail
                    )
                    for one in differences_from_base(services, own)
                ],
            }
        )

    def shown_version(self, services: Services, version: Version) -> DocumentVersion:  # noqa: ARG002
        """As it was written down."""
        document = as_written(OwnLayoutDocument, version.document)
        return OwnLayoutVersion(**of_version(version), document=document)


def _conflict(one: Conflict) -> ConflictSchema:
    return ConflictSchema(
        country_code=one.country_code,
        pointer=one.pointer,
        was=one.was,
        now=one.now,
        detail=one.detail,
    )


OWN_LAYOUT_API = OwnLayoutApi()
