"""The brake on guessing passwords.

A try is counted before the password is checked, so that tries made at the same moment all count.
They are counted by the e-mail address as it is looked up and by the network address. Places (a
network address, a browser) from which an account was signed in to before are counted separately, so
that nobody elsewhere can lock their people out.
"""

from __future__ import annotations

import hashlib
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import timedelta
from ipaddress import IPv6Address, ip_address

from sqlalchemy import delete, select
from sqlalchemy.dialects.mysql import insert
from sqlalchemy.orm import Session

from .database import Database
from .schema import SignInFailureRow, SignInPlaceRow
from .users import normal_email

FREE_FAILURES = 4
LONGEST_WAIT = timedelta(minutes=15)
LONGEST_WAIT_OF_KNOWN = timedelta(seconds=30)
FAILURES_FORGOTTEN_AFTER = timedelta(hours=1)


@dataclass(frozen=True, slots=True)
class SignInTry:
    """Who tries to sign in, and from where.

    Attributes:
        browser: a secret that the browser was given at an earlier sign-in; empty for none.
    """

    email: str
    address: str
    browser: str = ""

    @property
    def _account(self) -> str:
        return f"account {normal_email(self.email)}"

    @property
    def account(self) -> str:
        """A digest of the account that is meant."""
        return _digest(self._account)

    @property
    def places(self) -> list[str]:
        """Digests of the places that it comes from, the most certain first."""
        browser = [_digest(f"browser {self.browser}")] if self.browser else []
        return [*browser, _digest(f"address {_network(self.address)}")]


class SignInBrake:
    """Counts tries and says how long the next one has to wait."""

    def __init__(self, database: Database) -> None:
        self._database = database

    def count(self, tried: SignInTry) -> timedelta:
        """Counts a try as failed, until it is known to be none; how long it has to wait instead.

        Returns:
            No time: the password may be looked at. Else the try was not counted.
        """
        now = self._database.now()

        def work(session: Session) -> timedelta:
            known = self._known_place(session, tried)
            longest = LONGEST_WAIT if known is None else LONGEST_WAIT_OF_KNOWN
            rows = _locked(session, _subjects(tried, known), now)
            for row in rows:
                if now - row.last_at > FAILURES_FORGOTTEN_AFTER:
                    row.failures = 0
            wait = max(_wait(row.failures, longest) + row.last_at - now for row in rows)
            if any(row.failures > FREE_FAILURES for row in rows) and wait > timedelta(0):
                return wait
            for row in rows:
                row.failures, row.last_at = row.failures + 1, now
            return timedelta(0)

        return self._database.run(work)

    def succeeded(self, tried: SignInTry) -> None:
        """Takes back what `count` counted, and remembers the places."""
        now = self._database.now()

        def work(session: Session) -> None:
            known = self._known_place(session, tried)
            for row in _locked(session, _subjects(tried, known), now):
                row.failures = 0 if known else max(0, row.failures - 1)
            for place in tried.places:
                values = {"account_digest": tried.account, "place_digest": place, "last_at": now}
                statement = insert(SignInPlaceRow).values(**values)
                session.execute(statement.on_duplicate_key_update(last_at=now))

        self._database.run(work)

    def forget_places(self, email: str) -> None:
        """Knows no place of an account any more: its password was made anew."""
        account = SignInTry(email, "").account

        def work(session: Session) -> None:
            session.execute(delete(SignInPlaceRow).where(SignInPlaceRow.account_digest == account))

        self._database.run(work)

    def _known_place(self, session: Session, tried: SignInTry) -> str | None:
        for place in tried.places:
            query = select(SignInPlaceRow).where(
                SignInPlaceRow.account_digest == tried.account,
                SignInPlaceRow.place_digest == place,
            )
            if session.scalar(query) is not None:
                return place
        return None


def _subjects(tried: SignInTry, known: str | None) -> Sequence[str]:
    if known is not None:
        return [_digest(f"{tried.account} at {known}")]
    return sorted([tried.account, tried.places[-1]])


def _locked(session: Session, subjects: Sequence[str], now: object) -> list[SignInFailureRow]:
    """The counts of the subjects, held until the transaction ends, always in the same order."""
    for subject in subjects:
        statement = insert(SignInFailureRow).values(subject_digest=subject, failures=0, last_at=now)
        session.execute(statement.on_duplicate_key_update(failures=SignInFailureRow.failures))
    return [
        session.get_one(SignInFailureRow, subject, with_for_update=True) for subject in subjects
    ]


def _wait(failures: int, longest: timedelta) -> timedelta:
    if failures <= FREE_FAILURES:
        return timedelta(0)
    return min(timedelta(seconds=2 ** min(failures - FREE_FAILURES, 12)), longest)


def _network(address: str) -> str:
    """An IPv4 address, or the /64 network that one subscriber has of IPv6 (RFC 6177)."""
    try:
        parsed = ip_address(address)
    except ValueError:
        return address
    if isinstance(parsed, IPv6Address):
        if parsed.ipv4_mapped is not None:
            return str(parsed.ipv4_mapped)
        return f"{IPv6Address(int(parsed) >> 64 << 64)}/64"
    return str(parsed)


def _digest(text: str) -> str:
    return hashlib.sha256(text.encode()).hexdigest()
