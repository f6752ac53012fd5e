"""Idempotency keys: within its scope, the same key and request make one thing only."""

from __future__ import annotations

import hashlib
from dataclasses import dataclass
from datetime import datetime

from sqlalchemy.orm import Session

from .database import Database, ReusedKeyError
from .schema import IdempotencyRow


@dataclass(frozen=True, slots=True)
class IdempotencyKey:
    """A key with the content of the request that it came with, or what tells that from another."""

    scope: str
    key: str
    content: bytes


def note_key(session: Session, key: IdempotencyKey, made: str, made_at: datetime) -> None:
    """Notes in a transaction what a key's request made, by its id.

    Raises (when the transaction is flushed):
        AlreadyThereError: the key was used before; `made_before` tells for what.
    """
    session.add(
        IdempotencyRow(
            scope=key.scope,
            key_digest=_digest(key.key.encode()),
            request_digest=_digest(key.content),
            record=made,
            made_at=made_at,
        )
    )
    session.flush()


def made_before(database: Database, key: IdempotencyKey) -> str:
    """The id of what the key's first request made.

    Raises:
        ReusedKeyError: that was another request.
    """

    def work(session: Session) -> str:
        kept = session.get_one(IdempotencyRow, (key.scope, _digest(key.key.encode())))
        if kept.request_digest != _digest(key.content):
            raise ReusedKeyError("the key was used before for another request")
        return kept.record

    return database.run(work)


def kept_for(database: Database, key: IdempotencyKey) -> str | None:
    """The id of what this very request made before; None where it made nothing."""

    def work(session: Session) -> str | None:
        kept = session.get(IdempotencyRow, (key.scope, _digest(key.key.encode())))
        same = kept is not None and kept.request_digest == _digest(key.content)
        return kept.record if kept is not None and same else None

    return database.run(work)


def _digest(data: bytes) -> str:
    return hashlib.sha256(data).hexdigest()
