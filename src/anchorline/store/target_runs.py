"""Runs of program targets, as agents have told of them."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta
from typing import Any

from sqlalchemy import delete, select
from sqlalchemy.orm import Session

from .database import Database
from .schema_programs import TargetRunRow

RUNS_REMEMBERED = timedelta(days=90)
MOST_SHOWN = 100


@dataclass(frozen=True, slots=True)
class TargetRun:
    """A run: `report` is what the agent told."""

    id: int
    version: int
    report: Mapping[str, Any]
    by: str
    at: datetime


class TargetRuns:
    """Keeps and lists runs."""

    def __init__(self, database: Database) -> None:
        self._database = database

    def keep(self, target: str, version: int, report: Mapping[str, Any], by: str) -> int:
        """Keeps a run, and gives its id."""
        now = self._database.now()

        def work(session: Session) -> int:
            row = TargetRunRow(target=target, version=version, report=dict(report), by=by, at=now)
            session.add(row)
            session.flush()
            return row.id

        return self._database.run(work)

    def list(self, target: str) -> Sequence[TargetRun]:
        """The latest runs of a target, the latest first."""
        row = TargetRunRow

        def work(session: Session) -> Sequence[TargetRun]:
            query = select(row).where(row.target == target).order_by(row.id.desc())
            return [
                TargetRun(one.id, one.version, one.report, one.by, one.at)
                for one in session.scalars(query.limit(MOST_SHOWN))
            ]

        return self._database.run(work)

    def forget(self, target: str) -> None:
        """Deletes the runs of a target that is gone."""

        def work(session: Session) -> None:
            session.execute(delete(TargetRunRow).where(TargetRunRow.target == target))

        self._database.run(work)
