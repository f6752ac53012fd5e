"""Targets: drafts, published versions, restoring an earlier one."""

from __future__ import annotations

from sqlalchemy import delete
from sqlalchemy.orm import Session

from .database import Database, StaleError
from .document_store import DocumentStore
from .drafts import Document, Drafted, DraftTables
from .schema import TargetRow, TargetVersionRow

_TABLES = DraftTables(TargetRow, TargetVersionRow, "target")


class TargetStore(DocumentStore[TargetRow, TargetVersionRow]):
    """Reads and writes targets."""

    def __init__(self, database: Database) -> None:
        super().__init__(database, _TABLES)

    def publish(self, key: str, revision: int, by: str) -> Drafted:
        """Publishes the draft as the next version; the same version where nothing differs.

        Raises:
            StaleError: the draft has another revision by now than the one that was checked.
        """

        def work(session: Session) -> Drafted:
            row = _TABLES.row(session, key, lock=True)
            if row.revision != revision:
                raise StaleError(str(row.revision))
            if row.published_version is None or row.draft_differs:
                _TABLES.publish(session, row, by, self._database.now())
            return _TABLES.entry(row)

        return self._database.run(work)

    def take_back(self, key: str) -> Drafted:
        """Makes the draft what is published; NotThereError where nothing is."""

        def work(session: Session) -> Drafted:
            row = _TABLES.row(session, key, lock=True)
            published = _TABLES.version(session, key)
            now = self._database.now()
            return _TABLES.entry(_TABLES.put(session, key, published.document, row.revision, now))

        return self._database.run(work)

    def remove(self, key: str) -> None:
        """Deletes a target with all its versions; NotThereError where there is none."""

        def work(session: Session) -> None:
            row = _TABLES.row(session, key, lock=True)
            session.execute(delete(TargetVersionRow).where(TargetVersionRow.of == key))
            session.delete(row)

        self._database.run(work)

    def version(self, key: str, number: int | None = None) -> tuple[Document, int]:
        """A version's document and number, the published one by default.

        Raises:
            NotThereError: there is no such target, or no such version of it.
        """

        def work(session: Session) -> tuple[Document, int]:
            found = _TABLES.version(session, key, number)
            return found.document, found.number

        return self._database.run(work)

    def published_numbers(self) -> dict[str, int]:
        """The numbers of all published versions, by the targets' keys."""

        def work(session: Session) -> dict[str, int]:
            return _TABLES.published_numbers(session)

        return self._database.run(work)
