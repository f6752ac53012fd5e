"""Keys: what programs and pages present to the API.

A key is `anl_server_ID_SECRET` or `anl_browser_ID_SECRET`. Only the SHA-256 digest of the
secret is kept: with 192 random bits it needs no slow hash. A rotation gives a key a new secret; the
earlier one goes on beside it for as long as was asked for.
"""

from __future__ import annotations

import hashlib
import hmac
import secrets
from collections.abc import Mapping, Sequence
from contextlib import suppress
from dataclasses import dataclass
from datetime import datetime, timedelta

from sqlalchemy import select, tuple_, update
from sqlalchemy.orm import Session

from anchorline.core.allowance import Allowance
from anchorline.core.keys import KEY_KINDS, WantedKey

from .cursors import Cursor, KeysetPage, cut, time_of
from .database import Database, NotThereError, StoreError
from .schema import ApiKeyRow

# How far behind the time of the latest use may be: keys are looked at every few seconds.
_USE_NOTED_EVERY = timedelta(minutes=1)
_ANY = Allowance()


class EndedKeyError(StoreError):
    """The key is ended or expired; nothing of it can be changed any more."""


@dataclass(frozen=True, slots=True)
class ApiKey:
    """A key, without its secret.

    Attributes:
        id: the part of it that may be shown.
        kind: `server` or `browser`.
        name: what it is for.
        scopes: for a server key: what it may do, keys of `core.keys.SCOPES`.
        origins: for a browser key: the web origins it may be used from.
        forms, targets: for a browser key: keys of those it may be used for.
        created_at: when it was made, where that was asked for.
        expires_at: nobody can use it from then on.
        used_at: when it was used last, to a minute.
        rotated_at: when it got its present secret, where that is not its first.
        earlier_until: until when the secret before that goes on.
        ended: whether nobody may use it any more.
        allowance: how many addresses it may fetch.
    """

    id: str
    kind: str
    name: str
    scopes: tuple[str, ...] = ()
    origins: tuple[str, ...] = ()
    forms: tuple[str, ...] = ()
    targets: tuple[str, ...] = ()
    created_at: datetime | None = None
    expires_at: datetime | None = None
    used_at: datetime | None = None
    rotated_at: datetime | None = None
    earlier_until: datetime | None = None
    ended: bool = False
    allowance: Allowance = _ANY


@dataclass(frozen=True, slots=True)
class NewSecret:
    """A key with its secret: `whole` is what is presented, and can be had only now."""

    key: ApiKey
    whole: str


