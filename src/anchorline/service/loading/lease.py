"""Checking in the background that a job is still this process's own and still wanted.

The worker that started the process renews the lease: it does nothing else, and it does not run at a
low priority.
"""

from __future__ import annotations

import threading

from anchorline.store.database import StoreError
from anchorline.store.job_model import Claim, LostJobError
from anchorline.store.jobs import JobStore

from ..logs import logger

_LOOK_SECONDS = 2.0
_log = logger("jobs")


class JobStoppedError(Exception):
    """The job has to stop; `reason` is `cancelled`, `lost` or `ending`."""

    def __init__(self, reason: str) -> None:
        super().__init__(reason)
        self.reason = reason


class JobLease:
    """Looks after a claim until it is closed."""

    def __init__(self, jobs: JobStore, claim: Claim) -> None:
        self.claim = claim
        self._jobs = jobs
        self._reason = ""
        self._closed = threading.Event()
        self._thread = threading.Thread(target=self._look, name="lease", daemon=True)

    def __enter__(self) -> JobLease:
        self._thread.start()
        return self

    def __exit__(self, *_: object) -> None:
        self._closed.set()
        self._thread.join()

    def check(self) -> None:
        """Raises JobStoppedError where the job has to stop."""
        if self._reason:
            raise JobStoppedError(self._reason)

    def check_now(self) -> None:
        """The same as `check`, but as things stand now and not a moment ago."""
        self._look_once()
        self.check()

    def _look(self) -> None:
        while not self._closed.wait(_LOOK_SECONDS):
            self._look_once()

    def _look_once(self) -> None:
        try:
            if self._jobs.asked_to_end(self.claim):
                self._reason = self._reason or "cancelled"
        except LostJobError:
            self._reason = "lost"
        except StoreError as error:
            _log.warning("job not looked at", job=self.claim.job, error=str(error))
