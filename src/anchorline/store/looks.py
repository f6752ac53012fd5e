"""Looks at programs' screens that somebody has sent: kept for some days, at most so many."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta
from secrets import token_hex
from typing import Any

from sqlalchemy import delete, select
from sqlalchemy.orm import Session

from .database import Database, NotThereError
from .schema_programs import LookRow

# Titles of windows can name people: a look is there to set a target up, and then goes.
LOOKS_REMEMBERED = timedelta(days=7)
MOST_LOOKS = 100


@dataclass(frozen=True, slots=True)
class KeptLook:
    """A look; `facts` have `kind` and `text`."""

    id: str
    facts: Sequence[Mapping[str, Any]]
    machine: str
    by: str
    at: datetime


class LookStore:
    """Keeps and lists looks."""

    def __init__(self, database: Database) -> None:
        self._database = database

    def keep(self, facts: Sequence[Mapping[str, Any]], machine: str, by: str) -> KeptLook:
        """Keeps a look; the oldest go where there are too many."""
        now = self._database.now()
        look = KeptLook(token_hex(8), facts, machine, by, now)

        def work(session: Session) -> None:
            session.add(
                LookRow(
                    id=look.id, facts=[dict(fact) for fact in facts], machine=machine, by=by, at=now
                )
            )
            session.flush()
            newest = select(LookRow.id).order_by(LookRow.at.desc(), LookRow.id)
            old = session.scalars(newest.offset(MOST_LOOKS).limit(MOST_LOOKS)).all()
            if old:
                session.execute(delete(LookRow).where(LookRow.id.in_(old)))

        self._database.run(work)
        return look

    def list(self) -> Sequence[KeptLook]:
        """All looks, the latest first."""

        def work(session: Session) -> Sequence[KeptLook]:
            rows = session.scalars(select(LookRow).order_by(LookRow.at.desc(), LookRow.id))
            return [KeptLook(row.id, row.facts, row.machine, row.by, row.at) for row in rows]

        return self._database.run(work)

    def remove(self, identifier: str) -> None:
        """Deletes a look; NotThereError where there is none."""

        def work(session: Session) -> None:
            row = session.get(LookRow, identifier)
            if row is None:
                raise NotThereError(f"There is no look {identifier[:40]!r}.")
            session.delete(row)

        self._database.run(work)
