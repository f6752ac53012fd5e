"""What a load brings along: the pieces of its file, and its checked rows in compressed blocks.

A block is JSON, a list a column, deflated: about 13 bytes an address in place of 105 in the
file. It is the record of truth that editions are built from; the file goes when it is read.
"""

from __future__ import annotations

import zlib
from collections.abc import Iterator, Sequence
from dataclasses import asdict, dataclass, field
from functools import partial
from itertools import count
from typing import Any

import orjson
from sqlalchemy import delete, func, insert, literal, select, update
from sqlalchemy.orm import Session

from anchorline.core.gazetteer.rows import RowBlock
from anchorline.core.reference import BadRow, Findings

from .database import Database
from .job_claims import touch_job
from .job_model import Claim
from .schema import JobRow, RowBlockRow, SourcePartRow

_QUICK = 1
_ALWAYS = ("id", "country_code")


@dataclass(slots=True)
class KeptBlock:
    """A block of rows as it is kept.

    Attributes:
        lines: the line of the file on which each row stands.
        last_line: how far the file was read.
        bad: rows left out, and `findings` what was noticed.
        drops: ids to take out, with their lines, where the file is one of changes.
    """

    rows: RowBlock
    lines: Sequence[int] = ()
    last_line: int = 0
    bad: list[BadRow] = field(default_factory=list)
    findings: Findings = field(default_factory=Findings)
    drops: list[tuple[str, int]] = field(default_factory=list)


class LoadData:
    """Keeps and hands out the data of loads."""

    def __init__(self, database: Database) -> None:
        self._database = database

    # The file

    def add_part(self, job: str, position: int, data: bytes) -> None:
        """Keeps a piece of a file that is being received."""
        self._database.require_room()

        def work(session: Session) -> None:
            session.add(SourcePartRow(job=job, position=position, data=data))

        self._database.run(work)

    def parts(self, job: str) -> Iterator[bytes]:
        """The pieces of a file in their order, one in memory at a time."""
        for position in count():
            data = self._database.run(partial(_part, job, position))
            if data is None:
                return
            yield data

    def drop_file(self, job: str) -> None:
        """Takes out a file that is no longer needed."""

        def work(session: Session) -> None:
            session.execute(delete(SourcePartRow).where(SourcePartRow.job == job))
            session.execute(update(JobRow).where(JobRow.id == job).values(file_kept=False))

        self._database.run(work)

    # Rows

    def add_block(self, claim: Claim, position: int, kept: KeptBlock, bytes_done: int) -> None:
        """Keeps the next block of a file and what it adds to the job's counts, both or neither."""
        values = {
            "rows_done": JobRow.rows_done + len(kept.rows) + len(kept.bad) + len(kept.drops),
            "rows_bad": JobRow.rows_bad + len(kept.bad),
            "bytes_done": bytes_done,
        }
        self._database.require_room()

        def work(session: Session) -> None:
            touch_job(session, claim, **values)
            session.add(RowBlockRow(job=claim.job, position=position, **_packed(kept)))

        self._database.run(work)

    def put_block(self, claim: Claim, position: int, kept: KeptBlock) -> None:
        """Keeps a block in place of one at this position; the job's counts stay as they are."""
        self._database.require_room()

        def work(session: Session) -> None:
            touch_job(session, claim)
            session.merge(RowBlockRow(job=claim.job, position=position, **_packed(kept)))

        self._database.run(work)

    def copy_block(self, claim: Claim, position: int, source: str, source_position: int) -> None:
        """Takes over the rows of another job's block as they are, without what was noticed."""
        nothing = _packed(KeptBlock(RowBlock({}, [], [])))["notes"]
        chosen = select(
            literal(claim.job), literal(position), RowBlockRow.rows_used, literal(0),
            RowBlockRow.data, literal(nothing),
        ).where(RowBlockRow.job == source, RowBlockRow.position == source_position)  # fmt: skip
        columns = ["job", "position", "rows_used", "last_line", "data", "notes"]
        self._database.require_room()

        def work(session: Session) -> None:
            touch_job(session, claim)
            session.execute(insert(RowBlockRow).from_select(columns, chosen))

        self._database.run(work)

    def block_positions(self, job: str) -> list[int]:
        """The positions of a job's blocks, ascending."""

        def work(session: Session) -> list[int]:
            return list(
                session.scalars(
                    select(RowBlockRow.position)
                    .where(RowBlockRow.job == job)
                    .order_by(RowBlockRow.position)
                )
            )

        return self._database.run(work)

    def blocks(self, job: str) -> Iterator[tuple[int, KeptBlock]]:
        """A job's blocks with their positions, one in memory at a time."""
        for position in self.block_positions(job):
            yield position, _unpacked(self._database.run(partial(_block, job, position)))

    def bad_rows(self, job: str) -> Iterator[BadRow]:
        """The rows that were left out, in the order of the file."""
        for notes in self._notes(job):
            for bad in notes["bad"]:
                yield BadRow(**bad)

    def findings(self, job: str) -> Findings:
        """What was noticed in all of a job's blocks."""
        findings = Findings()
        for notes in self._notes(job):
            findings.merge(Findings.from_document(notes["findings"]))
        return findings

    def rows_used(self, job: str) -> int:
        """How many usable rows a job's blocks hold."""

        def work(session: Session) -> int:
            count = select(func.sum(RowBlockRow.rows_used)).where(RowBlockRow.job == job)
            return int(session.scalar(count) or 0)

        return self._database.run(work)

    def _notes(self, job: str) -> Iterator[dict[str, Any]]:
        for position in self.block_positions(job):
            notes = self._database.run(partial(_notes_of, job, position))
            yield orjson.loads(zlib.decompress(notes or b""))

    def drop_blocks(self, job: str, *, from_position: int = 0) -> None:
        """Takes out a job's blocks from a position on."""
        statement = delete(RowBlockRow).where(
            RowBlockRow.job == job, RowBlockRow.position >= from_position
        )

        def work(session: Session) -> None:
            session.execute(statement)

        self._database.run(work)

    def drop_rows(self, job: str) -> None:
        """Takes out a failed job's rows; the report of what was left out stays."""
        nothing = _packed(KeptBlock(RowBlock({}, [], [])))["data"]

        def work(session: Session) -> None:
            session.execute(
                update(RowBlockRow).where(RowBlockRow.job == job).values(rows_used=0, data=nothing)
            )

        self._database.run(work)

    def rows_bytes(self, job: str) -> int:
        """How many bytes a job's rows take."""

        def work(session: Session) -> int:
            size = func.sum(func.length(RowBlockRow.data) + func.length(RowBlockRow.notes))
            return int(session.scalar(select(size).where(RowBlockRow.job == job)) or 0)

        return self._database.run(work)


