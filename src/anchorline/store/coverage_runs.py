"""What mappings made of many addresses, run by run."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import Any

from sqlalchemy import ColumnElement, delete, select
from sqlalchemy.orm import Session

from .database import Database
from .schema import CoverageRunRow

KEPT_RUNS = 20


@dataclass(frozen=True, slots=True)
class CoverageRun:
    """One run.

    Attributes:
        kind: of the document: `form` or `target`; `form` is the key of either.
        version: that was run; None for a draft that differed.
        revision: of the draft.
        result: as it is answered.
    """

    job: str
    kind: str
    form: str
    slot: str
    version: int | None
    revision: int
    source: str
    made_at: datetime
    made_by: str
    seconds: float
    result: dict[str, Any]


_FIELDS = tuple(CoverageRun.__dataclass_fields__)


class CoverageRuns:
    """Keeps runs, the latest of each slot."""

    def __init__(self, database: Database) -> None:
        self._database = database

    def keep(self, run: CoverageRun) -> None:
        """Keeps a run; of a job that is done again, the last one."""

        def work(session: Session) -> None:
            session.merge(CoverageRunRow(**{name: getattr(run, name) for name in _FIELDS}))
            session.flush()
            older = session.scalars(
                select(CoverageRunRow.job)
                .where(*_of(run.kind, run.form, run.slot))
                .order_by(CoverageRunRow.made_at.desc(), CoverageRunRow.job)
                .offset(KEPT_RUNS)
            ).all()
            if older:
                session.execute(delete(CoverageRunRow).where(CoverageRunRow.job.in_(older)))

        self._database.run(work)

    def list(
        self, kind: str, form: str, slot: str, limit: int = KEPT_RUNS
    ) -> Sequence[CoverageRun]:
        """The latest runs of a slot, newest first."""

        def work(session: Session) -> Sequence[CoverageRun]:
            rows = session.scalars(
                select(CoverageRunRow)
                .where(*_of(kind, form, slot))
                .order_by(CoverageRunRow.made_at.desc(), CoverageRunRow.job)
                .limit(limit)
            )
            return [CoverageRun(**{name: getattr(row, name) for name in _FIELDS}) for row in rows]

        return self._database.run(work)

    def forget(self, kind: str, form: str) -> None:
        """Takes out the runs of a form or a target."""
        statement = delete(CoverageRunRow).where(*_of(kind, form))
        self._database.run(lambda session: session.execute(statement))


def _of(kind: str, form: str, slot: str | None = None) -> Sequence[ColumnElement[bool]]:
    found = [CoverageRunRow.kind == kind, CoverageRunRow.form == form]
    return found if slot is None else [*found, CoverageRunRow.slot == slot]
