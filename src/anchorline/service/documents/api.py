"""What is answered of one kind of document, beside what is the same for all."""

from __future__ import annotations

from abc import ABC, abstractmethod
from collections.abc import Sequence
from typing import Any, ClassVar, TypeVar

from pydantic import BaseModel, ValidationError

from anchorline.application.documents import Checked, DocumentKind
from anchorline.store.document_model import Document, Entry, Version
from anchorline.wire.documents import (
    DifferenceRequest,
    DocumentDraft,
    DocumentList,
    DocumentSummary,
    DocumentVersion,
)

from ..context import Services

_Model = TypeVar("_Model", bound=BaseModel)


class DocumentApi(ABC):
    """One kind of document, as it is answered.

    Attributes:
        kind: what it is.
        path: below the API's root, where its documents are.
        parameter: what stands for a document's key in paths.
        before: paths that its documents had in earlier releases, which are answered still.
        listed_for: the scopes of which a server key has to have one to list them.
        document, listed, draft, version, difference: the schemas.
    """

    kind: ClassVar[DocumentKind]
    path: ClassVar[str]
    parameter: ClassVar[str]
    before: ClassVar[tuple[str, ...]] = ()
    listed_for: ClassVar[tuple[str, ...]] = ("forms",)
    document: ClassVar[type[BaseModel]]
    summary: ClassVar[type[DocumentSummary]]
    listed: ClassVar[type[DocumentList]]
    draft: ClassVar[type[DocumentDraft]]
    version: ClassVar[type[DocumentVersion]]
    difference: ClassVar[type[DifferenceRequest]]

    @abstractmethod
    def as_kept(self, document: Any) -> Document:
        """A document that was sent, as it is kept and compared."""

    @abstractmethod
    def summaries(self, services: Services, entries: Sequence[Entry]) -> Sequence[DocumentSummary]:
        """What lists show of documents."""

    @abstractmethod
    def shown_draft(
        self, services: Services, document: Document, entry: Entry, checked: Checked
    ) -> DocumentDraft:
        """A draft and what there is to say of it."""

    @abstractmethod
    def shown_version(self, services: Services, version: Version) -> DocumentVersion:
        """A published version as it was."""


def of_entry(entry: Entry) -> dict[str, Any]:
    """What lists show of a document of any kind, by the names of the answer."""
    return {
        "key": entry.key,
        "title": entry.title,
        "published_version": entry.published_version,
        "draft_differs": entry.draft_differs,
        "changed_at": entry.changed_at,
    }


def of_version(version: Version) -> dict[str, Any]:
    """What is said of a version of any kind, by the names of the answer."""
    return {
        "version": version.number,
        "published_at": version.published_at,
        "published_by": version.published_by,
    }


def as_written(schema: type[_Model], document: Document) -> _Model:
    """A version's document in its schema; as it was written down where that does not fit any more.

    What an earlier release has taken can always be read.
    """
    try:
        return schema.model_validate(document)
    except ValidationError:
        return schema.model_construct(**document)
