"""People who sign in to the console, and their sessions."""

from __future__ import annotations

import hashlib
import secrets
import unicodedata
from dataclasses import dataclass
from datetime import timedelta
from functools import lru_cache

from argon2 import PasswordHasher
from argon2.exceptions import InvalidHashError, VerifyMismatchError
from sqlalchemy import delete, select
from sqlalchemy.orm import Session

from .database import Database
from .schema import LoginSessionRow, UserRow

SESSION_LENGTH = timedelta(hours=12)

_hasher = PasswordHasher()


@lru_cache(maxsize=1)
def _nobody() -> str:
    """Checked where the e-mail address is unknown, so that both answers take the same time."""
    return _hasher.hash(secrets.token_urlsafe(16))


def normal_email(text: str) -> str:
    """An e-mail address as it is kept and compared: without blanks around it, letters folded."""
    return unicodedata.normalize("NFKC", text).strip().casefold()


@dataclass(frozen=True, slots=True)
class User:
    """A person who signs in."""

    id: int
    email: str
    name: str


@dataclass(frozen=True, slots=True)
class LoginSession:
    """A signed-in session; `csrf_token` must come back with every change."""

    user: User
    csrf_token: str


def _digest(text: str) -> str:
    return hashlib.sha256(text.encode()).hexdigest()


class UserStore:
    """Reads and writes users and their sessions."""

    def __init__(self, database: Database) -> None:
        self._database = database

    def put(self, email: str, name: str, password: str) -> None:
        """Makes a user, or gives an existing one a new name and password."""
        hashed = _hasher.hash(password)

        def work(session: Session) -> None:
            row = session.scalar(select(UserRow).where(UserRow.email == normal_email(email)))
            if row is None:
                session.add(
                    UserRow(
                        email=normal_email(email),
                        name=name,
                        password_hash=hashed,
                        created_at=self._database.now(),
                    )
                )
            else:
                row.name, row.password_hash = name, hashed
                session.execute(delete(LoginSessionRow).where(LoginSessionRow.user_id == row.id))

        self._database.run(work)

    def check_password(self, email: str, password: str) -> User | None:
        """The user with this e-mail address and password, or None."""

        def work(session: Session) -> UserRow | None:
            return session.scalar(select(UserRow).where(UserRow.email == normal_email(email)))

        row = self._database.run(work)
        user = User(row.id, row.email, row.name) if row else None
        kept = row.password_hash if row else _nobody()
        try:
            _hasher.verify(kept, password)
        except (VerifyMismatchError, InvalidHashError):
            return None
        return user

    def open_session(self, user: User) -> tuple[str, LoginSession]:
        """A new session: the secret token for the cookie, and the session."""
        token, csrf = secrets.token_urlsafe(32), secrets.token_urlsafe(24)
        now = self._database.now()

        def work(session: Session) -> None:
            session.execute(delete(LoginSessionRow).where(LoginSessionRow.expires_at < now))
            session.add(
                LoginSessionRow(
                    token_digest=_digest(token),
                    user_id=user.id,
                    csrf_token=csrf,
                    expires_at=now + SESSION_LENGTH,
                )
            )

        self._database.run(work)
        return token, LoginSession(user, csrf)

    def find_session(self, token: str) -> LoginSession | None:
        """The session of a token, unless it has run out."""

        def work(session: Session) -> LoginSession | None:
            found = session.execute(
                select(LoginSessionRow, UserRow)
                .join(UserRow, UserRow.id == LoginSessionRow.user_id)
                .where(
                    LoginSessionRow.token_digest == _digest(token),
                    LoginSessionRow.expires_at > self._database.now(),
                )
            ).first()
            if found is None:
                return None
            kept, user = found
            return LoginSession(User(user.id, user.email, user.name), kept.csrf_token)

        return self._database.run(work)

    def close_session(self, token: str) -> None:
        """Ends the session of a token."""

        def work(session: Session) -> None:
            session.execute(
                delete(LoginSessionRow).where(LoginSessionRow.token_digest == _digest(token))
            )

        self._database.run(work)
