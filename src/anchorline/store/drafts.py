"""Documents that are edited as a draft and published as versions that never change.

Forms and own layouts are such documents; each has a table of drafts and a table of versions.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from datetime import datetime
from typing import Any, Generic, TypeVar

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from .columns import DraftColumns, VersionColumns
from .database import NotThereError, StaleError

Document = dict[str, Any]
_Row = TypeVar("_Row", bound=DraftColumns)
_Version = TypeVar("_Version", bound=VersionColumns)


@dataclass(frozen=True, slots=True)
class Drafted:
    """What is kept about a document beside its draft.

    Attributes:
        revision: counts the draft's changes; names it in ETags.
        draft_differs: whether the draft is not what is published.
        published_version: number of the version that is published, or None.
    """

    key: str
    title: str
    revision: int
    draft_differs: bool
    published_version: int | None
    changed_at: datetime


class DraftTables(Generic[_Row, _Version]):
    """The two tables of one kind of document.

    Args:
        rows: the table of drafts.
        versions: the table of versions.
        what: what a document is called in messages.
        read: gives a document of an earlier release as today's.
    """

    def __init__(
        self,
        rows: type[_Row],
        versions: type[_Version],
        what: str,
        read: Callable[[Document], Document] = lambda document: document,
    ) -> None:
        self.rows, self.versions, self._what, self._read = rows, versions, what, read

    def row(self, session: Session, key: str, *, lock: bool = False) -> _Row:
        """A document's row; NotThereError where there is none."""
        row = session.get(self.rows, key, with_for_update=True if lock else None)
        if row is None:
            raise NotThereError(f"There is no {self._what} {key!r}.")
        return row

    def put(
        self,
        session: Session,
        key: str,
        document: Document,
        revision: int | None,
        now: datetime,
        **columns: object,
    ) -> _Row:
        """Keeps a draft and returns its row; makes one where it is new.

        Args:
            revision: the revision that the change was made to; None to make a new document.
            columns: what else the row keeps about it.

        Raises:
            StaleError: the draft has another revision by now, or the document is not new.
        """
        row = session.get(self.rows, key, with_for_update=True)
        if row is None:
            row = self.rows(key=key, revision=0, published_version=None)
        elif revision != row.revision:
            raise StaleError(str(row.revision))
        row.title, row.draft = document["title"], document
        row.revision += 1
        row.draft_differs = document != self._published(session, row)
        row.changed_at = now
        for name, value in columns.items():
            setattr(row, name, value)
        session.add(row)
        session.flush()
        return row

    def publish(
        self, session: Session, row: _Row, by: str, now: datetime, **columns: object
    ) -> None:
        """Publishes a draft as the next version.

        Args:
            columns: what else the version keeps.
        """
        newest = select(func.max(self.versions.number)).where(self.versions.of == row.key)
        row.published_version = (session.scalar(newest) or 0) + 1
        row.draft_differs = False
        session.add(
            self.versions(
                of=row.key,
                number=row.published_version,
                document=row.draft,
                published_at=now,
                published_by=by,
                **columns,
            )
        )

    def version(self, session: Session, key: str, number: int | None = None) -> _Version:
        """A version, the published one by default.

        Raises:
            NotThereError: there is no such document, or no such version of it.
        """
        wanted = number if number is not None else self.row(session, key).published_version
        found = session.get(self.versions, (key, wanted)) if wanted is not None else None
        if found is None:
            missing = "has not been published" if number is None else f"has no version {number}"
            raise NotThereError(f"The {self._what} {key!r} {missing}.")
        return found

    def switch(self, session: Session, row: _Row, number: int | None) -> None:
        """Makes an earlier version the published one; with None, none is published."""
        if number is not None:
            self.version(session, row.key, number)
        row.published_version = number
        row.draft_differs = row.draft != self._published(session, row)

    def published_numbers(self, session: Session) -> dict[str, int]:
        """The numbers of all published versions, by the documents' keys."""
        query = select(self.rows.key, self.rows.published_version)
        rows = session.execute(query.where(self.rows.published_version.is_not(None)))
        return {key: number for key, number in rows if number is not None}

    @staticmethod
    def entry(row: DraftColumns) -> Drafted:
        """What is kept about a document beside its draft."""
        return Drafted(
            row.key,
            row.title,
            row.revision,
            row.draft_differs,
            row.published_version,
            row.changed_at,
        )

    def _published(self, session: Session, row: _Row) -> Document | None:
        if row.published_version is None:
            return None
        version = session.get(self.versions, (row.key, row.published_version))
        return self._read(version.document) if version else None
