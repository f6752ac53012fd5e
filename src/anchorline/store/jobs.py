"""Jobs: work on a dataset that takes longer than a request, done by workers.

A worker claims a job and holds it by a lease that it renews while the job's process lives. A
worker that dies loses the lease and another goes on; whatever the first one still tries to write
is refused. Only a process that really exited counts as a failed attempt. The jobs of one dataset
are done one after another, in the order in which they were made.
"""

from __future__ import annotations

import secrets
from collections.abc import Sequence
from typing import Any

from sqlalchemy import and_, delete, func, or_, select, update
from sqlalchemy.orm import Session

from .database import Database, NotThereError, again_if_contended
from .datasets import make_dataset
from .idempotency import IdempotencyKey, made_before, note_key
from .job_model import (
    LEASE,
    MOST_ATTEMPTS,
    OPEN_STATES,
    Claim,
    Job,
    LostJobError,
    NewJob,
    NoFileError,
)
from .schema import DatasetRow, JobRow, RowBlockRow, SourcePartRow

# The option that holds people's addresses: it goes when the job ends.
_GIVEN_ROWS = "rows"
_FIELDS: tuple[str, ...] = tuple(Job.__dataclass_fields__)


class JobStore:
    """Makes, claims and ends jobs."""

    def __init__(self, database: Database) -> None:
        self._database = database

    @again_if_contended
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
        with self._database.transaction() as session:
            if new.dataset:
                make_dataset(session, new.dataset)
            session.add(row)
            session.flush()
            return _job(row)

    @again_if_contended
    def received(
        self, job: str, *, size: int, digest: str, key: IdempotencyKey | None = None
    ) -> Job:
        """Puts a job whose file is there in line.

        Raises:
            NotThereError: it was withdrawn.
            AlreadyThereError: the key was used before; `made_by_key` has what it made.
        """
        with self._database.transaction() as session:
            if key is not None:
                note_key(session, key, job, self._database.now())
            row = session.get(JobRow, job, with_for_update=True)
            if row is None or row.state != "receiving":
                raise NotThereError(f"There is no job {job!r} that waits for its file.")
            row.state, row.bytes_total, row.source_digest = "waiting", size, digest
            row.file_kept = True
            return _job(row)

    def made_by_key(self, key: IdempotencyKey) -> Job:
        """The job that a key made; ReusedKeyError where it came with another request."""
        return self.get(made_before(self._database, key))

    def withdraw(self, job: str) -> None:
        """Takes out a job whose file did not come whole."""
        with self._database.transaction() as session:
            row = session.get(JobRow, job)
            if row is not None and row.state == "receiving":
                session.delete(row)

    def get(self, job: str) -> Job:
        """A job; NotThereError where there is none."""
        with self._database.transaction() as session:
            row = session.get(JobRow, job)
            if row is None:
                raise NotThereError(f"There is no job {job!r}.")
            return _job(row)

    def list(self, dataset: str, limit: int = 20) -> Sequence[Job]:
        """The latest jobs of a dataset, newest first."""
        with self._database.transaction() as session:
            rows = session.scalars(
                select(JobRow)
                .where(JobRow.dataset == dataset)
                .order_by(JobRow.made_at.desc(), JobRow.id)
                .limit(limit)
            )
            return [_job(row) for row in rows]

    @again_if_contended
    def cancel(self, job: str) -> Job:
        """Asks a job to end; one that has not begun ends at once, one that has ended stays so."""
        with self._database.transaction() as session:
            row = _row(session, job)
            if row.state in OPEN_STATES:
                row.cancel_asked = True
                if row.state != "running":
                    _end(session, row, "cancelled", "Cancelled before it began.")
                    row.ended_at = self._database.now()
            return _job(row)

    @again_if_contended
    def retry(self, job: str, options: dict[str, Any]) -> Job:
        """Puts a load that failed or was cancelled in line again, with the file that is kept.

        Args:
            options: those that change; the others stay.

        Raises:
            NotThereError: there is no such job.
            NoFileError: it has not ended so, or its file is not kept.
        """
        with self._database.transaction() as session:
            row = _row(session, job)
            if row.state not in ("failed", "cancelled") or not row.file_kept:
                raise NoFileError(_not_again(row))
            session.execute(delete(RowBlockRow).where(RowBlockRow.job == row.id))
            row.state, row.phase, row.message = "waiting", "", ""
            row.options = {**row.options, **options}
            row.attempts = row.rows_done = row.rows_bad = row.bytes_done = 0
            row.started_at = row.ended_at = row.phase_at = row.edition = None
            row.reading_seconds, row.cancel_asked = 0.0, False
            return _job(row)

    @again_if_contended
    def discard_file(self, job: str) -> Job:
        """Throws the file of an ended load away.

        Raises:
            NotThereError: there is no such job.
            NoFileError: it has not ended, or has no file any more.
        """
        with self._database.transaction() as session:
            row = _row(session, job)
            if row.state in OPEN_STATES or not row.file_kept:
                raise NoFileError(_not_again(row))
            session.execute(delete(SourcePartRow).where(SourcePartRow.job == row.id))
            row.file_kept = False
            return _job(row)

    # For workers

    @again_if_contended
    def claim(self) -> tuple[Job, Claim] | None:
        """The next job to do, or None; a job whose worker died counts as waiting."""
        now = self._database.now()
        with self._database.transaction() as session:
            # Every statement sees what is committed then, and locks rows but no gaps between them:
            # those would hold up whoever makes jobs.
            session.connection(execution_options={"isolation_level": "READ COMMITTED"})
            running = and_(JobRow.state == "running", JobRow.lease_until > now)
            busy = select(JobRow.dataset).where(running, JobRow.dataset.is_not(None))
            is_free = or_(JobRow.dataset.is_(None), JobRow.dataset.not_in(busy.scalar_subquery()))
            orphaned = and_(JobRow.state == "running", JobRow.lease_until <= now)
            row = session.scalars(
                select(JobRow)
                .where(or_(JobRow.state == "waiting", orphaned), is_free)
                .order_by(JobRow.made_at, JobRow.id)
                .limit(1)
                .with_for_update(skip_locked=True)
            ).first()
            if row is None:
                return None
            # Two workers may have picked two jobs of a dataset: the second now waits and sees.
            if row.dataset is not None:
                session.get(DatasetRow, row.dataset, with_for_update=True)
                others = select(JobRow.id).where(running, JobRow.dataset == row.dataset)
                if session.scalars(others).first() is not None:
                    return None
            if row.cancel_asked or row.attempts >= MOST_ATTEMPTS:
                state = "cancelled" if row.cancel_asked else "failed"
                _end(session, row, state, _GIVEN_UP[state])
                row.ended_at = now
                return None
            claim = Claim(row.id, secrets.token_hex(16))
            row.state, row.claim, row.lease_until = "running", claim.token, now + LEASE
            row.started_at = row.started_at or now
            return _job(row), claim

    @again_if_contended
    def renew(self, claim: Claim) -> bool:
        """Renews a lease; returns whether the job is asked to end."""
        with self._database.transaction() as session:
            touch_job(session, claim, lease_until=self._database.now() + LEASE)
            return bool(session.scalar(select(JobRow.cancel_asked).where(JobRow.id == claim.job)))

    def asked_to_end(self, claim: Claim) -> bool:
        """Whether a claimed job is asked to end; LostJobError where the claim no longer holds."""
        with self._database.transaction() as session:
            row = session.get(JobRow, claim.job)
            if row is None or row.state != "running" or row.claim != claim.token:
                raise LostJobError(f"The job {claim.job} is no longer this worker's.")
            return row.cancel_asked

    @again_if_contended
    def enter_phase(self, claim: Claim, phase: str, **values: Any) -> None:
        """Notes that a job has come to a phase."""
        with self._database.transaction() as session:
            touch_job(session, claim, phase=phase, phase_at=self._database.now(), **values)

    @again_if_contended
    def count_done(self, claim: Claim, rows_done: int) -> None:
        """Sets how many rows are done so far."""
        with self._database.transaction() as session:
            touch_job(session, claim, rows_done=rows_done)

    @again_if_contended
    def count_bad(self, claim: Claim, rows_bad: int) -> None:
        """Sets how many rows were left out, once that is known for good."""
        with self._database.transaction() as session:
            touch_job(session, claim, rows_bad=rows_bad)

    @again_if_contended
    def release(self, claim: Claim) -> None:
        """Gives back a job whose process died, for any worker to go on with."""
        with self._database.transaction() as session:
            values = {"state": "waiting", "claim": "", "lease_until": None}
            touch_job(session, claim, attempts=JobRow.attempts + 1, **values)

    @again_if_contended
    def hand_back(self, claim: Claim) -> None:
        """The same without a death: the worker ends, or the database was away."""
        with self._database.transaction() as session:
            touch_job(session, claim, state="waiting", claim="", lease_until=None)

    @again_if_contended
    def end(self, claim: Claim, state: str, message: str) -> None:
        """Ends a job."""
        with self._database.transaction() as session:
            touch_job(
                session, claim, state=state, message=message[:4000], phase="",
                ended_at=self._database.now(), lease_until=None, claim="", alone=None,
                options=func.json_remove(JobRow.options, f"$.{_GIVEN_ROWS}"),
            )  # fmt: skip


