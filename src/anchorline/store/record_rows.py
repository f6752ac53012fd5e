"""Writing records down, with those of other forms that they link to."""

from __future__ import annotations

import secrets
from dataclasses import replace
from datetime import datetime

from sqlalchemy import Select, select
from sqlalchemy.orm import Session

from anchorline.core.text import fold

from .database import NotThereError
from .document_model import FORM
from .record_addresses import address_rows
from .record_lookups import record_having
from .record_model import NewRecord
from .schema import RecordRow
from .schema_documents import DocumentRow


def search_text(new: NewRecord) -> str:
    """What a record is found by."""
    words = [
        str(one)
        for value in new.values.values()
        for one in (value if isinstance(value, list) else [value])
    ]
    words += [value for address in new.addresses for value in address.components.values()]
    return fold(" ".join([new.label, *words]))


def see_what_is_committed(session: Session) -> None:
    """Has each statement of a transaction see what is committed by then; first of all in it."""
    session.connection(execution_options={"isolation_level": "READ COMMITTED"})


def with_planned(session: Session, new: NewRecord, made_at: datetime) -> NewRecord:
    """A record whose links lead to records that are there: those that it plans are made.

    Whoever plans records of a form does so one after another: the second finds what the first
    has made, in a transaction that begins with `see_what_is_committed`.
    """
    values = dict(new.values)
    for plan in sorted(new.planned, key=lambda one: one.record.form):
        other = plan.record.form
        session.scalar(_of_form(other).with_for_update())
        there = record_having(session, other, plan.texts)
        if there is None:
            insert_record(session, plan.id, plan.record, made_at)
            there = (plan.id, plan.record.label)
        values[plan.field] = there[0]
    return replace(new, values=values, planned=())


def insert_record(session: Session, identifier: str, new: NewRecord, made_at: datetime) -> None:
    """Writes a new record and its addresses down.

    Raises:
        NotThereError: its form was deleted in the meantime.
    """
    # Whoever deletes the form waits until this is kept, and then sees it.
    if session.scalar(_of_form(new.form).with_for_update(read=True)) is None:
        raise NotThereError(f"There is no form {new.form!r}.")
    session.add(
        RecordRow(
            id=identifier,
            form=new.form,
            form_version=new.form_version,
            label=new.label[:200],
            field_values=new.values,
            search_text=search_text(new),
            made_at=made_at,
            made_by=new.made_by,
            language=new.language,
            typed_values=dict(new.typed) or None,
        )
    )
    session.flush()
    session.add_all(address_rows(identifier, new.addresses))


def _of_form(key: str) -> Select[str]:
    return select(DocumentRow.key).where(DocumentRow.kind == FORM, DocumentRow.key == key)


def new_record_id(now: datetime) -> str:
    """An id that sorts by time: 12 hexadecimal digits of milliseconds and 12 random ones."""
    return f"r{int(now.timestamp() * 1000):012x}{secrets.token_hex(6)}"
