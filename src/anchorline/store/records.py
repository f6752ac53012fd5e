"""Records: filled forms with their captured addresses."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import asdict
from datetime import timedelta
from typing import Any

from sqlalchemy import Select, and_, func, or_, select
from sqlalchemy.orm import Session

from anchorline.core.forms import Captured
from anchorline.core.kinds import RecordSort
from anchorline.core.text import fold

from .database import AlreadyThereError, Database, NotThereError
from .idempotency import IdempotencyKey, kept_for, made_before, note_key
from .record_addresses import captured_of, rows_of
from .record_model import CaptureCounts, NewRecord, Record, RecordPage, RecordSummary
from .record_order import RECORD_ORDERS, cursor_after, read_cursor
from .record_rows import insert_record, new_record_id, see_what_is_committed, with_planned
from .schema import RecordAddressRow, RecordRow

LATEST = 500


class RecordStore:
    """Reads and writes records."""

    def __init__(self, database: Database) -> None:
        self._database = database

    def add(self, new: NewRecord, key: IdempotencyKey | None = None) -> tuple[Record, bool]:
        """Keeps a record; returns it and whether it was made now.

        With `key`, a second call with the same key returns the first call's record. The key
        and the record are kept in one transaction, so a crash keeps both or neither.

        Raises:
            ReusedKeyError: the key was used before for another request.
        """
        made_at = self._database.now()
        identifier = new_record_id(made_at)

        def work(session: Session) -> None:
            see_what_is_committed(session)
            if key is not None:
                note_key(session, key, identifier, made_at)
            insert_record(session, identifier, with_planned(session, new, made_at), made_at)

        try:
            self._database.run(work)
        except AlreadyThereError:
            if key is None:
                raise
            return self.get(made_before(self._database, key)), False
        return self.get(identifier), True

    def made_with(self, key: IdempotencyKey | None) -> Record | None:
        """The record that this very request made before; None where it made none."""
        found = None if key is None else kept_for(self._database, key)
        return None if found is None else self.get(found)

    def get(self, identifier: str) -> Record:
        """A whole record; NotThereError where there is none."""

        def work(session: Session) -> Record:
            row = session.get(RecordRow, identifier)
            if row is None:
                raise NotThereError(f"There is no record {identifier!r}.")
            return Record(
                **asdict(_summary(row)),
                values=row.field_values,
                addresses=[captured_of(address) for address in rows_of(session, identifier)],
                language=row.language,
                typed=row.typed_values or {},
                revision=row.revision,
                changed_at=row.changed_at,
                changed_by=row.changed_by,
            )

        return self._database.run(work)

    def page(
        self,
        *,
        form: str | None = None,
        search: str = "",
        sort: RecordSort = "newest",
        limit: int = 50,
        after: str | None = None,
    ) -> RecordPage:
        """A page of records.

        Args:
            form: only those of this form.
            search: only those in which every word of it stands somewhere.
            after: the cursor of the page before.

        Raises:
            BadCursorError: `after` is not a cursor of a list sorted this way.
        """
        query = _filtered(select(RecordRow), form, search)
        column, descending = RECORD_ORDERS[sort].column, RECORD_ORDERS[sort].descending
        if after is not None:
            value, last_id = read_cursor(after, sort)
            beyond = column < value if descending else column > value
            id_beyond = RecordRow.id < last_id if descending else RecordRow.id > last_id
            query = query.where(or_(beyond, and_(column == value, id_beyond)))
        ends = (column.desc(), RecordRow.id.desc()) if descending else (column, RecordRow.id)

        def work(session: Session) -> tuple[Sequence[RecordRow], int]:
            rows = session.scalars(query.order_by(*ends).limit(limit + 1)).all()
            total = session.scalar(_filtered(select(func.count(RecordRow.id)), form, search))
            return rows, total or 0

        rows, total = self._database.run(work)
        more = len(rows) > limit
        rows = rows[:limit]
        cursor = cursor_after(rows[-1], sort) if more else None
        return RecordPage([_summary(row) for row in rows], cursor, total)

    def captured_in(
        self, country_code: str, forms: Sequence[str], limit: int
    ) -> list[tuple[RecordSummary, dict[str, str]]]:
        """Components captured in a country by the latest records, with their records.

        Args:
            country_code: ISO 3166-1 alpha-2.
            forms: only records of these forms; of all where it is empty.
            limit: at most so many.
        """
        query = (
            select(RecordRow, RecordAddressRow.components)
            .join(RecordRow, RecordRow.id == RecordAddressRow.record)
            .where(RecordAddressRow.country_code == country_code)
            .order_by(RecordAddressRow.record.desc())
            .limit(limit)
        )
        if forms:
            query = query.where(RecordRow.form.in_(forms))

        def work(session: Session) -> list[tuple[RecordSummary, dict[str, str]]]:
            return [(_summary(row), components) for row, components in session.execute(query)]

        return self._database.run(work)

    def captured_of_slot(self, form: str, slot: str, limit: int) -> list[tuple[str, Captured]]:
        """Addresses that a slot of a form has captured, the latest first, with their records."""
        query = (
            select(RecordAddressRow)
            .join(RecordRow, RecordRow.id == RecordAddressRow.record)
            .where(RecordRow.form == form, RecordAddressRow.slot == slot)
            .order_by(RecordRow.made_at.desc(), RecordRow.id.desc())
            .limit(limit)
        )

        def work(session: Session) -> list[tuple[str, Captured]]:
            return [(row.record, captured_of(row)) for row in session.scalars(query)]

        return self._database.run(work)

    def capture_counts(self, lately: timedelta) -> CaptureCounts:
        """Counts over all records, the last while, and the latest captured addresses."""
        since = self._database.now() - lately
        counted, captured = select(func.count(RecordRow.id)), RecordAddressRow

        def work(session: Session) -> CaptureCounts:
            total = session.scalar(counted) or 0
            recent = session.scalar(counted.where(RecordRow.made_at >= since)) or 0
            latest = session.execute(
                select(captured.address_id, captured.changed)
                .order_by(captured.record.desc())
                .limit(LATEST)
            ).all()
            picked = [changed for address_id, changed in latest if address_id is not None]
            unchanged = sum(not changed for changed in picked)
            return CaptureCounts(total, recent, len(latest), len(picked), unchanged)

        return self._database.run(work)


def _filtered(query: Select[Any], form: str | None, search: str) -> Select[Any]:
    if form is not None:
        query = query.where(RecordRow.form == form)
    for word in fold(search).split():
        query = query.where(RecordRow.search_text.contains(word, autoescape=True))
    return query


def _summary(row: RecordRow) -> RecordSummary:
    return RecordSummary(row.id, row.form, row.form_version, row.label, row.made_at, row.made_by)
