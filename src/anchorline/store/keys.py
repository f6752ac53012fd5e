"""Keys: what programs and pages present to the API.

A key is `anl_server_ID_SECRET` or `anl_browser_ID_SECRET`. Only the SHA-256 digest of the
secret is kept: with 192 random bits it needs no slow hash.
"""

from __future__ import annotations

import hashlib
import hmac
import secrets
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime

from sqlalchemy import select

from .database import Database, NotThereError
from .schema import ApiKeyRow

KEY_KINDS: tuple[str, ...] = ("server", "browser")


@dataclass(frozen=True, slots=True)
class ApiKey:
    """A key, without its secret.

    Attributes:
        id: the part of it that may be shown.
        kind: `server` or `browser`.
        name: what it is for.
        origins: for a browser key: the web origins it may be used from.
        forms: for a browser key: keys of the forms it may be used for.
        created_at: when it was made, where that was asked for.
        ended: whether nobody may use it any more.
    """

    id: str
    kind: str
    name: str
    origins: tuple[str, ...] = ()
    forms: tuple[str, ...] = ()
    created_at: datetime | None = None
    ended: bool = False


class KeyStore:
    """Reads and writes keys."""

    def __init__(self, database: Database) -> None:
        self._database = database

    def create(
        self, kind: str, name: str, *, origins: tuple[str, ...] = (), forms: tuple[str, ...] = ()
    ) -> str:
        """Makes a key and returns it whole: the only time that it can be had."""
        if kind not in KEY_KINDS:
            raise ValueError(f"A key is of kind {' or '.join(KEY_KINDS)}, not {kind!r}.")
        identifier, secret = secrets.token_hex(6), secrets.token_urlsafe(24).replace("_", "-")
        with self._database.transaction() as session:
            session.add(
                ApiKeyRow(
                    id=identifier,
                    kind=kind,
                    name=name,
                    secret_digest=_digest(secret),
                    origins=list(origins),
                    forms=list(forms),
                    created_at=self._database.now(),
                    revoked=False,
                )
            )
        return f"anl_{kind}_{identifier}_{secret}"

    def list(self) -> Sequence[ApiKey]:
        """All keys without their secrets, the oldest first, ended ones among them."""
        with self._database.transaction() as session:
            rows = session.scalars(select(ApiKeyRow).order_by(ApiKeyRow.created_at, ApiKeyRow.id))
            return [_key(row) for row in rows]

    def end(self, identifier: str) -> None:
        """Ends a key for good; NotThereError where there is none with this id."""
        with self._database.transaction() as session:
            row = session.get(ApiKeyRow, identifier, with_for_update=True)
            if row is None:
                raise NotThereError(f"There is no key {identifier!r}.")
            row.revoked = True

    def check(self, presented: str) -> ApiKey | None:
        """The key that was presented, or None where it is not a valid one."""
        parts = presented.split("_")
        if len(parts) != 4 or parts[0] != "anl" or parts[1] not in KEY_KINDS:
            return None
        with self._database.transaction() as session:
            row = session.scalar(
                select(ApiKeyRow).where(ApiKeyRow.id == parts[2], ApiKeyRow.revoked.is_(False))
            )
            if row is None or row.kind != parts[1]:
                return None
            if not hmac.compare_digest(row.secret_digest, _digest(parts[3])):
                return None
            return _key(row)


def _key(row: ApiKeyRow) -> ApiKey:
    origins, forms = tuple(row.origins), tuple(row.forms)
    return ApiKey(row.id, row.kind, row.name, origins, forms, row.created_at, row.revoked)


def _digest(secret: str) -> str:
    return hashlib.sha256(secret.encode()).hexdigest()
