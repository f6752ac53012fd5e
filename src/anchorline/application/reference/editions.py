"""Comparing, activating and removing editions."""

from __future__ import annotations

from contextlib import suppress
from dataclasses import dataclass
from typing import Any

import structlog

from anchorline.core.errors import EditionError
from anchorline.core.reference.comparison import Comparison, compare_editions
from anchorline.core.reference.limits import ActivationLimits
from anchorline.store.database import InUseError, NotThereError
from anchorline.store.datasets import DatasetRules, EditionEntry, superfluous
from anchorline.store.job_model import OPEN_STATES, Job, NewJob

from ..errors import ConflictError
from ..services import Services

_log: Any = structlog.get_logger(part="editions")


@dataclass(frozen=True, slots=True)
class IndexSize:
    """What a built index takes, in bytes, and how many addresses it has."""

    bytes: int
    addresses: int


def rebuild_missing_indexes(services: Services) -> None:
    """Makes a job for every active edition whose index is gone, damaged or of an older release.

    The rows are kept in the database, so nobody has to load anything again: after an update, on
    another machine, or where somebody cleared the folder of the indexes away.
    """
    for dataset, number in services.datasets.active().items():
        try:
            services.edition_files.open(dataset, number)
        except EditionError as error:
            entry = services.datasets.edition(dataset, number)
            under_way = any(
                (job.kind, job.edition) == ("rebuild", number) and job.state in OPEN_STATES
                for job in services.jobs.list(dataset)
            )
            if entry.job is None or under_way:
                continue
            services.jobs.make(NewJob("rebuild", dataset, "the worker", edition=number))
            _log.warning("an index is built anew", edition=number, reason=str(error))


def edition_of_load(
    services: Services, job: Job, number: int, size: IndexSize, comparison: Comparison | None
) -> EditionEntry:
    """The entry of an edition whose index is built."""
    data, job = services.load_data, services.jobs.get(job.id)
    return EditionEntry(
        dataset=job.dataset,
        number=number,
        source_name=job.source_name,
        source_digest=job.source_digest,
        rows_used=data.rows_used(job.id),
        rows_bad=job.rows_bad,
        report={"findings": data.findings(job.id).to_document()},
        job=job.id,
        changes_to=job.options.get("base"),
        comparison=comparison.to_document() if comparison else None,
        addresses=size.addresses,
        index_bytes=size.bytes,
        rows_bytes=data.rows_bytes(job.id),
    )


def compare_with_active(services: Services, dataset: str, number: int) -> Comparison | None:
    """Holds a built edition against the active one; None where no other one is active."""
    kept = services.datasets.get(dataset)
    if kept.active is None or kept.active == number:
        return None
    files = services.edition_files
    try:
        active = files.open(dataset, kept.active)
    except EditionError as error:
        _log.warning("not compared: the active edition cannot be opened", error=str(error))
        return None
    return compare_editions(
        active, files.open(dataset, number), services.layouts, moved_m=kept.rules.moved_m
    )


def limits_of(rules: DatasetRules) -> ActivationLimits:
    """The limits within which an edition may become active by itself."""
    return ActivationLimits(rules.gone_share, rules.changed_share, rules.moved_share)


def activate_edition(services: Services, dataset: str, number: int) -> None:
    """Makes an edition the active one, and takes away those that are no longer kept.

    Raises:
        NotThereError: there is no such edition.
        ConflictError: its index cannot be opened.
    """
    services.datasets.edition(dataset, number)
    try:
        services.edition_files.open(dataset, number)
    except EditionError as error:
        raise ConflictError(f"{error} Build its index anew first (rebuild).") from error
    services.datasets.activate(dataset, number)
    _log.info("edition activated", dataset=dataset, edition=number)
    remove_superfluous(services, dataset)


def remove_superfluous(services: Services, dataset: str) -> None:
    """Takes away the editions that the dataset's rule does not keep."""
    numbers = [entry.number for entry in services.datasets.editions(dataset)]
    for number in superfluous(services.datasets.get(dataset), numbers):
        with suppress(
            NotThereError, ConflictError
        ):  # somebody else took it away, or made it active
            remove_edition(services, dataset, number)


def remove_dataset(services: Services, dataset: str) -> None:
    """Takes away a dataset with all its editions, jobs and files.

    Raises:
        NotThereError: there is no such dataset.
        ConflictError: work on it is going on; nothing was taken away then.
    """
    editions = services.datasets.editions(dataset)
    try:
        services.datasets.remove(dataset)
    except InUseError as error:
        raise ConflictError(str(error)) from None
    for entry in editions:
        services.edition_files.remove(dataset, entry.number)
    _log.info("dataset removed", dataset=dataset)


def remove_edition(services: Services, dataset: str, number: int) -> None:
    """Takes away an edition with its rows and its index.

    Raises:
        NotThereError: there is no such edition.
        ConflictError: it is the active one.
    """
    if services.datasets.get(dataset).active == number:
        raise ConflictError(f"Edition {number} is active. Activate another one first.")
    entry = services.datasets.edition(dataset, number)
    services.datasets.remove_edition(dataset, number)
    if entry.job is not None:
        services.load_data.drop_blocks(entry.job)
    services.edition_files.remove(dataset, number)
    _log.info("edition removed", dataset=dataset, edition=number)
