"""One job from end to end, in a process of its own."""

from __future__ import annotations

import errno
from dataclasses import replace
from time import monotonic

from anchorline.application.coverage import run_coverage
from anchorline.application.errors import ConflictError
from anchorline.application.reference.editions import (
    activate_edition,
    compare_with_active,
    edition_of_load,
    limits_of,
    remove_superfluous,
)
from anchorline.application.reference.loads import LoadOptions
from anchorline.core.counting import counted
from anchorline.core.errors import DocumentError, EditionError
from anchorline.core.reference.comparison import Comparison
from anchorline.store.database import NotThereError, StorageFullError
from anchorline.store.datasets import EditionEntry
from anchorline.store.job_model import Claim, Job

from ..context import Services
from ..logs import logger
from .indexes import build_index
from .lease import JobLease, JobStoppedError
from .parsing import BadFileError, FileParser

_log = logger("jobs")
_NO_ROOM = "There is not enough room on the disk. Make some, then load the file again."


def _coverage(services: Services, job: Job, lease: JobLease) -> str:
    return run_coverage(services, job, lease.claim, lease.check)


def do_job(services: Services, job: Job, claim: Claim, lease: JobLease) -> None:
    """Does a claimed job and ends it, whatever comes of it.

    Raises:
        LostJobError: the job became somebody else's on the way.
        JobStoppedError: this process is asked to end; the job is given back.
    """
    kinds = {"load": _load, "rebuild": _rebuild, "compare": _compare, "coverage": _coverage}
    work = kinds[job.kind]
    state = "done"
    try:
        message = work(services, job, lease)
    except (BadFileError, EditionError, ConflictError, NotThereError, DocumentError) as error:
        state, message = "failed", str(error)
    except (StorageFullError, OSError) as error:
        if isinstance(error, OSError) and error.errno != errno.ENOSPC:
            raise
        state, message = "failed", _NO_ROOM
    except JobStoppedError as stop:
        if stop.reason != "cancelled":
            if stop.reason == "ending":
                services.jobs.hand_back(claim)
            raise
        state, message = "cancelled", "Cancelled; nothing was changed."
    if job.kind == "load" and state != "done":
        services.load_data.drop_rows(job.id)  # not the report of those that were left out
    services.jobs.end(claim, state, message)
    if job.kind == "load" and state == "done":
        services.load_data.drop_file(job.id)
    _log.info("job ended", job=job.id, dataset=job.dataset, state=state, message=message)


def _load(services: Services, job: Job, lease: JobLease) -> str:
    options = LoadOptions(**job.options)
    number = job.edition
    if job.phase not in ("building", "comparing") or number is None:
        number = _read(services, job, lease, options)
    size = build_index(services, job.id, job.dataset, number, lease)
    services.jobs.enter_phase(lease.claim, "comparing")
    comparison = compare_with_active(services, job.dataset, number)
    entry = edition_of_load(services, job, number, size, comparison)
    services.datasets.put_edition(entry)
    return _settle(services, entry, options, comparison)


def _read(services: Services, job: Job, lease: JobLease, options: LoadOptions) -> int:
    """Reads the file; returns the number of the edition that its rows will be."""
    began = monotonic()
    base = _base(services, job, options) if options.changes else None
    kept = {**job.options, "base": base.number if base else None}
    services.jobs.enter_phase(lease.claim, "reading", options=kept)
    FileParser(services, job, lease, base.job if base else None).parse(options.bad_share)
    number = services.datasets.give_number(job.dataset)
    seconds = monotonic() - began
    services.jobs.enter_phase(lease.claim, "building", edition=number, reading_seconds=seconds)
    return number


def _base(services: Services, job: Job, options: LoadOptions) -> EditionEntry:
    """The edition that changes are made to: the one named, or the newest there is by now."""
    if options.base is not None:
        base = services.datasets.edition(job.dataset, options.base)
    else:
        editions = services.datasets.editions(job.dataset)
        if not editions:
            raise BadFileError("There is no edition to change; load a whole file first.")
        base = editions[0]
    if base.job is None:
        raise BadFileError(
            f"The rows of edition {base.number} are not kept; load a whole file first."
        )
    return base


def _settle(
    services: Services, entry: EditionEntry, options: LoadOptions, comparison: Comparison | None
) -> str:
    """Activates a new edition where it may be, and says so."""
    dataset = services.datasets.get(entry.dataset)
    held = counted(entry.addresses, "address", "addresses")
    said = f"Edition {entry.number} is ready: {held}."
    against = limits_of(dataset.rules).exceeded(comparison) if comparison else []
    by_rule = options.activate == "rule" and dataset.rules.automatic
    if options.activate == "always" or (by_rule and not against):
        activate_edition(services, entry.dataset, entry.number)
        return f"{said} It is active."
    remove_superfluous(services, entry.dataset)
    if by_rule:
        return f"{said} Not made active by itself: {' '.join(against)}"
    return f"{said} It waits to be made active."


def _rebuild(services: Services, job: Job, lease: JobLease) -> str:
    number = job.edition or 0
    entry = services.datasets.edition(job.dataset, number)
    if entry.job is None:
        raise BadFileError(f"The rows of edition {number} are not kept; load its file again.")
    services.jobs.enter_phase(lease.claim, "building")
    size = build_index(services, entry.job, job.dataset, number, lease)
    services.datasets.set_index_bytes(job.dataset, number, size.bytes)
    return f"The index of edition {number} is built anew: {size.bytes / 1e6:,.1f} MB."


def _compare(services: Services, job: Job, lease: JobLease) -> str:
    services.jobs.enter_phase(lease.claim, "comparing")
    comparison = compare_with_active(services, job.dataset, job.edition or 0)
    if comparison is None:
        return "There is no other active edition that it can be compared with."
    entry = services.datasets.edition(job.dataset, job.edition or 0)
    services.datasets.put_edition(replace(entry, comparison=comparison.to_document()))
    return f"Compared with edition {comparison.base}."
