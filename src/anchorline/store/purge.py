"""Deleting what has expired: idempotency keys, sessions, failed sign-ins, old jobs."""

from __future__ import annotations

from datetime import timedelta

from sqlalchemy import delete, select

from .database import Database
from .schema import (
    EditionRow,
    FormEditorRow,
    IdempotencyRow,
    JobRow,
    LoginSessionRow,
    SignInFailureRow,
    SignInPlaceRow,
)

KEYS_REMEMBERED = timedelta(days=7)
FAILURES_REMEMBERED = timedelta(days=1)
PLACES_REMEMBERED = timedelta(days=180)
# A job takes with it the report of the rows that it left out; one whose file is kept stays.
JOBS_REMEMBERED = timedelta(days=90)
UPLOADS_WAITED_FOR = timedelta(days=1)
EDITORS_REMEMBERED = timedelta(hours=1)


def purge_expired(database: Database) -> int:
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
        delete(FormEditorRow).where(FormEditorRow.seen_at < now - EDITORS_REMEMBERED),
        delete(SignInPlaceRow).where(SignInPlaceRow.last_at < now - PLACES_REMEMBERED),
    ]
    count = 0
    for statement in old:
        # Each by itself, so that none waits for rows that another holds.
        with database.transaction() as session:
            count += session.connection().execute(statement).rowcount
    return count
