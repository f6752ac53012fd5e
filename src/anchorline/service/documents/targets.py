"""What is answered of targets as documents."""

from __future__ import annotations

from collections.abc import Sequence

from anchorline.application.documents import TARGETS, Checked
from anchorline.store.document_model import Document, Entry, Version
from anchorline.wire.documents import DocumentDraft, DocumentSummary, DocumentVersion
from anchorline.wire.page_targets import PageTargetDocument
from anchorline.wire.program_targets import ProgramTargetDocument
from anchorline.wire.targets import (
    TargetDifferenceRequest,
    TargetDocument,
    TargetDraft,
    TargetList,
    TargetSummary,
    TargetVersion,
    target_as_kept,
)

from ..context import Services
from ..problems import places
from .api import DocumentApi, as_written, of_entry, of_version


class TargetApi(DocumentApi):
    """Targets of all kinds."""

    kind, path, parameter = TARGETS, "targets", "target"
    document, summary, listed = TargetDocument, TargetSummary, TargetList
    draft, version, difference = TargetDraft, TargetVersion, TargetDifferenceRequest

    def as_kept(self, document: object) -> Document:
        """Without what has no effect."""
        inner = document.root if isinstance(document, TargetDocument) else document
        return target_as_kept(inner)  # type: ignore[arg-type]

    def summaries(self, services: Services, entries: Sequence[Entry]) -> Sequence[DocumentSummary]:  # noqa: ARG002
        """With whether they are pages or programs."""
        return [TargetSummary(**of_entry(entry), kind=entry.about["kind"]) for entry in entries]

    def shown_draft(
        self, services: Services, document: Document, entry: Entry, checked: Checked
    ) -> DocumentDraft:
        """As it was written down."""
        [summary] = self.summaries(services, [entry])
        return TargetDraft.model_validate(
            {
                "document": TargetDocument.model_validate(document).root,
                "summary": summary,
                "problems": places(checked.problems),
                "warnings": places(checked.warnings),
            }
        )

    def shown_version(self, services: Services, version: Version) -> DocumentVersion:  # noqa: ARG002
        """As it was written down."""
        is_program = version.document.get("kind") == "program"
        schema = ProgramTargetDocument if is_program else PageTargetDocument
        document = as_written(schema, version.document)
        return TargetVersion(**of_version(version), document=document)


TARGET_API = TargetApi()
