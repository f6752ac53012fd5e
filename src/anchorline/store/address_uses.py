"""Counting the addresses that are fetched: by key and day, each once within one capture.

A use is counted before its address is served. Where that does not reach whoever asked, they ask
again within the same capture, which counts nothing more: what is counted is what was served.
"""

from __future__ import annotations

import hashlib
import secrets
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date, timedelta

from sqlalchemy import select
from sqlalchemy.dialects.mysql import insert
from sqlalchemy.orm import Session

from anchorline.core.allowance import Allowance, month_of, next_month

from .database import Database, DatabaseUnavailableError
from .schema_calls import AddressUseRow, UseDayRow
from .use_journal import Use, UseJournal

# A capture is as long as a page is open.
CAPTURES_REMEMBERED = timedelta(days=2)


@dataclass(frozen=True, slots=True)
class UsesOfDay:
    """How many addresses were fetched on one day (UTC) for one subject."""

    subject: str
    day: date
    count: int


class AddressUses:
    """Counts and lists uses."""

    def __init__(self, database: Database, journal: UseJournal) -> None:
        self._database, self._journal = database, journal

    def count(self, subject: str, fetched: str, capture: str | None, allowance: Allowance) -> None:
        """Counts an address, unless it was counted within the capture before.

        While the database is away it is kept in the journal, and no limit holds.

        Args:
            fetched: the address's id, or another name for what was fetched.
            capture: named by whoever captures; None for one that is never asked for again.
            allowance: how many a month and a day may have.

        Raises:
            AllowanceUsedUpError: there were as many as may be; nothing is counted.
            StorageFullError: it cannot be counted, so it must not be served.
        """
        whole = f"{capture or secrets.token_hex(16)}\n{fetched}"
        digest = hashlib.blake2b(whole.encode(), digest_size=16).hexdigest()
        use = Use(subject, digest, self._database.now())
        try:
            self._count(use, allowance)
        except DatabaseUnavailableError:
            self._journal.append(use)

    def carry_over(self) -> int:
        """Counts what waits in the journal; DatabaseUnavailableError leaves it there."""
        return self._journal.carry_over(self._count_all)

    def list(self, month: date) -> Sequence[UsesOfDay]:
        """The days of a month on which something was fetched, by subject."""
        row = UseDayRow
        query = select(row).where(row.day >= month_of(month), row.day < next_month(month))

        def work(session: Session) -> Sequence[UsesOfDay]:
            rows = session.scalars(query.order_by(row.subject, row.day))
            return [UsesOfDay(one.subject, one.day, one.count) for one in rows]

        return self._database.run(work)

    def _count(self, use: Use, allowance: Allowance) -> None:

        def work(session: Session) -> None:
            if not _note(session, use) or not allowance.is_limited:
                return
            # The day's row is held now: whoever counts for the same key waits.
            row, day = UseDayRow, use.at.date()
            there = select(row).where(
                row.subject == use.subject, row.day >= month_of(day), row.day < next_month(day)
            )
            counted = session.scalars(there.with_for_update(read=True)).all()
            of_day = sum(one.count for one in counted if one.day == day)
            allowance.hold(sum(one.count for one in counted), of_day, day)

        self._database.run(work)

    def _count_all(self, uses: Sequence[Use]) -> None:

        def work(session: Session) -> None:
            for use in uses:
                _note(session, use)

        self._database.run(work)


def _note(session: Session, use: Use) -> bool:
    """Counts a use; False where it was counted before."""
    seen = insert(AddressUseRow).values(subject=use.subject, digest=use.digest, at=use.at)
    if session.connection().execute(seen.prefix_with("IGNORE")).rowcount == 0:
        return False
    day = insert(UseDayRow).values(subject=use.subject, day=use.at.date(), count=1)
    session.execute(day.on_duplicate_key_update(count=UseDayRow.count + 1))
    return True
