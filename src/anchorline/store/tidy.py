"""Taking out what has served its time: old idempotency keys, sessions, failed sign-ins."""

from __future__ import annotations

from datetime import timedelta

from sqlalchemy import delete

from .database import Database
from .schema import IdempotencyRow, LoginSessionRow, SignInFailureRow

KEYS_REMEMBERED = timedelta(days=7)
FAILURES_REMEMBERED = timedelta(days=1)


def tidy(database: Database) -> int:
    """Deletes them and returns how many rows there were."""
    now = database.now()
    old = [
        delete(IdempotencyRow).where(IdempotencyRow.made_at < now - KEYS_REMEMBERED),
        delete(LoginSessionRow).where(LoginSessionRow.expires_at < now),
        delete(SignInFailureRow).where(SignInFailureRow.last_at < now - FAILURES_REMEMBERED),
    ]
    count = 0
    for statement in old:
        # Each by itself, so that none waits for rows that another holds.
        with database.transaction() as session:
            count += session.connection().execute(statement).rowcount
    return count
