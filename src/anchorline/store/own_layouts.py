"""Administrators' own layouts: drafts, published versions, restoring an earlier one."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import Any

from sqlalchemy import and_, select
from sqlalchemy.orm import Session

from .database import Database, StaleError
from .document_store import DocumentStore
from .drafts import Document, Drafted, DraftTables
from .schema import OwnLayoutRow, OwnLayoutVersionRow

_TABLES = DraftTables(OwnLayoutRow, OwnLayoutVersionRow, "own layout")


@dataclass(frozen=True, slots=True)
class OwnLayoutVersion:
    """A published version.

    Attributes:
        base: what the shipped layouts said about what it changes when it was published.
    """

    key: str
    number: int
    document: Document
    base: dict[str, Any]
    published_at: datetime
    published_by: str


class OwnLayoutStore(DocumentStore[OwnLayoutRow, OwnLayoutVersionRow]):
    """Reads and writes own layouts."""

    def __init__(self, database: Database) -> None:
        super().__init__(database, _TABLES)

    def publish(self, key: str, revision: int, base: dict[str, Any], by: str) -> Drafted:
        """Publishes the draft as the next version, also where only the base facts are new.

        Raises:
            StaleError: the draft has another revision by now than the one that was reviewed.
        """

        def work(session: Session) -> Drafted:
            row = _TABLES.row(session, key, lock=True)
            if row.revision != revision:
                raise StaleError(str(row.revision))
            kept = (
                None
                if row.published_version is None
                else _TABLES.version(session, key, row.published_version)
            )
            if kept is None or row.draft_differs or kept.base != base:
                _TABLES.publish(session, row, by, self._database.now(), base=base)
            return _TABLES.entry(row)

        return self._database.run(work)

    def remove(self, key: str) -> None:
        """Deletes an own layout; versions stay kept for what was captured with them."""

        def work(session: Session) -> None:
            session.delete(_TABLES.row(session, key, lock=True))

        self._database.run(work)

    def versions(self, key: str) -> Sequence[OwnLayoutVersion]:
        """All versions of an own layout, the newest first; NotThereError where there is none."""

        def work(session: Session) -> Sequence[OwnLayoutVersion]:
            _TABLES.row(session, key)
            rows = session.scalars(
                select(OwnLayoutVersionRow)
                .where(OwnLayoutVersionRow.of == key)
                .order_by(OwnLayoutVersionRow.number.desc())
            )
            return list(map(_version, rows))

        return self._database.run(work)

    def published(self) -> Sequence[OwnLayoutVersion]:
        """The published version of each own layout that has one, by key."""

        def work(session: Session) -> Sequence[OwnLayoutVersion]:
            is_published = and_(
                OwnLayoutVersionRow.of == OwnLayoutRow.key,
                OwnLayoutVersionRow.number == OwnLayoutRow.published_version,
            )
            query = select(OwnLayoutVersionRow).join(OwnLayoutRow, is_published)
            return list(map(_version, session.scalars(query.order_by(OwnLayoutRow.key))))

        return self._database.run(work)

    def stamp(self) -> tuple[tuple[str, int], ...]:
        """Key and version of all that is published: versions never change, so this tells all."""

        def work(session: Session) -> tuple[tuple[str, int], ...]:
            number = OwnLayoutRow.published_version
            query = select(OwnLayoutRow.key, number).where(number.is_not(None))
            found = session.execute(query.order_by(OwnLayoutRow.key))
            return tuple((key, number) for key, number in found if number is not None)

        return self._database.run(work)


def _version(row: OwnLayoutVersionRow) -> OwnLayoutVersion:
    return OwnLayoutVersion(
        row.of, row.number, row.document, row.base, row.published_at, row.published_by
    )
