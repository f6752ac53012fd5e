"""The calls on reference data: datasets, loads, editions, jobs."""

from __future__ import annotations

import time
import uuid
from collections.abc import Callable, Iterator
from pathlib import Path

from anchorline.wire.datasets import (
    DatasetAnswer,
    DatasetList,
    DatasetSummary,
    EditionAnswer,
    JobAnswer,
    RulesRequest,
)

from .calls import Calls, part, read_answer

_PIECE = 1 << 20
# Bytes that even a busy service keeps in a second, once they are there.
_KEPT_A_SECOND = 1_000_000
_ENDED = ("done", "failed", "cancelled")


class Datasets(Calls):
    """Reference data, as `Client.datasets`. All methods raise the errors of `errors`."""

    def list(self) -> list[DatasetSummary]:
        """All datasets."""
        return [one for page in self._every("datasets", DatasetList) for one in page.datasets]

    def get(self, name: str) -> DatasetAnswer:
        """A dataset with its rules, editions and latest jobs."""
        return self._get(_dataset(name), DatasetAnswer)

    def set_rules(self, name: str, rules: RulesRequest) -> DatasetAnswer:
        """Sets a dataset's rules; makes it where it is new."""
        path = f"{_dataset(name)}/rules"
        answer = self._transport.send("PUT", path, body=rules, repeatable=True)
        return read_answer(DatasetAnswer, answer)

    def load(
        self,
        name: str,
        file: Path,
        *,
        changes: bool = False,
        base: int | None = None,
        bad_share: float | None = None,
        activate: str = "rule",
        idempotency_key: str | None = None,
        progress: Callable[[int], None] | None = None,
    ) -> JobAnswer:
        """Sends a file; a worker loads it as the next edition. Sent twice, it is loaded once.

        Args:
            changes: the file holds changes to `base`, or to the newest edition.
            bad_share: the share of rows that may be bad; else as the dataset has it.
            activate: `rule` (as the dataset has it), `always` or `never`.
            progress: called with the number of bytes sent, now and then.

        Raises:
            OSError: the file cannot be read.
        """

        size = file.stat().st_size

        def content() -> Iterator[bytes]:
            sent = 0
            with file.open("rb") as opened:
                while piece := opened.read(_PIECE):
                    yield piece
                    sent += len(piece)
                    if progress is not None:
                        progress(sent)

        answer = self._transport.send(
            "POST",
            f"{_dataset(name)}/editions",
            query={
                "name": file.name,
                "changes": changes or None,
                "base": base,
                "bad_share": bad_share,
                "activate": activate,
            },
            content=content,
            seconds=size / _KEPT_A_SECOND,
            headers={
                "Content-Type": "application/octet-stream",
                "Content-Length": str(size),
                "Idempotency-Key": idempotency_key or str(uuid.uuid4()),
            },
            repeatable=True,
        )
        return read_answer(JobAnswer, answer)

    def edition(self, name: str, number: int) -> EditionAnswer:
        """An edition with its findings and comparison."""
        return self._get(_edition(name, number), EditionAnswer)

    def activate(self, name: str, number: int) -> DatasetAnswer:
        """Makes an edition the active one; going back is the same."""
        return self._post(f"{_edition(name, number)}/activate", DatasetAnswer)

    def rebuild(self, name: str, number: int) -> JobAnswer:
        """Has an edition's index built anew from its rows."""
        return self._post(f"{_edition(name, number)}/rebuild", JobAnswer)

    def compare(self, name: str, number: int) -> JobAnswer:
        """Has an edition compared with the one that is active now."""
        return self._post(f"{_edition(name, number)}/compare", JobAnswer)

    def remove(self, name: str, number: int) -> None:
        """Takes an edition away; the active one stays."""
        self._transport.send("DELETE", _edition(name, number))

    def remove_dataset(self, name: str) -> None:
        """Takes a dataset away with all its editions, also the active one."""
        self._transport.send("DELETE", f"datasets/{part(name)}")

    def job(self, job: str) -> JobAnswer:
        """A job as it stands."""
        return self._get(f"jobs/{part(job)}", JobAnswer)

    def cancel(self, job: str) -> JobAnswer:
        """Asks a job to end."""
        return self._post(f"jobs/{part(job)}/cancel", JobAnswer)

    def retry(self, job: str, *, bad_share: float | None = None) -> JobAnswer:
        """Puts a load that failed or was cancelled in line again, with the file that is kept.

        Args:
            bad_share: the share of rows that may be bad; else the larger of what it was and what
                the dataset's rules allow now.
        """
        query = {"bad_share": bad_share}
        answer = self._transport.send("POST", f"jobs/{part(job)}/retry", query=query)
        return read_answer(JobAnswer, answer)

    def discard_file(self, job: str) -> JobAnswer:
        """Throws the file of a load that failed or was cancelled away."""
        answer = self._transport.send("DELETE", f"jobs/{part(job)}/file")
        return read_answer(JobAnswer, answer)

    def report(self, job: str) -> str:
        """The rows that a load left out, as CSV."""
        return self._transport.send("GET", f"jobs/{part(job)}/report").text

    def wait(
        self,
        job: str,
        *,
        every: float = 0.3,
        progress: Callable[[JobAnswer], None] | None = None,
    ) -> JobAnswer:
        """Waits until a job has ended, however long that takes; returns how it ended.

        Args:
            every: seconds between two looks.
            progress: called with the job at every look.
        """
        while True:
            found = self.job(job)
            if progress is not None:
                progress(found)
            if found.state in _ENDED:
                return found
            time.sleep(every)


def _dataset(name: str) -> str:
    return f"datasets/{part(name)}"


def _edition(name: str, number: int) -> str:
    return f"{_dataset(name)}/editions/{number}"
