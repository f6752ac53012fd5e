"""The worker: looks for jobs and gives each a process of its own.

Unless the settings say otherwise, jobs run at a low priority, so that people who type do not
notice them. Their memory goes back to the system when they end, and a job's process that dies is
noticed at once. The worker renews the jobs' leases itself, at a normal priority: a process that
gets little processor time loses nothing.
"""

from __future__ import annotations

import os
import signal
import time
from collections.abc import Callable

from anchorline.application.reference.editions import rebuild_missing_indexes
from anchorline.child_processes import end_processes
from anchorline.store.database import ContendedError, DatabaseUnavailableError, StoreError
from anchorline.store.job_model import Claim, Job, LostJobError

from ..context import Services
from ..logs import logger
from ..settings import Settings
from ..settle_memory import settle_memory
from .job_process import JobProcess
from .jobs import do_job
from .lease import JobLease, JobStoppedError
from .priority import step_back

_LOOK_SECONDS = 0.5
_RENEW_SECONDS = 3.0
_AWAY_SECONDS = 3.0
_STOP_SECONDS = 20
# What a job's process exits with where the database was away: no fault of the job.
DATABASE_AWAY = 75
_log = logger("worker")


class Worker:
    """Runs jobs until it is told to stop.

    Args:
        work: what a job's process does; returns its exit status.
        renew_every: seconds between two renewals of the leases.
    """

    def __init__(
        self,
        settings: Settings,
        services: Services,
        *,
        work: Callable[[Services, Claim], int] | None = None,
        renew_every: float = _RENEW_SECONDS,
    ) -> None:
        self._work, self._renew_every = work or run_job, renew_every
        self._settings, self._services = settings, services
        self._running: dict[JobProcess, tuple[Job, Claim]] = {}
        self._renewed = time.monotonic()
        self._stopping = False

    def run(self) -> int:
        """Works until a signal asks to stop; returns the exit status."""
        for number in (signal.SIGINT, signal.SIGTERM):
            signal.signal(number, self._stop)
        _log.info("worker started", jobs_at_once=self._settings.loads)
        pause, missing_rebuilt = _LOOK_SECONDS, False
        while not self._stopping:
            try:
                if not missing_rebuilt:
                    rebuild_missing_indexes(self._services)
                    missing_rebuilt = True
                self.look()
                pause = _LOOK_SECONDS
            except StoreError as error:
                _log.warning("jobs not looked up", error=str(error))
                pause = _AWAY_SECONDS
            time.sleep(pause)
        self.end_all()
        return 0

    def look(self) -> None:
        """Looks once after the jobs that run, and starts those that wait.

        Raises:
            StoreError: the database does not answer; the jobs go on.
        """
        self._look_after()
        self._renew()  # before others are claimed: what is ours must not look orphaned
        while len(self._running) < self._settings.loads and self._start_next():
            pass

    def _stop(self, _number: int, _frame: object) -> None:
        self._stopping = True

    def _start_next(self) -> bool:
        claimed = self._services.jobs.claim()
        if claimed is None:
            return False
        job, claim = claimed
        process = JobProcess.start(lambda: self._do(claim))
        self._running[process] = (job, claim)
        _log.info("job started", job=job.id, kind=job.kind, dataset=job.dataset)
        return True

    def _do(self, claim: Claim) -> int:
        """What happens in a job's process."""
        if self._settings.load_priority == "low":
            step_back(os.getpid())
        self._services.database.forget_connections()
        return self._work(self._services, claim)

    def _look_after(self) -> None:
        for process in [p for p in self._running if p.poll() is not None]:
            job, claim = self._running.pop(process)
            if process.returncode == 0:
                continue
            give_back = self._services.jobs.release
            if process.returncode == DATABASE_AWAY:
                give_back = self._services.jobs.hand_back
            else:
                _log.error("job's process died", job=job.id, status=process.returncode)
            try:
                give_back(claim)
            except LostJobError:
                _log.info("job was settled before", job=job.id)
            except StoreError:
                self._running[process] = (job, claim)  # again at the next look
                raise

    def _renew(self) -> None:
        """Renews the leases; a process whose job is another's by now has nothing to do any more."""
        if time.monotonic() - self._renewed < self._renew_every:
            return
        for process, (job, claim) in self._running.items():
            try:
                self._services.jobs.renew(claim)
            except LostJobError:
                if process.poll() is None:
                    _log.warning("job lost", job=job.id)
                    process.terminate()
        self._renewed = time.monotonic()

    def end_all(self) -> None:
        """Has the jobs' processes hand their jobs back, and ends them."""
        end_processes(self._running, _STOP_SECONDS)
        _log.info("worker stopped")


def _end_job(_number: int, _frame: object) -> None:
    """Leaves whatever the job is at: building an index has no point at which to ask."""
    signal.signal(signal.SIGTERM, signal.SIG_IGN)
    raise JobStoppedError("ending")


def run_job(services: Services, claim: Claim) -> int:
    """What a job's process does; returns the exit status."""
    settle_memory()
    with JobLease(services.jobs, claim) as lease:
        signal.signal(signal.SIGINT, signal.SIG_IGN)
        signal.signal(signal.SIGTERM, _end_job)
        try:
            do_job(services, services.jobs.get(claim.job), claim, lease)
        except LostJobError as error:
            _log.warning("job lost", job=claim.job, error=str(error))
        except JobStoppedError as stop:
            _log.info("job stopped", job=claim.job, reason=stop.reason)
        except (DatabaseUnavailableError, ContendedError) as error:
            _log.warning("job interrupted", job=claim.job, error=str(error))
            return DATABASE_AWAY
    return 0
