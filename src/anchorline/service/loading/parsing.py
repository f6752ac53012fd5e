"""The first half of a load: a file becomes kept blocks of checked rows.

Blocks are kept as they come, each with what was noticed in it, so a load that is cut off goes on
behind the last of them. Those of the file come first, then those taken over from the edition that
a file of changes builds on, then one with what could only be seen at the end.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from functools import partial
from itertools import chain

from anchorline.core.counting import counted
from anchorline.core.errors import nearest_names
from anchorline.core.gazetteer.rows import RowBlock
from anchorline.core.reference import BadRow, CheckedBatch, Findings, RowChecker, Source
from anchorline.core.reference.changes import ChangeSet
from anchorline.core.reference.findings import Sample
from anchorline.core.reference.repeats import RowHashes
from anchorline.core.reference.source import ACTION_COLUMN, KNOWN_COLUMNS, SourceError
from anchorline.store.job_model import Job
from anchorline.store.load_data import KeptBlock

from ..context import Services
from .lease import JobLease, JobStoppedError
from .prefetch import BackgroundSteps, prefetch

# Batches fit a processor's cache, blocks make few round trips.
BATCH_ROWS = 1_000
BATCHES_IN_BLOCK = 10
# Positions of blocks: first those of the file, then those of the base, then the last one.
BASE_FROM = 1_000_000
LAST_BLOCK = 2_000_000
# A file of which so many rows are bad at its beginning is not read to its end.
_HOPELESS_AFTER = 10_000
_HOPELESS_SHARE = 0.5


class BadFileError(Exception):
    """The file cannot make an edition; the message says why and what to do."""


class FileParser:
    """Reads the file of one load.

    Args:
        base: the job whose blocks a file of changes builds on; None for a whole file.
    """

    def __init__(self, services: Services, job: Job, lease: JobLease, base: str | None) -> None:
        self._services, self._job, self._lease, self._base = services, job, lease, base
        self._data = services.load_data
        self._changes = ChangeSet()
        self._hashes = RowHashes()
        self._seen = Findings()
        self._bytes = 0

    def parse(self, bad_share: float) -> None:
        """Reads, checks and keeps everything.

        Raises:
            BadFileError: too many rows are bad, or the file cannot be read.
        """
        self._data.drop_blocks(self._job.id, from_position=BASE_FROM)
        position, last_line = self._kept_before()
        try:
            self._read_file(position, last_line)
        except SourceError as error:
            raise BadFileError(str(error)) from error
        last = KeptBlock(RowBlock({}, [], []), findings=self._seen)
        self._leave_out_repeats(last)
        if self._base is not None:
            self._take_over(self._base, last)
        self._data.put_block(self._lease.claim, LAST_BLOCK, last)
        bad = sum(1 for _ in self._data.bad_rows(self._job.id))
        self._services.jobs.count_bad(self._lease.claim, bad)
        if not bad and not self._data.rows_used(self._job.id):
            raise BadFileError("The file holds no rows: there is nothing below its first line.")
        require_few_bad(self._services.jobs.get(self._job.id).rows_done, bad, bad_share)

    def _kept_before(self) -> tuple[int, int]:
        """What an earlier attempt kept: the next block's position, and the last line read."""
        next_position, last_line = 0, 0
        for position, kept in self._data.blocks(self._job.id):
            self._note(kept)
            next_position, last_line = position + 1, kept.last_line
        return next_position, last_line

    def _read_file(self, position: int, last_line: int) -> None:
        changes = self._base is not None
        needed = ("id", "country_code", *([ACTION_COLUMN] if changes else []))
        source = Source(self._counted(prefetch(self._data.parts(self._job.id))), needed)
        if source.has_actions and not changes:
            raise BadFileError(
                "The file has the column action, so it holds changes: load it as changes."
            )
        checker = RowChecker(self._services.layouts, changes=changes)
        checked = map(checker.check, source.batches(BATCH_ROWS, after_line=last_line))
        with BackgroundSteps() as keeper:
            for kept in _joined(checked):
                self._lease.check()
                self._note(kept)
                keeper.submit(
                    partial(self._data.add_block, self._lease.claim, position, kept, self._bytes)
                )
                position += 1
                self._look_up()
        unknown = [Sample(1, "", name, _meant(name)) for name in source.unknown]
        self._seen.add_many("unknown-column", len(unknown), unknown)

    def _counted(self, parts: Iterable[bytes]) -> Iterator[bytes]:
        for part in parts:
            self._bytes += len(part)
            yield part

    def _note(self, kept: KeptBlock) -> None:
        self._hashes.add(kept.rows)
        if self._base is not None:
            self._changes.add(kept.rows, kept.drops)

    def _look_up(self) -> None:
        """Ends what is to be cancelled, and what has no hope."""
        job = self._services.jobs.get(self._job.id)
        if job.cancel_asked:
            raise JobStoppedError("cancelled")
        if job.rows_done >= _HOPELESS_AFTER and job.rows_bad > _HOPELESS_SHARE * job.rows_done:
            raise BadFileError(
                f"{job.rows_bad:,} of the first {job.rows_done:,} rows cannot be used; the rest "
                "was not read. See the report."
            )

    def _leave_out_repeats(self, last: KeptBlock) -> None:
        """Takes out rows whose id and language stand there before; notes those of equal content."""
        same_content = self._hashes.repeated_addresses().tolist()
        repeated = set(self._hashes.repeated_ids().tolist())
        self._hashes = RowHashes()
        noted = [place for place in same_content if place not in repeated]
        wanted = repeated.union(noted[:100])
        samples: list[Sample] = []
        first = 0
        for position, kept in self._data.blocks(self._job.id) if wanted else ():
            places = range(first, first + len(kept.rows))
            first = places.stop
            if not wanted.intersection(places):
                continue
            ids = kept.rows.texts["id"]
            samples += [
                Sample(kept.lines[place - places.start], ids[place - places.start], "", "")
                for place in noted[:100]
                if place in places
            ]
            if repeated.intersection(places):
                self._take_out(position, kept, [p - places.start for p in places if p in repeated])
        last.findings.add_many("same-address", len(noted), samples)

    def _take_out(self, position: int, kept: KeptBlock, places: list[int]) -> None:
        for i in places:
            row_id = kept.rows.texts["id"][i]
            reason = f"the id {row_id!r} stands in the file before, in the same language"
            bad = BadRow(kept.lines[i], row_id, "same-id", "id", reason, "")
            kept.bad.append(bad)
            kept.findings.add_bad(bad)
        left = [i for i in range(len(kept.rows)) if i not in set(places)]
        kept.rows, kept.lines = kept.rows.take(left), [kept.lines[i] for i in left]
        self._data.put_block(self._lease.claim, position, kept)

    def _take_over(self, base: str, last: KeptBlock) -> None:
        """The rows of the base that the changes leave as they are."""
        claim = self._lease.claim
        at = BASE_FROM
        for position, kept in self._data.blocks(base):
            self._lease.check()
            if not len(kept.rows):
                continue
            left = self._changes.remaining(kept.rows)
            if left is kept.rows and len(left):
                self._data.copy_block(claim, at, base, position)
            elif len(left):
                self._data.put_block(claim, at, KeptBlock(left))
            at += 1
        for row_id, line in self._changes.not_found():
            reason = f"there is no address with the id {row_id!r}"
            bad = BadRow(line, row_id, "nothing-to-drop", "id", reason, f"{row_id},drop")
            last.bad.append(bad)
            last.findings.add_bad(bad)