def _packed(kept: KeptBlock) -> dict[str, Any]:
    """The columns of a block's row."""
    rows, lines = kept.rows, kept.lines
    straight = bool(lines) and lines[-1] - lines[0] == len(lines) - 1
    data = {
        "texts": {
            name: values for name, values in rows.texts.items() if name in _ALWAYS or any(values)
        },
        "latitudes": rows.latitudes,
        "longitudes": rows.longitudes,
        "lines": [lines[0]] if straight else list(lines),
    }
    notes = {
        "bad": [asdict(bad) for bad in kept.bad],
        "findings": kept.findings.to_document(),
        "drops": kept.drops,
    }
    return {
        "rows_used": len(rows),
        "last_line": kept.last_line,
        "data": zlib.compress(orjson.dumps(data), _QUICK),
        "notes": zlib.compress(_printable(notes), _QUICK),
    }


def _printable(notes: dict[str, Any]) -> bytes:
    """JSON of texts that may hold bytes which were not UTF-8: those become question marks."""
    try:
        return orjson.dumps(notes)
    except TypeError:
        return orjson.dumps(_mended(notes))


def _mended(value: Any) -> Any:
    if isinstance(value, str):
        return value.encode("utf-8", "replace").decode()
    if isinstance(value, dict):
        return {key: _mended(part) for key, part in value.items()}
    return [_mended(part) for part in value] if isinstance(value, list | tuple) else value


def _unpacked(row: RowBlockRow) -> KeptBlock:
    data = orjson.loads(zlib.decompress(row.data))
    notes = orjson.loads(zlib.decompress(row.notes))
    rows = RowBlock(data["texts"], data["latitudes"], data["longitudes"])
    lines = data["lines"]
    if len(lines) == 1 < len(rows):
        lines = range(lines[0], lines[0] + len(rows))
    return KeptBlock(
        rows=rows,
        lines=lines,
        last_line=row.last_line,
        bad=[BadRow(**bad) for bad in notes["bad"]],
        findings=Findings.from_document(notes["findings"]),
        drops=[(row_id, line) for row_id, line in notes["drops"]],
    )


def _part(job: str, position: int, session: Session) -> bytes | None:
    part = SourcePartRow
    return session.scalar(select(part.data).where(part.job == job, part.position == position))


def _block(job: str, position: int, session: Session) -> RowBlockRow:
    return session.get_one(RowBlockRow, (job, position))


def _notes_of(job: str, position: int, session: Session) -> bytes | None:
    block = RowBlockRow
    return session.scalar(select(block.notes).where(block.job == job, block.position == position))
