"""Loads of reference data: asked for, received in pieces, put in line, tried again."""

from __future__ import annotations

import hashlib
import re
from collections.abc import Callable, Iterator
from contextlib import suppress
from dataclasses import asdict, dataclass, replace

from anchorline.core.errors import Problem
from anchorline.core.practice import PRACTICE
from anchorline.core.reference import Source, SourceError
from anchorline.core.reference.source import ACTION_COLUMN
from anchorline.store.database import AlreadyThereError, NotThereError, StoreError
from anchorline.store.datasets import DatasetRules
from anchorline.store.idempotency import IdempotencyKey
from anchorline.store.job_model import OPEN_STATES, Job, NewJob, NoFileError

from ..errors import ConflictError, InvalidError
from ..once import once
from ..services import Services

# No colon: in ids it parts the dataset's name from the row's id.
_NAME = re.compile(r"[a-z0-9][a-z0-9-]{0,63}")
_LONGEST_NAME = 255


@dataclass(frozen=True, slots=True)
class LoadOptions:
    """How a file is to be loaded.

    Attributes:
        changes: whether it holds changes; `base` is then the edition that they change, or None
            for the newest when the load begins.
        bad_share: the share of rows that may be bad.
        activate: `rule` (what the dataset's rules say), `always` or `never`.
    """

    changes: bool = False
    base: int | None = None
    bad_share: float = 0.05
    activate: str = "rule"


def dataset_name(name: str) -> str:
    """A name that a dataset may have; InvalidError for any other one."""
    if not _NAME.fullmatch(name):
        detail = f"{name!r} cannot name a dataset: use small letters, digits and -, at most 64."
        raise InvalidError([Problem("/dataset", detail)])
    if name == PRACTICE:
        detail = f"{name!r} names the addresses that are built in for practice; choose another."
        raise InvalidError([Problem("/dataset", detail)])
    return name


def wanted_load(
    services: Services,
    dataset: str,
    by: str,
    source_name: str,
    *,
    changes: bool,
    base: int | None,
    bad_share: float | None,
    activate: str,
) -> NewJob:
    """The job of a load, by the dataset's rules where nothing else is asked for.

    Args:
        by: who asks for it.
        bad_share: None for what the rules say.

    Raises:
        InvalidError: no dataset can have that name.
        NotThereError: there is no such edition to change.
        ConflictError: there is no edition to change at all.
    """
    name = dataset_name(dataset)
    try:
        rules = services.datasets.get(name).rules
    except NotThereError:
        rules = DatasetRules()
    if changes:
        _require_base(services, name, base)
    share = rules.bad_share if bad_share is None else bad_share
    options = LoadOptions(changes=changes, base=base, bad_share=share, activate=activate)
    return NewJob("load", name, by, source_name, asdict(options))


def _require_base(services: Services, dataset: str, base: int | None) -> None:
    """Refuses changes to an edition that there is not; loads that wait may still make one."""
    numbers = [entry.number for entry in services.datasets.editions(dataset)]
    if base is not None and base not in numbers:
        raise NotThereError(f"There is no edition {base} of dataset {dataset!r} to change.")
    waiting = any(job.state in OPEN_STATES for job in services.jobs.list(dataset))
    if not numbers and not waiting:
        raise ConflictError(f"Dataset {dataset!r} has no edition to change; load a whole file.")


def receive_load(
    services: Services,
    new: NewJob,
    file_name: str,
    pieces: Iterator[bytes],
    key_of: Callable[[bytes], IdempotencyKey | None],
) -> Job:
    """Takes in the file of a load and puts the load in line.

    Args:
        file_name: as whoever sends it calls it, where the job names none.
        key_of: from what tells this load from another one, the key of a repeated request: with it
            the same file and options make one load only.

    Raises:
        InvalidError: it is no file of rows.
        ReusedKeyError: the key came before with another file.
    """
    first = next(pieces, b"")
    _require_rows(first, changes=bool(new.options.get("changes")))
    job = services.jobs.make(_named(new, file_name), receiving=True)
    try:
        size, digest = _keep(services, job.id, first, pieces)
        key = key_of(f"{new.dataset} {new.options} {digest}".encode())
        made = _put_in_line(services, job, key, size, digest)
    except BaseException:
        with suppress(StoreError):
            services.jobs.withdraw(job.id)
        raise
    if made.id != job.id:
        services.jobs.withdraw(job.id)
    return made


def _put_in_line(
    services: Services, job: Job, key: IdempotencyKey | None, size: int, digest: str
) -> Job:
    """Puts the job in line, or finds the one that the key made before."""
    jobs = services.jobs
    try:
        return jobs.received(job.id, size=size, digest=digest, key=key)
    except AlreadyThereError:
        assert key is not None
    return jobs.made_by_key(key)


def _keep(services: Services, job: str, first: bytes, pieces: Iterator[bytes]) -> tuple[int, str]:
    """Keeps the pieces; returns how many bytes there are, and their SHA-256."""
    digest, size, position = hashlib.sha256(), 0, 0
    piece: bytes | None = first
    while piece:
        services.load_data.add_part(job, position, piece)
        digest.update(piece)
        size, position = size + len(piece), position + 1
        piece = next(pieces, None)
    return size, digest.hexdigest()


def _require_rows(first: bytes, *, changes: bool) -> None:
    """Refuses at once what cannot be rows, so that nobody waits for a load to say so."""
    needed = ("id", "country_code", *([ACTION_COLUMN] if changes else []))
    try:
        if not first:
            raise SourceError("The file is empty.")
        Source([first], needed)
    except SourceError as error:
        raise InvalidError([Problem("/file", str(error))]) from error


def _named(new: NewJob, name: str) -> NewJob:
    kept = new.source_name or name.replace("\\", "/").rpartition("/")[2]
    printable = "".join(c for c in kept if c.isprintable())
    return replace(new, source_name=printable[:_LONGEST_NAME])


def work_on_edition(
    services: Services, kind: str, dataset: str, number: int, by: str, key: IdempotencyKey | None
) -> Job:
    """A new job on an edition that is there: `rebuild` or `compare`.

    Raises:
        NotThereError: there is no such edition.
        ReusedKeyError: the key came before with another request.
    """
    services.datasets.edition(dataset, number)
    new, jobs = NewJob(kind, dataset, by, edition=number), services.jobs
    return jobs.get(once(services, key, lambda: jobs.make(new).id))


def try_again(services: Services, identifier: str, bad_share: float | None) -> Job:
    """Puts a load that failed or was cancelled in line again, with the file that is kept.

    Args:
        bad_share: of rows; None for the larger one of the dataset's rule and what the load had.

    Raises:
        NotThereError: there is no such job.
        ConflictError: its file is not kept.
    """
    job = services.jobs.get(identifier)
    if bad_share is None:
        rule = services.datasets.get(job.dataset).rules.bad_share
        bad_share = max(rule, job.options.get("bad_share", 0.0))
    try:
        return services.jobs.retry(job.id, {"bad_share": bad_share})
    except NoFileError as error:
        raise ConflictError(str(error)) from None


def discard_file(services: Services, identifier: str) -> Job:
    """Throws the file of a load that failed or was cancelled away.

    Raises:
        NotThereError: there is no such job.
        ConflictError: its file is not kept, or needed.
    """
    try:
        return services.jobs.discard_file(identifier)
    except NoFileError as error:
        raise ConflictError(str(error)) from None
