"""Records: filled forms with their captured addresses."""

from __future__ import annotations

import secrets
from collections.abc import Sequence
from dataclasses import asdict, dataclass
from datetime import datetime, timedelta
from typing import Any

from sqlalchemy import Select, and_, func, or_, select
from sqlalchemy.orm import Session

from anchorline.core.address import Facts
from anchorline.core.forms import Captured
from anchorline.core.kinds import RecordSort
from anchorline.core.text import fold

from .database import AlreadyThereError, Database, NotThereError
from .idempotency import IdempotencyKey, made_before, note_key
from .record_order import RECORD_ORDERS, cursor_after, read_cursor
from .schema import RecordAddressRow, RecordRow


@dataclass(frozen=True, slots=True)
class NewRecord:
    """A checked, filled form, ready to be kept.

    Attributes:
        label: what lists show of it.
        language: in which its form was read; empty: in its own.
    """

    form: str
    form_version: int
    label: str
    values: dict[str, Any]
    addresses: Sequence[Captured]
    made_by: str
    language: str = ""


@dataclass(frozen=True, slots=True)
class RecordSummary:
    """A record as lists show it."""

    id: str
    form: str
    form_version: int
    label: str
    made_at: datetime
    made_by: str


@dataclass(frozen=True, slots=True)
class Record(RecordSummary):
    """A whole record."""

    values: dict[str, Any]
    addresses: Sequence[Captured]
    language: str


@dataclass(frozen=True, slots=True)
class RecordPage:
    """A page of a list; `after` fetches the next one, None at the end."""

    records: Sequence[RecordSummary]
    after: str | None
    total: int


@dataclass(frozen=True, slots=True)
class CaptureCounts:
    """How many records there are, and how well the latest addresses were captured.

    Attributes:
        records: all of them.
        recent: those made lately.
        captured: the latest captured addresses that were looked at, at most LATEST.
        picked: of these, picked in the finder.
        unchanged: of these, picked and not changed by hand.
    """

    records: int
    recent: int
    captured: int
    picked: int
    unchanged: int


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
        identifier = _new_id(made_at)
        try:
            with self._database.transaction() as session:
                if key is not None:
                    note_key(session, key, identifier, made_at)
                _insert(session, identifier, new, made_at)
        except AlreadyThereError:
            if key is None:
                raise
            return self.get(made_before(self._database, key)), False
        return self.get(identifier), True

    def get(self, identifier: str) -> Record:
        """A whole record; NotThereError where there is none."""
        with self._database.transaction() as session:
            row = session.get(RecordRow, identifier)
            if row is None:
                raise NotThereError(f"There is no record {identifier!r}.")
            addresses = session.scalars(
                select(RecordAddressRow)
                .where(RecordAddressRow.record == identifier)
                .order_by(RecordAddressRow.position)
            )
            return Record(
                **asdict(_summary(row)),
                values=row.field_values,
                addresses=[_captured(address) for address in addresses],
                language=row.language,
            )

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
        with self._database.transaction() as session:
            rows = list(session.scalars(query.order_by(*ends).limit(limit + 1)))
            total = session.scalar(_filtered(select(func.count(RecordRow.id)), form, search)) or 0
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
        with self._database.transaction() as session:
            return [(_summary(row), components) for row, components in session.execute(query)]

    def capture_counts(self, lately: timedelta) -> CaptureCounts:
        """Counts over all records, the last while, and the latest captured addresses."""
        with self._database.transaction() as session:
            total = session.scalar(select(func.count(RecordRow.id))) or 0
            since = self._database.now() - lately
            recent = session.scalar(
                select(func.count(RecordRow.id)).where(RecordRow.made_at >= since)
            )
            latest = session.execute(
                select(RecordAddressRow.address_id, RecordAddressRow.changed)
                .order_by(RecordAddressRow.record.desc())
                .limit(LATEST)
            ).all()
        picked = [changed for address_id, changed in latest if address_id is not None]
        unchanged = sum(not changed for changed in picked)
        return CaptureCounts(total, recent or 0, len(latest), len(picked), unchanged)


def _filtered(query: Select[Any], form: str | None, search: str) -> Select[Any]:
    if form is not None:
        query = query.where(RecordRow.form == form)
    for word in fold(search).split():
        query = query.where(RecordRow.search_text.contains(word, autoescape=True))
    return query


def _insert(session: Session, identifier: str, new: NewRecord, made_at: datetime) -> None:
    words = [
        str(one)
        for value in new.values.values()
        for one in (value if isinstance(value, list) else [value])
    ]
    words += [value for address in new.addresses for value in address.components.values()]
    session.add(
        RecordRow(
            id=identifier,
            form=new.form,
            form_version=new.form_version,
            label=new.label[:200],
            field_values=new.values,
            search_text=fold(" ".join([new.label, *words])),
            made_at=made_at,
            made_by=new.made_by,
            language=new.language,
        )
    )
    session.flush()
    for position, address in enumerate(new.addresses):
        session.add(
            RecordAddressRow(
                record=identifier,
                slot=address.slot,
                position=position,
                country_code=address.country_code,
                components=address.components,
                facts=asdict(address.facts),
                address_id=address.address_id,
                edition=address.edition,
                typed=address.typed,
                changed=list(address.changed),
                layout=address.layout,
            )
        )


def _captured(row: RecordAddressRow) -> Captured:
    facts = {**row.facts, "languages": tuple(row.facts.get("languages", ()))}
    return Captured(
        row.slot,
        row.country_code,
        row.components,
        Facts(**facts),
        row.address_id,
        row.edition,
        row.typed,
        tuple(row.changed),
        row.layout,
    )


def _summary(row: RecordRow) -> RecordSummary:
    return RecordSummary(row.id, row.form, row.form_version, row.label, row.made_at, row.made_by)


def _new_id(now: datetime) -> str:
    """An id that sorts by time: 12 hexadecimal digits of milliseconds and 12 random ones."""
    return f"r{int(now.timestamp() * 1000):012x}{secrets.token_hex(6)}"
