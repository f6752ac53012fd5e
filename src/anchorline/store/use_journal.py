"""Uses that could not be counted in the database, kept in a file until they can be.

A use is appended and synced before its address is served, so it outlasts a kill and a power cut.
Each has a digest of its own: what was carried over twice is counted once. For a full disk there
is a reserve beside the file, which makes room for it.
"""

from __future__ import annotations

import errno
import fcntl
import json
import os
from collections.abc import Callable, Iterator, Sequence
from contextlib import contextmanager, suppress
from dataclasses import dataclass
from datetime import datetime
from pathlib import Path

from anchorline.private_files import PRIVATE_FILE

from .database import StorageFullError

# Room for some 8,000 uses.
RESERVED_BYTES = 1_000_000


@dataclass(frozen=True, slots=True)
class Use:
    """One address that was fetched.

    Attributes:
        subject: for whom it is counted: a key's id, a form's page, or people.
        digest: of the capture and of what was fetched; the same for the same again.
    """

    subject: str
    digest: str
    at: datetime


class UseJournal:
    """One file, written by all processes of a service.

    Args:
        path: made when there is something to write.
    """

    def __init__(self, path: Path) -> None:
        self._path, self._reserve = path, path.with_name("reserve")

    def append(self, use: Use) -> None:
        """Keeps a use; StorageFullError where it cannot be kept."""
        line = json.dumps([use.subject, use.digest, use.at.isoformat()]) + "\n"
        try:
            try:
                self._write(line.encode())
            except OSError as error:
                if error.errno != errno.ENOSPC:
                    raise
                self._reserve.unlink(missing_ok=True)
                self._write(line.encode())
        except OSError as error:
            raise StorageFullError("There is no room to count what is served.") from error

    def carry_over(self, count: Callable[[Sequence[Use]], None]) -> int:
        """Has all uses counted and forgets them then; returns how many there were.

        Raises:
            StorageFullError: the file cannot be read or written; nothing is forgotten.
        """
        with suppress(OSError):
            self._keep_reserve()
        if not self._path.exists():
            return 0
        try:
            return self._carry(count)
        except OSError as error:
            raise StorageFullError("The uses that wait cannot be read.") from error

    def _carry(self, count: Callable[[Sequence[Use]], None]) -> int:
        with self._locked() as file:
            size = os.fstat(file).st_size
            uses = list(_uses(os.pread(file, size, 0)))
            if uses:
                count(uses)
            os.ftruncate(file, 0)
            return len(uses)

    def _write(self, line: bytes) -> None:
        with self._locked() as file:
            # A line that a full disk or a power cut has broken off is ended first.
            size = os.fstat(file).st_size
            broken = size > 0 and os.pread(file, 1, size - 1) != b"\n"
            data = (b"\n" if broken else b"") + line
            if os.write(file, data) != len(data):
                raise OSError(errno.ENOSPC, "written in part")
            os.fsync(file)

    def _keep_reserve(self) -> None:
        """Holds room for when the disk is full; let go then."""
        if not self._reserve.exists():
            self._reserve.write_bytes(bytes(RESERVED_BYTES))

    @contextmanager
    def _locked(self) -> Iterator[int]:
        file = os.open(self._path, os.O_RDWR | os.O_APPEND | os.O_CREAT, PRIVATE_FILE)
        try:
            fcntl.flock(file, fcntl.LOCK_EX)
            yield file
        finally:
            os.close(file)


def _uses(data: bytes) -> Iterator[Use]:
    for line in data.splitlines():
        try:
            subject, digest, at = json.loads(line)
            yield Use(subject, digest, datetime.fromisoformat(at))
        except (ValueError, TypeError):
            continue  # broken off: it was never acknowledged
