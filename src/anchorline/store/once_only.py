"""Idempotency keys: within its scope, the same request makes one thing only."""

from __future__ import annotations

import hashlib
from dataclasses import dataclass
from datetime import datetime

from sqlalchemy.orm import Session

from .database import Database, ReusedKeyError
from .schema import IdempotencyRow


@dataclass(frozen=True, slots=True)
class OnceOnly:
    """A key with the request that it came with, or what stands for that request."""

    scope: str
    key: str
    request: bytes


def note_key(session: Session, once: OnceOnly, made: str, made_at: datetime) -> None:
    """Notes in a transaction what a key's request made, by its id.

    Raises (when the transaction is flushed):
        AlreadyThereError: the key was used before; `made_before` tells for what.
    """
    session.add(
        IdempotencyRow(
            scope=once.scope,
            key_digest=_digest(once.key.encode()),
            request_digest=_digest(once.request),
            record=made,
            made_at=made_at,
        )
    )
    session.flush()


def made_before(database: Database, once: OnceOnly) -> str:
    """The id of what the key's first request made.

    Raises:
        ReusedKeyError: that was another request.
    """
    with database.transaction() as session:
        kept = session.get_one(IdempotencyRow, (once.scope, _digest(once.key.encode())))
        if kept.request_digest != _digest(once.request):
            raise ReusedKeyError("the key was used before for another request")
        return kept.record


def _digest(data: bytes) -> str:
    return hashlib.sha256(data).hexdigest()
