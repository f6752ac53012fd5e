"""What is answered of forms as documents."""

from __future__ import annotations

from collections.abc import Sequence

from anchorline.application.documents import FORMS, Checked
from anchorline.core.forms import read_unfinished, with_brought_parts
from anchorline.store.document_model import Document, Entry, Version
from anchorline.wire.documents import DocumentDraft, DocumentSummary, DocumentVersion
from anchorline.wire.forms import (
    FormDifferenceRequest,
    FormDocument,
    FormDraft,
    FormList,
    FormSummary,
    FormVersion,
    document_as_kept,
)

from ..context import Services
from ..form_answers import brought_to, logic_of
from ..problems import places
from .api import DocumentApi, as_written, of_entry, of_version


class FormApi(DocumentApi):
    """Forms."""

    kind, path, parameter = FORMS, "forms", "form"
    listed_for = ("forms", "records")  # who fills forms is told which there are
    document, summary, listed, draft = FormDocument, FormSummary, FormList, FormDraft
    version, difference = FormVersion, FormDifferenceRequest

    def as_kept(self, document: FormDocument) -> Document:
        """Without what has no effect."""
        return document_as_kept(document)

    def summaries(self, services: Services, entries: Sequence[Entry]) -> Sequence[DocumentSummary]:
        """With how many records they have."""
        counts = services.record_lookups.counts_of([entry.key for entry in entries])
        return [
            FormSummary(
                **of_entry(entry),
                kind=entry.about["kind"],
                record_count=counts.get(entry.key, 0),
            )
            for entry in entries
        ]

    def shown_draft(
        self, services: Services, document: Document, entry: Entry, checked: Checked
    ) -> DocumentDraft:
        """With its formulas, and what own layouts bring to it."""
        form, _problems = read_unfinished(document, services.layouts)
        if all(slot.countries for slot in form.slots):
            layouts = services.layouts_in_force.current().on_form(entry.key)
            form = with_brought_parts(form, layouts)
        whole = FormDocument.model_validate(document)
        brought = {slot.key: brought_to(slot, form) for slot in whole.slots}
        [summary] = self.summaries(services, [entry])
        return FormDraft.model_validate(
            {
                "document": whole,
                "summary": summary,
                "problems": places(checked.problems),
                "warnings": places(checked.warnings),
                "logic": logic_of(form),
                "brought": {key: more for key, more in brought.items() if more.parts},
            }
        )

    def shown_version(self, services: Services, version: Version) -> DocumentVersion:
        """With its formulas, as far as it can be read today."""
        form, _problems = read_unfinished(version.document, services.layouts)
        return FormVersion(
            **of_version(version),
            document=as_written(FormDocument, version.document),
            logic=logic_of(form),
        )


FORM_API = FormApi()
