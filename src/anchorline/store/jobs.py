"""Jobs: work that takes longer than a request, done by workers (`job_claims`)."""

from __future__ import annotations

import secrets
from collections.abc import Sequence
from typing import Any

from sqlalchemy import delete, select
from sqlalchemy.orm import Session

from .database import NotThereError
from .datasets import make_dataset
from .idempotency import IdempotencyKey, made_before, note_key
from .job_claims import JobClaims, end_unheld, job_of
from .job_model import (
    OPEN_STATES,
    Job,
    NewJob,
    NoFileError,
)
from .schema import JobRow, RowBlockRow, SourcePartRow


class JobStore(JobClaims):
    """Makes and lists jobs, and does with them what workers do."""

    def make(self, new: NewJob, *, receiving: bool = False) -> Job:
        """A new job; makes its dataset where that is new.

        Args:
            receiving: its file is still on its way; `received` puts it in line.

        Raises:
            AlreadyThereError: another one that has not ended is about the same, and is `alone`.
        """
        now = self._database.now()
        row = JobRow(
            id=secrets.token_hex(16),
            kind=new.kind,
            dataset=new.dataset or None,
            state="receiving" if receiving else "waiting",
            options=new.options,
            source_name=new.source_name[:255],
            source_digest="",
            made_at=now,
            made_by=new.made_by,
            edition=new.edition,
            alone=new.alone or None,
        )

        def work(session: Session) -> Job:
            if new.dataset:
                make_dataset(session, new.dataset)
            session.add(row)
            session.flush()
            return job_of(row)

        return self._database.run(work)

    def received(
        self, job: str, *, size: int, digest: str, key: IdempotencyKey | None = None
    ) -> Job:
        """Puts a job whose file is there in line.

        Raises:
            NotThereError: it was withdrawn.
            AlreadyThereError: the key was used before; `made_by_key` has what it made.
        """

        def work(session: Session) -> Job:
            if key is not None:
                note_key(session, key, job, self._database.now())
            row = session.get(JobRow, job, with_for_update=True)
            if row is None or row.state != "receiving":
                raise NotThereError(f"There is no job {job!r} that waits for its file.")
            row.state, row.bytes_total, row.source_digest = "waiting", size, digest
            row.file_kept = True
            return job_of(row)

        return self._database.run(work)

    def made_by_key(self, key: IdempotencyKey) -> Job:
        """The job that a key made; ReusedKeyError where it came with another request."""
        return self.get(made_before(self._database, key))

    def withdraw(self, job: str) -> None:
        """Takes out a job whose file did not come whole."""

        def work(session: Session) -> None:
            row = session.get(JobRow, job)
            if row is not None and row.state == "receiving":
                session.delete(row)

        self._database.run(work)

    def get(self, job: str) -> Job:
        """A job; NotThereError where there is none."""

        def work(session: Session) -> Job:
            row = session.get(JobRow, job)
            if row is None:
                raise NotThereError(f"There is no job {job!r}.")
            return job_of(row)

        return self._database.run(work)

    def list(self, dataset: str, limit: int = 20) -> Sequence[Job]:
        """The latest jobs of a dataset, newest first."""

        def work(session: Session) -> Sequence[Job]:
            rows = session.scalars(
                select(JobRow)
                .where(JobRow.dataset == dataset)
                .order_by(JobRow.made_at.desc(), JobRow.id)
                .limit(limit)
            )
            return [job_of(row) for row in rows]

        return self._database.run(work)

    def cancel(self, job: str) -> Job:
        """Asks a job to end; one that has not begun ends at once, one that has ended stays so."""

        def work(session: Session) -> Job:
            row = _row(session, job)
            if row.state in OPEN_STATES:
                row.cancel_asked = True
                if row.state != "running":
                    end_unheld(session, row, "cancelled", "Cancelled before it began.")
                    row.ended_at = self._database.now()
            return job_of(row)

        return self._database.run(work)

    def retry(self, job: str, options: dict[str, Any]) -> Job:
        """Puts a load that failed or was cancelled in line again, with the file that is kept.

        Args:
            options: those that change; the others stay.

        Raises:
            NotThereError: there is no such job.
            NoFileError: it has not ended so, or its file is not kept.
        """

        def work(session: Session) -> Job:
            row = _row(session, job)
            if row.state not in ("failed", "cancelled") or not row.file_kept:
                raise NoFileError(_not_again(row))
            session.execute(delete(RowBlockRow).where(RowBlockRow.job == row.id))
            row.state, row.phase, row.message = "waiting", "", ""
            row.options = {**row.options, **options}
            row.attempts = row.rows_done = row.rows_bad = row.bytes_done = 0
            row.started_at = row.ended_at = row.phase_at = row.edition = None
            row.reading_seconds, row.cancel_asked = 0.0, False
            return job_of(row)

        return self._database.run(work)

    def discard_file(self, job: str) -> Job:
        """Throws the file of an ended load away.

        Raises:
            NotThereError: there is no such job.
            NoFileError: it has not ended, or has no file any more.
        """

        def work(session: Session) -> Job:
            row = _row(session, job)
            if row.state in OPEN_STATES or not row.file_kept:
                raise NoFileError(_not_again(row))
            session.execute(delete(SourcePartRow).where(SourcePartRow.job == row.id))
            row.file_kept = False
            return job_of(row)

        return self._database.run(work)


def _row(session: Session, job: str) -> JobRow:
    row = session.get(JobRow, job, with_for_update=True)
    if row is None:
        raise NotThereError(f"There is no job {job!r}.")
    return row


def _not_again(row: JobRow) -> str:
    if row.kind != "load":
        return f"The job is a {row.kind} and has no file; start another one."
    if row.state in OPEN_STATES:
        return f"The load is {row.state}; cancel it first."
    return "The load's file is not kept any more; send it again."