class KeyStore:
    """Reads and writes keys."""

    def __init__(self, database: Database) -> None:
        self._database = database

    def create(self, wanted: WantedKey) -> NewSecret:
        """Makes a key, which was checked before."""
        identifier, secret = secrets.token_hex(6), _new_secret()
        row = ApiKeyRow(
            id=identifier,
            kind=wanted.kind,
            name=wanted.name,
            secret_digest=_digest(secret),
            scopes=list(wanted.scopes),
            origins=list(wanted.origins),
            forms=list(wanted.forms),
            targets=list(wanted.targets),
            created_at=self._database.now(),
            expires_at=wanted.expires_at,
            revoked=False,
        )

        def work(session: Session) -> NewSecret:
            session.add(row)
            session.flush()
            return NewSecret(_key(row), f"anl_{wanted.kind}_{identifier}_{secret}")

        return self._database.run(work)

    def list(self) -> Sequence[ApiKey]:
        """All keys without their secrets, the oldest first, ended ones among them."""

        def work(session: Session) -> Sequence[ApiKey]:
            rows = session.scalars(select(ApiKeyRow).order_by(ApiKeyRow.created_at, ApiKeyRow.id))
            return [_key(row) for row in rows]

        return self._database.run(work)

    def page(self, limit: int, after: str | None = None) -> KeysetPage[ApiKey]:
        """Some of them, in the same order.

        Args:
            after: the cursor of the page before.

        Raises:
            BadCursorError: it was not handed out by this list.
        """
        row, cursor = ApiKeyRow, Cursor("keys")
        query = select(row).order_by(row.created_at, row.id).limit(limit + 1)
        if after is not None:
            seen, identifier = cursor.read(after, str, str)
            query = query.where(tuple_(row.created_at, row.id) > (time_of(seen), identifier))
        found = self._database.run(lambda session: session.scalars(query).all())
        page = cut(found, limit, cursor, lambda one: (one.created_at.isoformat(), one.id))
        return KeysetPage(list(map(_key, page.entries)), page.after)

    def names(self) -> Mapping[str, str]:
        """What each key is called, by its id; of all, ended ones too."""

        def work(session: Session) -> Mapping[str, str]:
            found = session.execute(select(ApiKeyRow.id, ApiKeyRow.name))
            return {row.id: row.name for row in found}

        return self._database.run(work)

    def get(self, identifier: str) -> ApiKey:
        """A key without its secret; NotThereError where there is none with this id."""

        def work(session: Session) -> ApiKey:
            return _key(_row(session, identifier))

        return self._database.run(work)

    def rotate(self, identifier: str, overlap: timedelta) -> NewSecret:
        """Gives a key a new secret; the present one goes on for the overlap.

        A secret before the present one ends at once.

        Raises:
            NotThereError: there is no key with this id.
            EndedKeyError: nobody can use it any more.
        """
        now, secret = self._database.now(), _new_secret()

        def work(session: Session) -> NewSecret:
            row = _row(session, identifier)
            if row.revoked or (row.expires_at is not None and row.expires_at <= now):
                raise EndedKeyError(f"The key {identifier!r} is ended; make another one.")
            row.earlier_digest, row.earlier_until = row.secret_digest, now + overlap
            row.secret_digest, row.rotated_at = _digest(secret), now
            return NewSecret(_key(row), f"anl_{row.kind}_{row.id}_{secret}")

        return self._database.run(work)

    def end(self, identifier: str) -> ApiKey:
        """Ends a key for good; NotThereError where there is none with this id."""

        def work(session: Session) -> ApiKey:
            row = _row(session, identifier)
            row.revoked = True
            return _key(row)

        return self._database.run(work)

    def allow(self, identifier: str, allowance: Allowance) -> ApiKey:
        """Says how many addresses a key may fetch; NotThereError where there is no such key."""

        def work(session: Session) -> ApiKey:
            row = _row(session, identifier)
            row.monthly_limit, row.warn_share = allowance.limit, allowance.warn_share
            return _key(row)

        return self._database.run(work)

    def check(self, presented: str) -> ApiKey | None:
        """The key that was presented, or None where it is not one that can be used now."""
        parts = presented.split("_")
        if len(parts) != 4 or parts[0] != "anl" or parts[1] not in KEY_KINDS:
            return None
        now = self._database.now()

        def work(session: Session) -> ApiKey | None:
            row = session.get(ApiKeyRow, parts[2])
            can_be_used = row is not None and _can_be_used(row, parts[1], _digest(parts[3]), now)
            return _key(row) if row is not None and can_be_used else None

        key = self._database.run(work)
        if key is None:
            return None
        if key.used_at is None or now - key.used_at >= _USE_NOTED_EVERY:
            self._note_use(key.id, now)
        return key

    def _note_use(self, identifier: str, now: datetime) -> None:
        """Notes when a key was used; where that cannot be kept, the key goes on all the same."""
        noting = update(ApiKeyRow).where(ApiKeyRow.id == identifier).values(used_at=now)

        def work(session: Session) -> None:
            session.execute(noting)

        with suppress(StoreError):
            self._database.run(work)


def _row(session: Session, identifier: str) -> ApiKeyRow:
    row = session.get(ApiKeyRow, identifier, with_for_update=True)
    if row is None:
        raise NotThereError(f"There is no key {identifier!r}.")
    return row


def _can_be_used(row: ApiKeyRow, kind: str, digest: str, now: datetime) -> bool:
    if row.kind != kind or row.revoked or (row.expires_at is not None and row.expires_at <= now):
        return False
    if hmac.compare_digest(row.secret_digest, digest):
        return True
    if row.earlier_digest is None or row.earlier_until is None or row.earlier_until <= now:
        return False
    return hmac.compare_digest(row.earlier_digest, digest)


def _key(row: ApiKeyRow) -> ApiKey:
    return ApiKey(
        id=row.id,
        kind=row.kind,
        name=row.name,
        scopes=tuple(row.scopes),
        origins=tuple(row.origins),
        forms=tuple(row.forms),
        targets=tuple(row.targets),
        created_at=row.created_at,
        expires_at=row.expires_at,
        used_at=row.used_at,
        rotated_at=row.rotated_at,
        earlier_until=row.earlier_until,
        ended=row.revoked,
        allowance=Allowance(row.monthly_limit, row.warn_share),
    )


def _new_secret() -> str:
    return secrets.token_urlsafe(24).replace("_", "-")


def _digest(secret: str) -> str:
    return hashlib.sha256(secret.encode()).hexdigest()
