"""What a job is, and how it goes.

receiving → waiting → running → done | failed | cancelled
               ↑                         retry │
               └───────────────────────────────┘

The file of a load is kept until the load is done, or until somebody discards it.
"""

from __future__ import annotations

from dataclasses import dataclass, field
from datetime import datetime, timedelta
from typing import Any

from .database import StoreError

JOB_KINDS: tuple[str, ...] = ("load", "rebuild", "compare", "coverage")
JOB_STATES: tuple[str, ...] = ("receiving", "waiting", "running", "done", "failed", "cancelled")
OPEN_STATES = ("receiving", "waiting", "running")
LEASE = timedelta(seconds=15)
MOST_ATTEMPTS = 3


class NoFileError(StoreError):
    """The job has no file that could be used or discarded; the message says why."""


class LostJobError(StoreError):
    """The job is no longer this worker's: its lease ran out, or it was cancelled."""


@dataclass(frozen=True, slots=True)
class NewJob:
    """A job to be made.

    Attributes:
        dataset: that it works on; empty for one that works on none.
        options: those of its kind.
        alone: what it is about, where only one job may be about it at a time; empty for others.
    """

    kind: str
    dataset: str
    made_by: str
    source_name: str = ""
    options: dict[str, Any] = field(default_factory=dict)
    edition: int | None = None
    alone: str = ""


@dataclass(frozen=True, slots=True)
class Job:
    """A job as it stands.

    Attributes:
        dataset: empty for one that works on none.
        phase: what it is at: `reading`, `building`, `comparing`, `covering`.
        phase_at: since when.
        reading_seconds: how long its reading took, once that is over.
        bytes_done, bytes_total: of the file that it loads.
        edition: the number of the edition that it makes or works on.
        message: how it ended, for people.
        file_kept: its file is still there, so that it can be tried again.
    """

    id: str
    kind: str
    dataset: str
    state: str
    options: dict[str, Any]
    source_name: str
    source_digest: str
    made_at: datetime
    made_by: str
    started_at: datetime | None
    ended_at: datetime | None
    attempts: int
    cancel_asked: bool
    phase: str
    phase_at: datetime | None
    reading_seconds: float
    rows_done: int
    rows_bad: int
    bytes_done: int
    bytes_total: int
    edition: int | None
    message: str
    file_kept: bool


@dataclass(frozen=True, slots=True)
class Claim:
    """A worker's hold on a job."""

    job: str
    token: str