def require_few_bad(rows: int, bad: int, share: float) -> None:
    """Raises BadFileError where more rows are bad than may be, or none is usable."""
    if bad >= rows or bad > share * rows:
        raise BadFileError(
            f"{bad:,} of {counted(rows, 'row')} cannot be used, at most {share:.1%} may. "
            "See the report."
        )


def _joined(checked: Iterator[CheckedBatch]) -> Iterator[KeptBlock]:
    """Blocks of several checked batches."""
    for first in checked:
        parts = [first]
        parts += (batch for _, batch in zip(range(BATCHES_IN_BLOCK - 1), checked, strict=False))
        findings = Findings()
        for part in parts:
            findings.merge(part.findings)
        yield KeptBlock(
            rows=_joined_rows([part.block for part in parts]),
            lines=list(chain.from_iterable(part.lines for part in parts)),
            last_line=parts[-1].last_line,
            bad=list(chain.from_iterable(part.bad for part in parts)),
            findings=findings,
            drops=[
                pair for part in parts for pair in zip(part.drops, part.drop_lines, strict=True)
            ],
        )


def _joined_rows(blocks: list[RowBlock]) -> RowBlock:
    names = {name for block in blocks for name in block.texts}
    return RowBlock(
        {
            name: list(chain.from_iterable(b.texts.get(name) or [""] * len(b) for b in blocks))
            for name in names
        },
        list(chain.from_iterable(block.latitudes for block in blocks)),
        list(chain.from_iterable(block.longitudes for block in blocks)),
    )


def _meant(column: str) -> str:
    """What a column that is not known may be meant to be, for its finding; empty: nothing near."""
    nearest = nearest_names(column, KNOWN_COLUMNS, limit=1)
    return f"{column}: is {nearest[0]} meant?" if nearest else column
