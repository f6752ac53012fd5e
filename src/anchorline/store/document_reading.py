"""Reading documents: lists of them, their drafts, their versions."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from datetime import datetime
from typing import Any

from sqlalchemy import ColumnElement, and_, case, func, or_, select
from sqlalchemy.orm import Session, load_only

from .cursors import Cursor
from .database import Database, NotThereError
from .document_model import Document, Entry, Page, StoredKind, Version
from .schema_documents import DocumentRow, DocumentVersionRow

_IS_PUBLISHED = and_(
    DocumentVersionRow.kind == DocumentRow.kind,
    DocumentVersionRow.of == DocumentRow.key,
    DocumentVersionRow.number == DocumentRow.published_version,
)


# All but the draft.
_LISTED = (
    DocumentRow.key, DocumentRow.title, DocumentRow.revision, DocumentRow.draft_differs,
    DocumentRow.published_version, DocumentRow.changed_at, DocumentRow.about,
)  # fmt: skip


class DocumentReader:
    """Reads the documents of one kind."""

    def __init__(self, database: Database, kind: StoredKind) -> None:
        self._database, self.kind = database, kind

    def keys(self) -> list[str]:
        """The keys of all documents, in their order."""
        query = select(DocumentRow.key).where(DocumentRow.kind == self.kind.name)
        return self._database.run(lambda session: list(session.scalars(query.order_by("key"))))

    def titles(self) -> dict[str, str]:
        """The titles of all documents, by their keys."""
        query = select(DocumentRow.key, DocumentRow.title).where(DocumentRow.kind == self.kind.name)
        return self._database.run(lambda session: dict(session.execute(query).all()))

    def counts(self) -> tuple[int, int, int]:
        """How many documents there are, are published, and have a draft that differs."""
        row = DocumentRow
        differing = func.count(case((row.draft_differs, 1)))
        query = select(func.count(row.key), func.count(row.published_version), differing)
        query = query.where(row.kind == self.kind.name)
        found = self._database.run(lambda session: session.execute(query).one())
        return found[0], found[1], found[2]

    def drafts(self) -> Sequence[Document]:
        """The drafts of all documents, by key."""
        row = DocumentRow
        query = select(row.draft, row.format).where(row.kind == self.kind.name).order_by(row.key)
        found = self._database.run(lambda session: session.execute(query).all())
        return [self.kind.read(document, written_as) for document, written_as in found]

    def page(self, limit: int, *, after: str | None = None, search: str = "") -> Page:
        """Documents by title, without their drafts.

        Args:
            after: the cursor of the page before.
            search: only those in whose title or key each of its words stands.

        Raises:
            BadCursorError: `after` was not handed out by this list.
        """
        row, cursor = DocumentRow, Cursor("documents")
        query = select(row).options(load_only(*_LISTED)).where(row.kind == self.kind.name)
        for word in search.split():
            has_word = row.title.contains(word, autoescape=True)
            query = query.where(or_(has_word, row.key.contains(word, autoescape=True)))
        if after is not None:
            title, key = cursor.read(after, str, str)
            beyond = and_(row.title == title, row.key > key)
            query = query.where(or_(row.title > title, beyond))
        query = query.order_by(row.title, row.key).limit(limit + 1)
        found = self._database.run(lambda session: session.scalars(query).all())
        entries = list(map(entry_of, found[:limit]))
        more = len(found) > limit
        return Page(entries, cursor.after(entries[-1].title, entries[-1].key) if more else None)

    def require(self, key: str) -> None:
        """NotThereError where there is no such document."""
        query = select(DocumentRow.key).where(*self._named(key))
        if self._database.run(lambda session: session.scalar(query)) is None:
            raise self._missing(key)

    def draft(self, key: str) -> tuple[Document, Entry]:
        """A document's draft; NotThereError where there is no such document."""

        def work(session: Session) -> tuple[Document, Entry]:
            row = self._row(session, key)
            return self.kind.read(row.draft, row.format), entry_of(row)

        return self._database.run(work)

    def versions(self, key: str, limit: int, before: int | None = None) -> Sequence[Version]:
        """Published versions, the newest first; NotThereError where there is no such document.

        Args:
            before: only those with a smaller number.
        """
        row = DocumentVersionRow
        query = select(row).where(*versions_of(self.kind.name, key))
        if before is not None:
            query = query.where(row.number < before)
        query = query.order_by(row.number.desc()).limit(limit)

        def work(session: Session) -> Sequence[Version]:
            self._row(session, key)
            return list(map(self._version_of, session.scalars(query)))

        return self._database.run(work)

    def version(self, key: str, number: int | None = None) -> Version:
        """A version, the published one by default.

        Raises:
            NotThereError: there is no such document, or no such version of it.
        """

        def work(session: Session) -> Version:
            wanted = number
            if wanted is None:
                wanted = self._row(session, key).published_version
            if wanted is None:
                raise self._missing(key, None)
            return self._version(session, key, wanted)

        return self._database.run(work)

    def replaced_at(self, key: str, number: int) -> datetime | None:
        """When the version after a version was published; None where it is the newest."""
        row = DocumentVersionRow
        query = select(func.min(row.published_at))
        query = query.where(*versions_of(self.kind.name, key), row.number > number)
        return self._database.run(lambda session: session.scalar(query))

    def published_digest(self, key: str) -> tuple[str, int]:
        """By which the published document is known again, without reading it, and its number.

        Raises:
            NotThereError: there is no such document, or it is not published.
        """
        row = DocumentVersionRow
        query = select(func.md5(row.document), row.number).join(DocumentRow, _IS_PUBLISHED)
        query = query.where(*self._named(key))
        found = self._database.run(lambda session: session.execute(query).first())
        if found is None:
            self.version(key)  # says which of the two it is
            raise self._missing(key, None)
        return found[0], found[1]

    def published_numbers(self) -> dict[str, int]:
        """The numbers of all published versions, by the documents' keys, in their order."""
        row = DocumentRow
        query = select(row.key, row.published_version).where(row.kind == self.kind.name)
        query = query.where(row.published_version.is_not(None)).order_by(row.key)
        found = self._database.run(lambda session: session.execute(query).all())
        return {key: number for key, number in found if number is not None}

    def published(self, keys: Iterable[str] | None = None) -> Sequence[Version]:
        """The published versions of all documents, or of some, by key."""
        query = select(DocumentVersionRow).join(DocumentRow, _IS_PUBLISHED)
        query = query.where(DocumentRow.kind == self.kind.name).order_by(DocumentRow.key)
        if keys is not None:
            query = query.where(DocumentRow.key.in_(list(keys)))

        def work(session: Session) -> Sequence[Version]:
            return list(map(self._version_of, session.scalars(query)))

        return self._database.run(work)

    # Within a unit of work

    def _named(self, key: str) -> tuple[Any, Any]:
        return DocumentRow.kind == self.kind.name, DocumentRow.key == key

    def _row(self, session: Session, key: str, *, lock: bool = False) -> DocumentRow:
        row = session.get(DocumentRow, (self.kind.name, key), with_for_update=lock or None)
        if row is None:
            raise self._missing(key)
        return row

    def _version(self, session: Session, key: str, number: int) -> Version:
        row = session.get(DocumentVersionRow, (self.kind.name, key, number))
        if row is None:
            self._row(session, key)
            raise self._missing(key, number)
        return self._version_of(row)

    def _version_of(self, row: DocumentVersionRow) -> Version:
        document = self.kind.read(row.document, row.format)
        return Version(
            row.of, row.number, document, row.published_at, row.published_by, row.base or {}
        )

    def _missing(self, key: str, *version: int | None) -> NotThereError:
        if not version:
            return NotThereError(f"There is no {self.kind.noun} {key!r}.")
        missing = "has not been published" if version[0] is None else f"has no version {version[0]}"
        return NotThereError(f"The {self.kind.noun} {key!r} {missing}.")


def entry_of(row: DocumentRow) -> Entry:
    """What is kept about a document beside its draft."""
    return Entry(
        row.key,
        row.title,
        row.revision,
        row.draft_differs,
        row.published_version,
        row.changed_at,
        row.about,
    )


def versions_of(kind: str, key: str) -> tuple[ColumnElement[bool], ColumnElement[bool]]:
    """What finds all versions of a document."""
    return DocumentVersionRow.kind == kind, DocumentVersionRow.of == key
