"""A worker's hold on its job while it works: renewed in the background, asked now and then."""

from __future__ import annotations

import threading

from anchorline.store.database import StoreError
from anchorline.store.jobs import Claim, JobStore, LostJobError

from ..logs import logger

RENEW_SECONDS = 2.0
_log = logger("jobs")


class JobStoppedError(Exception):
    """The job has to stop; `reason` is `cancelled`, `lost` or `ending`."""

    def __init__(self, reason: str) -> None:
        super().__init__(reason)
        self.reason = reason


class Hold:
    """Renews the lease of a claim until it is closed."""

    def __init__(self, jobs: JobStore, claim: Claim) -> None:
        self.claim = claim
        self._jobs = jobs
        self._reason = ""
        self._closed = threading.Event()
        self._thread = threading.Thread(target=self._renew, name="hold", daemon=True)

    def __enter__(self) -> Hold:
        self._thread.start()
        return self

    def __exit__(self, *_: object) -> None:
        self._closed.set()
        self._thread.join()

    def check(self) -> None:
        """Raises JobStoppedError where the job has to stop."""
        if self._reason:
            raise JobStoppedError(self._reason)

    def ask(self) -> None:
        """The same as `check`, but as things stand now and not a moment ago."""
        self._renew_once()
        self.check()

    def _renew(self) -> None:
        while not self._closed.wait(RENEW_SECONDS):
            self._renew_once()

    def _renew_once(self) -> None:
        try:
            if self._jobs.renew(self.claim):
                self._reason = self._reason or "cancelled"
        except LostJobError:
            self._reason = "lost"
        except StoreError as error:
            # The lease lasts longer than a short absence of the database.
            _log.warning("lease not renewed", job=self.claim.job, error=str(error))
