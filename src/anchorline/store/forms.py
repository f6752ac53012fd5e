"""Forms: a draft that is edited, and versions that never change once published."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime

from sqlalchemy import and_, delete, func, select
from sqlalchemy.orm import Session

from anchorline.core.forms import upgraded

from .database import Database, InUseError, NotThereError, StaleError
from .drafts import Document, Drafted, DraftTables
from .schema import FormRow, FormVersionRow, RecordRow

_TABLES = DraftTables(FormRow, FormVersionRow, "form", read=upgraded)
_IS_PUBLISHED = and_(
    FormVersionRow.of == FormRow.key, FormVersionRow.number == FormRow.published_version
)


@dataclass(frozen=True, slots=True)
class FormEntry(Drafted):
    """What is kept about a form; `record_count` is how many records it has."""

    kind: str
    record_count: int


@dataclass(frozen=True, slots=True)
class FormVersion:
    """A published version."""

    number: int
    document: Document
    published_at: datetime
    published_by: str


class FormStore:
    """Reads and writes forms."""

    def __init__(self, database: Database) -> None:
        self._database = database

    def list(self) -> list[FormEntry]:
        """All forms, by title."""

        def work(session: Session) -> list[FormEntry]:
            counted = session.execute(select(RecordRow.form, func.count()).group_by(RecordRow.form))
            counts = dict(counted.all())
            rows = session.scalars(select(FormRow).order_by(FormRow.title, FormRow.key))
            return [_entry(row, counts.get(row.key, 0)) for row in rows]

        return self._database.run(work)

    def require(self, key: str) -> None:
        """NotThereError where there is no such form."""

        def work(session: Session) -> None:
            _TABLES.row(session, key)

        self._database.run(work)

    def entry(self, key: str) -> FormEntry:
        """One form; NotThereError where there is none."""
        return self.draft(key)[1]

    def draft(self, key: str) -> tuple[Document, FormEntry]:
        """A form's draft; NotThereError where there is no such form."""

        def work(session: Session) -> tuple[Document, FormEntry]:
            row = _TABLES.row(session, key)
            return row.draft, _counted(session, row)

        return self._database.run(work)

    def put_draft(self, key: str, document: Document, revision: int | None) -> FormEntry:
        """Keeps a draft and returns the form; makes the form where it is new.

        Args:
            revision: the revision that the change was made to; None to make a new form.

        Raises:
            StaleError: the draft has another revision by now, or the form is not new.
        """

        def work(session: Session) -> FormEntry:
            now, kind = self._database.now(), document["kind"]
            row = _TABLES.put(session, key, document, revision, now, kind=kind)
            return _counted(session, row)

        return self._database.run(work)

    def publish(self, key: str, revision: int, by: str) -> FormEntry:
        """Publishes the draft as the next version; the same version where nothing differs.

        Raises:
            StaleError: the draft has another revision by now than the one that was checked.
        """

        def work(session: Session) -> FormEntry:
            row = _TABLES.row(session, key, lock=True)
            if row.revision != revision:
                raise StaleError(str(row.revision))
            if row.draft_differs or row.published_version is None:
                _TABLES.publish(session, row, by, self._database.now())
            return _counted(session, row)

        return self._database.run(work)

    def restore(self, key: str, number: int | None) -> FormEntry:
        """Publishes an earlier version again; with None, nobody can fill the form any more.

        A draft that was as published follows; one that differs stays.

        Raises:
            NotThereError: there is no such form, or no such version of it.
        """

        def work(session: Session) -> FormEntry:
            row = _TABLES.row(session, key, lock=True)
            follows = number is not None and not row.draft_differs
            _TABLES.switch(session, row, number)
            if follows:
                document = upgraded(_TABLES.version(session, key, number).document)
                _TABLES.put(session, key, document, row.revision, self._database.now())
            return _counted(session, row)

        return self._database.run(work)

    def remove(self, key: str) -> None:
        """Deletes a form with all its versions.

        Raises:
            NotThereError: there is no such form.
            InUseError: records were made with it; they need its versions to be read.
        """

        def work(session: Session) -> None:
            row = _TABLES.row(session, key, lock=True)
            count = _counted(session, row).record_count
            if count:
                raise InUseError(str(count))
            session.execute(delete(FormVersionRow).where(FormVersionRow.of == key))
            session.delete(row)

        self._database.run(work)

    def versions(self, key: str) -> Sequence[FormVersion]:
        """All versions, the newest first; NotThereError where there is no such form."""

        def work(session: Session) -> Sequence[FormVersion]:
            _TABLES.row(session, key)
            query = select(FormVersionRow).where(FormVersionRow.of == key)
            rows = session.scalars(query.order_by(FormVersionRow.number.desc()))
            return [
                FormVersion(row.number, upgraded(row.document), row.published_at, row.published_by)
                for row in rows
            ]

        return self._database.run(work)

    def version(self, key: str, number: int | None = None) -> tuple[Document, int]:
        """A version's document and number, the published one by default.

        Raises:
            NotThereError: there is no such form, or no such version of it.
        """

        def work(session: Session) -> tuple[Document, int]:
            found = _TABLES.version(session, key, number)
            return upgraded(found.document), found.number

        return self._database.run(work)

    def published_digest(self, key: str) -> tuple[str, int]:
        """By which the published document is known again, without reading it, and its number.

        Raises:
            NotThereError: there is no such form, or it is not published.
        """
        query = (
            select(func.md5(FormVersionRow.document), FormVersionRow.number)
            .join(FormRow, _IS_PUBLISHED)
            .where(FormRow.key == key)
        )

        def work(session: Session) -> tuple[str, int]:
            found = session.execute(query).first()
            if found is None:
                _TABLES.version(session, key)  # says which of the two it is
                raise NotThereError(f"The form {key!r} has not been published.")
            return found[0], found[1]

        return self._database.run(work)

    def published_numbers(self) -> dict[str, int]:
        """The numbers of all published versions, by the forms' keys."""

        def work(session: Session) -> dict[str, int]:
            return _TABLES.published_numbers(session)

        return self._database.run(work)

    def published(self) -> Sequence[Document]:
        """The published documents of all forms, by key."""

        def work(session: Session) -> Sequence[Document]:
            query = select(FormVersionRow.document).join(FormRow, _IS_PUBLISHED)
            return [upgraded(one) for one in session.scalars(query.order_by(FormRow.key))]

        return self._database.run(work)


def _counted(session: Session, row: FormRow) -> FormEntry:
    counting = select(func.count()).where(RecordRow.form == row.key)
    return _entry(row, session.scalar(counting) or 0)


def _entry(row: FormRow, records: int) -> FormEntry:
    return FormEntry(
        row.key,
        row.title,
        row.revision,
        row.draft_differs,
        row.published_version,
        row.changed_at,
        row.kind,
        records,
    )
