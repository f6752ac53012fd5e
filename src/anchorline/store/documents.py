"""Documents that are edited as a draft and published as versions that never change.

All kinds of them (forms, own layouts, targets …) stand in the same tables and lead the same life.
"""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from sqlalchemy import delete, func, select
from sqlalchemy.orm import Session

from .database import AlreadyThereError, StaleError
from .document_model import Document, Entry, Seen
from .document_reading import DocumentReader, entry_of, versions_of
from .schema_documents import DocumentRow, DocumentVersionRow


class DocumentStore(DocumentReader):
    """Reads and writes the documents of one kind."""

    def put_draft(self, key: str, document: Document, revision: int | None) -> Entry:
        """Keeps a draft; makes the document where it is new.

        Args:
            revision: the one that the change was made to; None to make a new document.

        Raises:
            StaleError: the draft has another revision by now, or the document is not new.
        """

        def work(session: Session) -> Entry:
            row = session.get(DocumentRow, (self.kind.name, key), with_for_update=True)
            if row is None and revision is not None:
                raise self._missing(key)
            if row is None:
                row = DocumentRow(kind=self.kind.name, key=key, revision=0, published_version=None)
            elif revision != row.revision:
                raise StaleError(entry_of(row).tag)
            self._write(session, row, document)
            return entry_of(row)

        try:
            return self._database.run(work)
        except AlreadyThereError:  # made beside this one: now it is there, and this one is stale
            return self._database.run(work)

    def publish(
        self, key: str, revision: int, by: str, base: Mapping[str, Any] | None = None
    ) -> Entry:
        """Publishes the draft as the next version; the same version where nothing differs.

        Args:
            base: what else is true now, kept with the version.

        Raises:
            NotThereError: there is no such document.
            StaleError: the draft has another revision by now than the one that was checked.
        """

        def work(session: Session) -> Entry:
            row = self._row(session, key, lock=True)
            if row.revision != revision:
                raise StaleError(entry_of(row).tag)
            if row.draft_differs or not self._is_published(session, row, base):
                self._publish(session, row, by, base)
            return entry_of(row)

        return self._database.run(work)

    def restore(self, key: str, number: int | None, seen: Seen | None) -> Entry:
        """Publishes an earlier version again; with None, none is published any more.

        A draft that was as published follows; one that differs stays.

        Args:
            seen: the state that was looked at; None for whichever it is in.

        Raises:
            NotThereError: there is no such document, or no such version of it.
            StaleError: it is in another state by now.
        """

        def work(session: Session) -> Entry:
            row = self._seen(session, key, seen)
            follows = number is not None and not row.draft_differs
            document = None if number is None else self._version(session, key, number).document
            row.published_version = number
            if follows and document is not None:
                self._write(session, row, document)
            else:
                row.draft_differs = self._today(row) != document
            return entry_of(row)

        return self._database.run(work)

    def take_back(self, key: str, seen: Seen | None) -> Entry:
        """Makes the draft what is published.

        Raises:
            NotThereError: there is no such document, or it is not published.
            StaleError: it is in another state by now.
        """

        def work(session: Session) -> Entry:
            row = self._seen(session, key, seen)
            if row.published_version is None:
                raise self._missing(key, None)
            published = self._version(session, key, row.published_version)
            self._write(session, row, published.document)
            return entry_of(row)

        return self._database.run(work)

    def remove(self, key: str, seen: Seen | None, *, keeps_versions: bool = False) -> None:
        """Deletes a document.

        Args:
            keeps_versions: what was made with them goes on naming them.

        Raises:
            NotThereError: there is no such document.
            StaleError: it is in another state by now.
        """
        versions = delete(DocumentVersionRow).where(*versions_of(self.kind.name, key))

        def work(session: Session) -> None:
            row = self._seen(session, key, seen)
            if not keeps_versions:
                session.execute(versions)
            session.delete(row)

        self._database.run(work)

    def hold(self, key: str, seen: Seen | None) -> Entry:
        """Within a unit of work: nobody else changes the document before its end.

        Raises:
            NotThereError: there is no such document.
            StaleError: it is in another state by now.
        """
        return self._database.run(lambda session: entry_of(self._seen(session, key, seen)))

    # Within a unit of work

    def _seen(self, session: Session, key: str, seen: Seen | None) -> DocumentRow:
        row = self._row(session, key, lock=True)
        if seen is not None and seen != (row.revision, row.published_version or 0):
            raise StaleError(entry_of(row).tag)
        return row

    def _today(self, row: DocumentRow) -> Document:
        return self.kind.read(row.draft, row.format)

    def _write(self, session: Session, row: DocumentRow, document: Document) -> None:
        """Writes a draft into its row."""
        row.title, row.draft, row.format = document["title"], document, self.kind.format
        row.about = self.kind.about(document)
        row.revision += 1
        number = row.published_version
        published = None if number is None else self._version(session, row.key, number).document
        row.draft_differs = document != published
        row.changed_at = self._database.now()
        session.add(row)
        session.flush()

    def _is_published(
        self, session: Session, row: DocumentRow, base: Mapping[str, Any] | None
    ) -> bool:
        """Whether something is published, and what else was true then still is."""
        if row.published_version is None:
            return False
        return self._version(session, row.key, row.published_version).base == (base or {})

    def _publish(
        self, session: Session, row: DocumentRow, by: str, base: Mapping[str, Any] | None
    ) -> None:
        newest = select(func.max(DocumentVersionRow.number))
        newest = newest.where(*versions_of(self.kind.name, row.key))
        row.published_version = (session.scalar(newest) or 0) + 1
        row.draft_differs = False
        session.add(
            DocumentVersionRow(
                kind=self.kind.name,
                of=row.key,
                number=row.published_version,
                document=row.draft,
                format=row.format,
                base=dict(base or {}),
                published_at=self._database.now(),
                published_by=by,
            )
        )
