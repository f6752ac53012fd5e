"""Mistakes of set-up that pages report: counted by target, kind and what they are about."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime

from sqlalchemy import delete, func, select
from sqlalchemy.dialects.mysql import insert
from sqlalchemy.orm import Session

from .database import Database
from .document_model import TARGET
from .schema import TargetFaultRow
from .schema_documents import DocumentRow

# A page that goes wild fills no more than this.
MOST_OF_A_TARGET = 200


@dataclass(frozen=True, slots=True)
class TargetFault:
    """One mistake.

    Attributes:
        kind: a key of `core.targets.pages.faults.FAULTS`.
        subject: what it is about: an input's key, an attribute, a path.
        detail: the sentence with the remedy.
        browser: of the latest report, as it names itself.
    """

    kind: str
    subject: str
    detail: str
    count: int
    first_at: datetime
    last_at: datetime
    browser: str


class TargetFaults:
    """Counts and lists mistakes."""

    def __init__(self, database: Database) -> None:
        self._database = database

    def note(self, target: str, kind: str, subject: str, detail: str, browser: str) -> None:
        """Counts a mistake; of a target that is gone, or has very many, nothing is kept."""
        now, row = self._database.now(), TargetFaultRow

        def work(session: Session) -> None:
            if session.get(DocumentRow, (TARGET, target)) is None:
                return
            counting = select(func.count()).where(row.target == target)
            is_known = session.get(row, (target, kind, subject)) is not None
            if not is_known and (session.scalar(counting) or 0) >= MOST_OF_A_TARGET:
                return
            new = insert(row).values(
                target=target,
                kind=kind,
                subject=subject,
                detail=detail,
                count=1,
                first_at=now,
                last_at=now,
                browser=browser,
            )
            session.execute(
                new.on_duplicate_key_update(
                    count=row.count + 1, detail=detail, last_at=now, browser=browser
                )
            )

        self._database.run(work)

    def list(self, target: str) -> Sequence[TargetFault]:
        """The mistakes of a target, the latest first."""
        row = TargetFaultRow

        def work(session: Session) -> Sequence[TargetFault]:
            query = select(row).where(row.target == target)
            rows = session.scalars(query.order_by(row.last_at.desc(), row.kind, row.subject))
            return [
                TargetFault(
                    one.kind,
                    one.subject,
                    one.detail,
                    one.count,
                    one.first_at,
                    one.last_at,
                    one.browser,
                )
                for one in rows
            ]

        return self._database.run(work)

    def forget(self, target: str) -> None:
        """Takes out what pages have reported of a target."""
        statement = delete(TargetFaultRow).where(TargetFaultRow.target == target)
        self._database.run(lambda session: session.execute(statement))
