"""Who has the draft of a document open just now."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime, timedelta

from sqlalchemy import select
from sqlalchemy.orm import Session

from .database import Database
from .schema_documents import DocumentEditorRow

# An open page says that it is there every ten seconds or so.
GONE_AFTER = timedelta(seconds=40)


@dataclass(frozen=True, slots=True)
class Editor:
    """Somebody who has the draft open."""

    name: str
    since: datetime


class DocumentEditors:
    """Keeps who was seen when."""

    def __init__(self, database: Database) -> None:
        self._database = database

    def left(self, kind: str, key: str, page: str) -> None:
        """Notes that a page was closed."""

        def work(session: Session) -> None:
            row = session.get(DocumentEditorRow, (kind, key, page))
            if row is not None:
                session.delete(row)

        self._database.run(work)

    def seen(self, kind: str, key: str, page: str, name: str) -> list[Editor]:
        """Notes that a page is open, and returns who else has one, the earliest first.

        Args:
            kind, key: of the document, which there must be.
            page: names an open page, made up by it.
            name: of the person.
        """
        now = self._database.now()

        def work(session: Session) -> list[Editor]:
            row = session.get(DocumentEditorRow, (kind, key, page), with_for_update=True)
            if row is None or row.name != name:
                if row is not None:
                    session.delete(row)
                    session.flush()
                row = DocumentEditorRow(kind=kind, of=key, page=page, name=name, since=now)
            row.seen_at = now
            session.add(row)
            session.flush()
            others = session.scalars(
                select(DocumentEditorRow)
                .where(
                    DocumentEditorRow.kind == kind,
                    DocumentEditorRow.of == key,
                    DocumentEditorRow.page != page,
                    DocumentEditorRow.seen_at > now - GONE_AFTER,
                )
                .order_by(DocumentEditorRow.since)
            )
            return [Editor(other.name, other.since) for other in others]

        return self._database.run(work)
