"""Targets: drafts, published versions, restoring an earlier one."""

from __future__ import annotations

from sqlalchemy import delete

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
        with self._database.transaction() as session:
            row = _TABLES.row(session, key, lock=True)
            if row.revision != revision:
                raise StaleError(str(row.revision))
            if row.published_version is None or row.draft_differs:
                _TABLES.publish(session, row, by, self._database.now())
            return _TABLES.entry(row)

    def take_back(self, key: str) -> Drafted:
        """Makes the draft what is published; NotThereError where nothing is."""
        with self._database.transaction() as session:
            row = _TABLES.row(session, key, lock=True)
            published = _TABLES.version(session, key)
            now = self._database.now()
            return _TABLES.entry(_TABLES.put(session, key, published.document, row.revision, now))

    def remove(self, key: str) -> None:
        """Deletes a target with all its versions; NotThereError where there is none."""
        with self._database.transaction() as session:
            row = _TABLES.row(session, key, lock=True)
            session.execute(delete(TargetVersionRow).where(TargetVersionRow.of == key))
            session.delete(row)

    def version(self, key: str, number: int | None = None) -> tuple[Document, int]:
        """A version's document and number, the published one by default.

        Raises:
            NotThereError: there is no such target, or no such version of it.
        """
        with self._database.transaction() as session:
            found = _TABLES.version(session, key, number)
            return found.document, found.number

    def published_numbers(self) -> dict[str, int]:
        """The numbers of all published versions, by the targets' keys."""
        with self._database.transaction() as session:
            return _TABLES.published_numbers(session)