_GIVEN_UP = {
    "cancelled": "Cancelled.",
    "failed": f"Given up: the worker died {MOST_ATTEMPTS} times at it. Look at the worker's log.",
}


def touch_job(session: Session, held: Claim, /, **values: Any) -> None:
    """Changes a job that a claim holds; LostJobError where it does not."""
    done = session.connection().execute(
        update(JobRow)
        .where(JobRow.id == held.job, JobRow.claim == held.token, JobRow.state == "running")
        .values(**{"state": "running", **values})
    )
    if done.rowcount != 1:
        raise LostJobError(f"The job {held.job} is no longer this worker's.")


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


def _end(session: Session, row: JobRow, state: str, message: str) -> None:
    """Ends a job that no worker holds; half a file is of no use, a whole one stays."""
    if row.state == "receiving":
        session.execute(delete(SourcePartRow).where(SourcePartRow.job == row.id))
    row.state, row.message = state, message
    row.phase, row.lease_until, row.claim, row.alone = "", None, "", None
    row.options = {name: value for name, value in row.options.items() if name != _GIVEN_ROWS}
    session.execute(delete(RowBlockRow).where(RowBlockRow.job == row.id))


def _job(row: JobRow) -> Job:
    values = {name: getattr(row, name) for name in _FIELDS}
    return Job(**{**values, "dataset": row.dataset or ""})
