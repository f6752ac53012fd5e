"""Deleting what has expired: idempotency keys, sessions, old jobs, old activity …"""

from __future__ import annotations

from datetime import datetime, timedelta
from functools import partial

from sqlalchemy import Delete, delete, select
from sqlalchemy.orm import Session

from .address_uses import CAPTURES_REMEMBERED
from .capture_quality import NOT_FOUND_REMEMBERED
from .database import Database
from .looks import LOOKS_REMEMBERED
from .schema import (
    EditionRow,
    IdempotencyRow,
    JobRow,
    LoginSessionRow,
    SignInFailureRow,
    SignInPlaceRow,
)
from .schema_calls import ActivityRow, AddressUseRow, NotFoundRow, ObservationRow
from .schema_documents import DocumentEditorRow
from .schema_programs import LookRow, TargetRunRow
from .target_runs import RUNS_REMEMBERED

KEYS_REMEMBERED = timedelta(days=7)
FAILURES_REMEMBERED = timedelta(days=1)
PLACES_REMEMBERED = timedelta(days=180)
# A job takes with it the report of the rows that it left out; one whose file is kept stays.
JOBS_REMEMBERED = timedelta(days=90)
UPLOADS_WAITED_FOR = timedelta(days=1)
EDITORS_REMEMBERED = timedelta(hours=1)
_PART = 5_000


def purge_expired(database: Database, activity_days: int) -> int:
    """Deletes them and returns how many rows there were."""
    now = database.now()
    of_editions = select(EditionRow.job).where(EditionRow.job.is_not(None))
    old = [
        delete(JobRow).where(
            JobRow.ended_at < now - JOBS_REMEMBERED,
            JobRow.id.not_in(of_editions),
            JobRow.file_kept.is_(False),
        ),
        delete(JobRow).where(
            JobRow.state == "receiving", JobRow.made_at < now - UPLOADS_WAITED_FOR
        ),
        delete(IdempotencyRow).where(IdempotencyRow.made_at < now - KEYS_REMEMBERED),
        delete(LoginSessionRow).where(LoginSessionRow.expires_at < now),
        delete(SignInFailureRow).where(SignInFailureRow.last_at < now - FAILURES_REMEMBERED),
        delete(DocumentEditorRow).where(DocumentEditorRow.seen_at < now - EDITORS_REMEMBERED),
        delete(AddressUseRow).where(AddressUseRow.at < now - CAPTURES_REMEMBERED),
        delete(NotFoundRow).where(NotFoundRow.last_at < now - NOT_FOUND_REMEMBERED),
        delete(LookRow).where(LookRow.at < now - LOOKS_REMEMBERED),
        delete(TargetRunRow).where(TargetRunRow.at < now - RUNS_REMEMBERED),
        delete(ObservationRow).where(ObservationRow.until < now),
        delete(SignInPlaceRow).where(SignInPlaceRow.last_at < now - PLACES_REMEMBERED),
    ]
    # Each by itself, so that none waits for rows that another holds.
    count = sum(database.run(partial(_deleted, statement)) for statement in old)
    return count + _purge_activity(database, now - timedelta(days=activity_days))


def _deleted(statement: Delete, session: Session) -> int:
    return session.connection().execute(statement).rowcount


def _purge_activity(database: Database, before: datetime) -> int:
    """In small parts: there are very many, and calls are kept meanwhile."""
    old = select(ActivityRow.id).where(ActivityRow.at < before).limit(_PART)

    def work(session: Session) -> int:
        ids = session.scalars(old).all()
        if ids:
            session.execute(delete(ActivityRow).where(ActivityRow.id.in_(ids)))
        return len(ids)

    count = 0
    while True:
        part = database.run(work)
        count += part
        if part < _PART:
            return count
