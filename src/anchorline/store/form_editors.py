"""Who has a form's draft open just now."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime, timedelta

from sqlalchemy import select
from sqlalchemy.orm import Session

from .database import Database
from .schema import FormEditorRow

# An open page says that it is there every ten seconds or so.
GONE_AFTER = timedelta(seconds=40)


@dataclass(frozen=True, slots=True)
class FormEditor:
    """Somebody who has the draft open."""

    name: str
    since: datetime


class FormEditorStore:
    """Keeps who was seen when."""

    def __init__(self, database: Database) -> None:
        self._database = database

    def left(self, form: str, page: str) -> None:
        """Notes that a page was closed."""

        def work(session: Session) -> None:
            row = session.get(FormEditorRow, (form, page))
            if row is not None:
                session.delete(row)

        self._database.run(work)

    def seen(self, form: str, page: str, name: str) -> list[FormEditor]:
        """Notes that a page is open, and returns who else has one, the earliest first.

        Args:
            form: its key; there must be such a form.
            page: names an open page, made up by it.
            name: of the person.
        """
        now = self._database.now()

        def work(session: Session) -> list[FormEditor]:
            row = session.get(FormEditorRow, (form, page), with_for_update=True)
            if row is None or row.name != name:
                if row is not None:
                    session.delete(row)
                    session.flush()
                row = FormEditorRow(form=form, page=page, name=name, since=now)
            row.seen_at = now
            session.add(row)
            session.flush()
            others = session.scalars(
                select(FormEditorRow)
                .where(
                    FormEditorRow.form == form,
                    FormEditorRow.page != page,
                    FormEditorRow.seen_at > now - GONE_AFTER,
                )
                .order_by(FormEditorRow.since)
            )
            return [FormEditor(other.name, other.since) for other in others]

        return self._database.run(work)
