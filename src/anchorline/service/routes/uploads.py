"""Receiving a file of reference data: straight from the request into the database, in pieces."""

from __future__ import annotations

import hashlib
from collections.abc import Iterator
from contextlib import suppress
from typing import IO

from flask import Request

from anchorline.core.errors import Problem
from anchorline.core.reference import Source, SourceError
from anchorline.core.reference.source import ACTION_COLUMN
from anchorline.store.database import AlreadyThereError, StoreError
from anchorline.store.idempotency import IdempotencyKey
from anchorline.store.job_model import Job, NewJob

from ..context import Services
from ..endpoints import FILE_TYPES, ApiRequest
from ..idempotency_header import idempotency_key
from ..problems import ProblemError, invalid

PIECE = 1 << 20
_MULTIPART = "multipart/form-data"


def receive_load(request: ApiRequest, new: NewJob) -> Job:
    """Takes in the file of a load and puts the load in line.

    With an Idempotency-Key, the same file and options make one load only.

    Raises:
        ProblemError: 415 or 422 where it is no file of rows, 409 for a reused key.
    """
    services = request.services
    request.http.max_content_length = services.settings.max_upload
    file, name = _file_of(request.http)
    pieces = _pieces(file)
    first = next(pieces, b"")
    _require_rows(first, changes=bool(new.options.get("changes")))
    job = services.jobs.make(_named(new, name), receiving=True)
    try:
        size, digest = _keep(services, job.id, first, pieces)
        upload = f"{new.dataset} {new.options} {digest}".encode()
        made = _settle(
            services, job, idempotency_key(request, f"load/{new.dataset}", upload), size, digest
        )
    except BaseException:
        with suppress(StoreError):
            services.jobs.withdraw(job.id)
        raise
    if made.id != job.id:
        services.jobs.withdraw(job.id)
    return made


def _settle(
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


def _file_of(http: Request) -> tuple[IO[bytes], str]:
    """The file's stream and its name, from a form or from the body itself."""
    if http.mimetype == _MULTIPART:
        uploaded = http.files.get("file")
        if uploaded is None:
            raise invalid([Problem("/file", "Send the file in the part `file` of the form.")])
        return uploaded.stream, uploaded.filename or ""
    if http.mimetype not in FILE_TYPES:
        raise ProblemError(
            415, f"Send the file as {_MULTIPART}, or as the body itself: {', '.join(FILE_TYPES)}."
        )
    return http.stream, ""


def _pieces(file: IO[bytes]) -> Iterator[bytes]:
    """Pieces of one size, whatever comes over the wire at once."""
    waiting = bytearray()
    while data := file.read(PIECE):
        waiting += data
        while len(waiting) >= PIECE:
            yield bytes(waiting[:PIECE])
            del waiting[:PIECE]
    if waiting:
        yield bytes(waiting)


def _require_rows(first: bytes, *, changes: bool) -> None:
    """Refuses at once what cannot be rows, so that nobody waits for a load to say so."""
    needed = ("id", "country_code", *([ACTION_COLUMN] if changes else []))
    try:
        if not first:
            raise SourceError("The file is empty.")
        Source([first], needed)
    except SourceError as error:
        raise invalid([Problem("/file", str(error))]) from error


def _named(new: NewJob, name: str) -> NewJob:
    kept = new.source_name or name.replace("\\", "/").rpartition("/")[2]
    printable = "".join(c for c in kept if c.isprintable())
    return NewJob(new.kind, new.dataset, new.made_by, printable[:255], new.options, new.edition)
