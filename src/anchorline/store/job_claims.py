"""What workers do with jobs: claim them, hold them by a lease, and end them.

A worker claims a job and holds it by a lease that it renews while the job's process lives. A
worker that dies loses the lease and another goes on; whatever the first one still tries to write
is refused. Only a process that really exited counts as a failed attempt. The jobs of one dataset
are done one after another, in the order in which they were made.
"""

from __future__ import annotations

import secrets
from typing import Any

from sqlalchemy import and_, delete, func, or_, select, update
from sqlalchemy.orm import Session

from .database import Database
from .job_model import LEASE, MOST_ATTEMPTS, Claim, Job, LostJobError
from .schema import DatasetRow, JobRow, RowBlockRow, SourcePartRow

# The option that holds people's addresses: it goes when the job ends.
_GIVEN_ROWS = "rows"
_FIELDS: tuple[str, ...] = tuple(Job.__dataclass_fields__)
_GIVEN_UP = {
    "cancelled": "Cancelled.",
    "failed": f"Given up: the worker died {MOST_ATTEMPTS} times at it. Look at the worker's log.",
}


class JobClaims:
    """Claims, holds and ends jobs."""

    def __init__(self, database: Database) -> None:
        self._database = database

    def claim(self) -> tuple[Job, Claim] | None:
        """The next job to do, or None; a job whose worker died counts as waiting."""
        now = self._database.now()

        def work(session: Session) -> tuple[Job, Claim] | None:
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
                end_unheld(session, row, state, _GIVEN_UP[state])
                row.ended_at = now
                return None
            claim = Claim(row.id, secrets.token_hex(16))
            row.state, row.claim, row.lease_until = "running", claim.token, now + LEASE
            row.started_at = row.started_at or now
            return job_of(row), claim

        return self._database.run(work)

    def renew(self, claim: Claim) -> bool:
        """Renews a lease; returns whether the job is asked to end."""

        def work(session: Session) -> bool:
            touch_job(session, claim, lease_until=self._database.now() + LEASE)
            return bool(session.scalar(select(JobRow.cancel_asked).where(JobRow.id == claim.job)))

        return self._database.run(work)

    def asked_to_end(self, claim: Claim) -> bool:
        """Whether a claimed job is asked to end; LostJobError where the claim no longer holds."""

        def work(session: Session) -> bool:
            row = session.get(JobRow, claim.job)
            if row is None or row.state != "running" or row.claim != claim.token:
                raise LostJobError(f"The job {claim.job} is no longer this worker's.")
            return row.cancel_asked

        return self._database.run(work)

    def enter_phase(self, claim: Claim, phase: str, **values: Any) -> None:
        """Notes that a job has come to a phase."""

        def work(session: Session) -> None:
            touch_job(session, claim, phase=phase, phase_at=self._database.now(), **values)

        self._database.run(work)

    def count_done(self, claim: Claim, rows_done: int) -> None:
        """Sets how many rows are done so far."""

        def work(session: Session) -> None:
            touch_job(session, claim, rows_done=rows_done)

        self._database.run(work)

    def count_bad(self, claim: Claim, rows_bad: int) -> None:
        """Sets how many rows were left out, once that is known for good."""

        def work(session: Session) -> None:
            touch_job(session, claim, rows_bad=rows_bad)

        self._database.run(work)

    def release(self, claim: Claim) -> None:
        """Gives back a job whose process died, for any worker to go on with."""

        def work(session: Session) -> None:
            values = {"state": "waiting", "claim": "", "lease_until": None}
            touch_job(session, claim, attempts=JobRow.attempts + 1, **values)

        self._database.run(work)

    def hand_back(self, claim: Claim) -> None:
        """The same without a death: the worker ends, or the database was away."""

        def work(session: Session) -> None:
            touch_job(session, claim, state="waiting", claim="", lease_until=None)

        self._database.run(work)

    def end(self, claim: Claim, state: str, message: str) -> None:
        """Ends a job."""

        def work(session: Session) -> None:
            touch_job(
                session, claim, state=state, message=message[:4000], phase="",
                ended_at=self._database.now(), lease_until=None, claim="", alone=None,
                options=func.json_remove(JobRow.options, f"$.{_GIVEN_ROWS}"),
            )  # fmt: skip

        self._database.run(work)


def touch_job(session: Session, held: Claim, /, **values: Any) -> None:
    """Changes a job that a claim holds; LostJobError where it does not."""
    done = session.connection().execute(
        update(JobRow)
        .where(JobRow.id == held.job, JobRow.claim == held.token, JobRow.state == "running")
        .values(**{"state": "running", **values})
    )
    if done.rowcount != 1:
        raise LostJobError(f"The job {held.job} is no longer this worker's.")


def end_unheld(session: Session, row: JobRow, state: str, message: str) -> None:
    """Ends a job that no worker holds; half a file is of no use, a whole one stays."""
    if row.state == "receiving":
        session.execute(delete(SourcePartRow).where(SourcePartRow.job == row.id))
    row.state, row.message = state, message
    row.phase, row.lease_until, row.claim, row.alone = "", None, "", None
    row.options = {name: value for name, value in row.options.items() if name != _GIVEN_ROWS}
    session.execute(delete(RowBlockRow).where(RowBlockRow.job == row.id))


def job_of(row: JobRow) -> Job:
    """A job as it is handed out."""
    values = {name: getattr(row, name) for name in _FIELDS}
    return Job(**{**values, "dataset": row.dataset or ""})
