"""Runs of program targets, as agents have told of them."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta
from typing import Any

from sqlalchemy import delete, select
from sqlalchemy.orm import Session

from .cursors import Cursor, KeysetPage, cut
from .database import Database
from .schema_programs import TargetRunRow

RUNS_REMEMBERED = timedelta(days=90)


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

    def page(self, target: str, limit: int, after: str | None = None) -> KeysetPage[TargetRun]:
        """The runs of a target, the latest first.

        Args:
            after: the cursor of the page before.

        Raises:
            BadCursorError: it was not handed out by this list.
        """
        row, cursor = TargetRunRow, Cursor("runs")
        query = select(row).where(row.target == target).order_by(row.id.desc()).limit(limit + 1)
        if after is not None:
            query = query.where(row.id < cursor.read(after, int)[0])

        def work(session: Session) -> Sequence[TargetRun]:
            return [
                TargetRun(one.id, one.version, one.report, one.by, one.at)
                for one in session.scalars(query)
            ]

        return cut(self._database.run(work), limit, cursor, lambda run: (run.id,))

    def forget(self, target: str) -> None:
        """Deletes the runs of a target that is gone."""

        def work(session: Session) -> None:
            session.execute(delete(TargetRunRow).where(TargetRunRow.target == target))

        self._database.run(work)
