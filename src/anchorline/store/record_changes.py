"""Changing records: what one was before is kept, state by state."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import Any

from sqlalchemy import select
from sqlalchemy.orm import Session

from anchorline.core.forms import Captured

from .database import Database, NotThereError, StaleError
from .record_addresses import address_rows, as_data, captured_of, from_data, rows_of
from .record_model import NewRecord, Record
from .record_rows import search_text, see_what_is_committed, with_planned
from .records import RecordStore
from .schema import RecordRevisionRow, RecordRow


@dataclass(frozen=True, slots=True)
class RecordState:
    """What a record held from one change to the next.

    Attributes:
        number: 1 for the one it was made with.
        made_at, made_by: when, and by whom.
    """

    number: int
    form_version: int
    values: dict[str, Any]
    addresses: Sequence[Captured]
    made_at: datetime
    made_by: str


class RecordChanges:
    """Changes records, and reads what they were."""

    def __init__(self, database: Database, records: RecordStore) -> None:
        self._database, self._records = database, records

    def change(self, identifier: str, new: NewRecord, revision: int) -> Record:
        """Changes a record; what it was before is kept as one of its earlier states.

        Args:
            revision: the one that the change was made to.

        Raises:
            NotThereError: there is no such record.
            StaleError: the record has been changed since then.
        """
        now = self._database.now()

        def work(session: Session) -> None:
            see_what_is_committed(session)
            row = session.get(RecordRow, identifier, with_for_update=True)
            if row is None:
                raise NotThereError(f"There is no record {identifier!r}.")
            if row.revision != revision:
                raise StaleError(str(row.revision))
            kept = with_planned(session, new, now)
            before = rows_of(session, identifier)
            session.add(
                RecordRevisionRow(
                    record=identifier,
                    number=row.revision,
                    form_version=row.form_version,
                    field_values=row.field_values,
                    addresses=[as_data(captured_of(address)) for address in before],
                    made_at=row.changed_at or row.made_at,
                    made_by=row.changed_by or row.made_by,
                )
            )
            for address in before:
                session.delete(address)
            session.flush()
            row.form_version, row.label = kept.form_version, kept.label[:200]
            row.field_values, row.search_text = kept.values, search_text(kept)
            row.typed_values = dict(kept.typed) or None
            row.revision, row.changed_at, row.changed_by = revision + 1, now, kept.made_by
            session.add_all(address_rows(identifier, kept.addresses))

        self._database.run(work)
        return self._records.get(identifier)

    def history(self, identifier: str) -> list[RecordState]:
        """Every state of a record, the newest first; NotThereError where there is none."""
        record = self._records.get(identifier)
        query = select(RecordRevisionRow).where(RecordRevisionRow.record == identifier)

        def work(session: Session) -> list[RecordState]:
            rows = session.scalars(query.order_by(RecordRevisionRow.number.desc()))
            return [
                RecordState(
                    row.number,
                    row.form_version,
                    row.field_values,
                    [from_data(address) for address in row.addresses],
                    row.made_at,
                    row.made_by,
                )
                for row in rows
            ]

        earlier = self._database.run(work)
        now = RecordState(
            record.revision,
            record.form_version,
            record.values,
            record.addresses,
            record.changed_at or record.made_at,
            record.changed_by or record.made_by,
        )
        return [now, *earlier]
