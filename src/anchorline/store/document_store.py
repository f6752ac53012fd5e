"""What stores of drafted documents have in common: listing, keeping, going back."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Generic, TypeVar

from sqlalchemy import select
from sqlalchemy.orm import Session

from .columns import DraftColumns, VersionColumns
from .database import Database
from .drafts import Document, Drafted, DraftTables

_Row = TypeVar("_Row", bound=DraftColumns)
_Version = TypeVar("_Version", bound=VersionColumns)


class DocumentStore(Generic[_Row, _Version]):
    """Reads and writes documents of one kind; publishing and removing differ from kind to kind."""

    def __init__(self, database: Database, tables: DraftTables[_Row, _Version]) -> None:
        self._database, self._tables = database, tables

    def list(self) -> Sequence[tuple[Document, Drafted]]:
        """All documents with their drafts, by title."""
        rows = self._tables.rows

        def work(session: Session) -> Sequence[tuple[Document, Drafted]]:
            found = session.scalars(select(rows).order_by(rows.title, rows.key))
            return [(row.draft, self._tables.entry(row)) for row in found]

        return self._database.run(work)

    def draft(self, key: str) -> tuple[Document, Drafted]:
        """A draft; NotThereError where there is no such document."""

        def work(session: Session) -> tuple[Document, Drafted]:
            row = self._tables.row(session, key)
            return row.draft, self._tables.entry(row)

        return self._database.run(work)

    def put_draft(self, key: str, document: Document, revision: int | None) -> Drafted:
        """Keeps a draft; makes the document where it is new.

        Raises:
            StaleError: the draft has another revision by now, or the document is not new.
        """

        def work(session: Session) -> Drafted:
            now = self._database.now()
            return self._tables.entry(self._tables.put(session, key, document, revision, now))

        return self._database.run(work)

    def restore(self, key: str, number: int | None) -> Drafted:
        """Publishes an earlier version again; with None, none holds any more.

        Raises:
            NotThereError: there is no such document, or no such version of it.
        """

        def work(session: Session) -> Drafted:
            row = self._tables.row(session, key, lock=True)
            self._tables.switch(session, row, number)
            return self._tables.entry(row)

        return self._database.run(work)
