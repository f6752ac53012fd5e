"""Forms: a draft that is edited, and versions that never change once published."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime
from typing import Any

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from .database import Database, NotThereError, StaleError
from .schema import FormRow, FormVersionRow, RecordRow

Document = dict[str, Any]


@dataclass(frozen=True, slots=True)
class FormEntry:
    """What is kept about a form.

    Attributes:
        revision: counts the draft's changes; names it in ETags.
        draft_differs: whether the draft is not what is published.
        published_version: number of the newest version, or None.
        record_count: how many records it has.
    """

    key: str
    kind: str
    title: str
    revision: int
    draft_differs: bool
    published_version: int | None
    changed_at: datetime
    record_count: int


class FormStore:
    """Reads and writes forms."""

    def __init__(self, database: Database) -> None:
        self._database = database

    def list(self) -> list[FormEntry]:
        """All forms, by title."""
        with self._database.transaction() as session:
            counted = session.execute(select(RecordRow.form, func.count()).group_by(RecordRow.form))
            counts = dict(counted.tuples().all())
            rows = session.scalars(select(FormRow).order_by(FormRow.title, FormRow.key))
            return [_entry(row, counts.get(row.key, 0)) for row in rows]

    def entry(self, key: str) -> FormEntry:
        """One form; NotThereError where there is none."""
        with self._database.transaction() as session:
            row = _row(session, key)
            return _entry(row, _record_count(session, key))

    def draft(self, key: str) -> tuple[Document, FormEntry]:
        """A form's draft; NotThereError where there is no such form."""
        with self._database.transaction() as session:
            row = _row(session, key)
            return row.draft, _entry(row, _record_count(session, key))

    def put_draft(self, key: str, document: Document, revision: int | None) -> FormEntry:
        """Keeps a draft and returns the form; makes the form where it is new.

        Args:
            revision: the revision that the change was made to; None to make a new form.

        Raises:
            StaleError: the draft has another revision by now, or the form is not new.
        """
        with self._database.transaction() as session:
            row = session.get(FormRow, key, with_for_update=True)
            if row is None:
                row = FormRow(key=key, revision=0, published_version=None)
                session.add(row)
            elif revision != row.revision:
                raise StaleError(str(row.revision))
            row.kind, row.title = document["kind"], document["title"]
            row.draft = document
            row.revision += 1
            row.draft_differs = document != _published(session, row)
            row.changed_at = self._database.now()
            session.flush()
            return _entry(row, _record_count(session, key))

    def publish(self, key: str, by: str) -> FormEntry:
        """Publishes the draft as the next version; the same version where nothing differs."""
        with self._database.transaction() as session:
            row = _row(session, key, lock=True)
            if row.draft_differs or row.published_version is None:
                row.published_version = (row.published_version or 0) + 1
                session.add(
                    FormVersionRow(
                        form=key,
                        number=row.published_version,
                        document=row.draft,
                        published_at=self._database.now(),
                        published_by=by,
                    )
                )
                row.draft_differs = False
            return _entry(row, _record_count(session, key))

    def version(self, key: str, number: int | None = None) -> tuple[Document, int]:
        """A version's document and number, the newest by default.

        Raises:
            NotThereError: there is no such form, or no such version of it.
        """
        with self._database.transaction() as session:
            wanted = number if number is not None else _row(session, key).published_version
            found = session.get(FormVersionRow, (key, wanted)) if wanted is not None else None
            if found is None:
                raise NotThereError(f"The form {key!r} has not been published.")
            return found.document, found.number


def _row(session: Session, key: str, *, lock: bool = False) -> FormRow:
    row = session.get(FormRow, key, with_for_update=True if lock else None)
    if row is None:
        raise NotThereError(f"There is no form {key!r}.")
    return row


def _published(session: Session, row: FormRow) -> Document | None:
    if row.published_version is None:
        return None
    version = session.get(FormVersionRow, (row.key, row.published_version))
    return version.document if version else None


def _record_count(session: Session, key: str) -> int:
    return session.scalar(select(func.count()).where(RecordRow.form == key)) or 0


def _entry(row: FormRow, records: int) -> FormEntry:
    return FormEntry(
        row.key,
        row.kind,
        row.title,
        row.revision,
        row.draft_differs,
        row.published_version,
        row.changed_at,
        records,
    )
