"""Ways to keep a country's rows in MariaDB, measured: why they are kept as they are.

    python -m bench.keeping               a million addresses

The same rows as a row an address in a table (indexed by dataset, edition and id), as compressed
blocks of 10,000, and as the file itself in pieces: seconds to write, seconds to read all of them
back as rows, bytes an address on disk as InnoDB reports them.
"""

from __future__ import annotations

import time
from collections.abc import Callable, Iterator
from itertools import islice
from pathlib import Path

from sqlalchemy import text

from anchorline.core.gazetteer.rows import ROW_COLUMNS, RowBlock
from anchorline.core.layouts import shipped_layouts
from anchorline.core.reference import RowChecker, Source
from anchorline.store.database import Database
from anchorline.store.job_model import NewJob
from anchorline.store.jobs import JobStore
from anchorline.store.load_data import KeptBlock, LoadData
from anchorline.store.local_server import LocalServer
from anchorline.store.migrate import migrate

from .load import file_of
from .machine import Machine
from .options import FOLDER, SIZES, parser
from .running import free_port

_machine = Machine()
_PIECE = 1 << 20


def main() -> None:
    """Keeps the rows in each way and prints the figures."""
    given = parser(__doc__).parse_args()
    file, count = file_of(given.size, given.seed), SIZES[given.size]
    server = LocalServer((FOLDER / "keeping").resolve(), free_port())
    database = Database(server.start())
    try:
        migrate(database)
        print(
            f"{count:,} addresses, {file.stat().st_size / count:.0f} bytes an address in the file"
        )
        for title, keep, read, table in (
            ("a row an address", _keep_rows, _read_rows, "kept_address"),
            ("compressed blocks", _keep_blocks, _read_blocks, "row_block"),
            ("the file in pieces", _keep_file, _read_file, "source_part"),
        ):
            _measure(database, file, count, title, keep, read, table)
    finally:
        database.close()
        server.stop()
    print(f"machine: a small loop took {_machine} meanwhile")


def _measure(
    database: Database,
    file: Path,
    count: int,
    title: str,
    keep: Callable[[Database, Path], None],
    read: Callable[[Database], int],
    table: str,
) -> None:
    _machine.look()
    began = time.perf_counter()
    keep(database, file)
    kept = time.perf_counter()
    found = read(database)
    ended = time.perf_counter()
    if found != count:
        raise RuntimeError(f"{title}: {found} rows came back of {count}")
    asking = text(
        "SELECT data_length + index_length FROM information_schema.tables "
        "WHERE table_schema = DATABASE() AND table_name = :name"
    )
    database.run(lambda session: session.execute(text(f"ANALYZE TABLE {table}")).all())
    size = database.run(lambda session: session.scalar(asking, {"name": table}))
    print(
        f"{title:20} written in {kept - began:6.1f} s, read back in {ended - kept:6.1f} s, "
        f"{float(size or 0) / count:6.1f} bytes an address"
    )


def _pieces(file: Path) -> Iterator[bytes]:
    with file.open("rb") as opened:
        while piece := opened.read(_PIECE):
            yield piece


def _blocks(pieces: Iterator[bytes]) -> Iterator[RowBlock]:
    checker = RowChecker(shipped_layouts())
    return (checker.check(batch).block for batch in Source(pieces).batches(10_000))


def _keep_rows(database: Database, file: Path) -> None:
    columns = ", ".join(f"`{name}` VARCHAR(200)" for name in ROW_COLUMNS if name != "id")

    def work(session):
        session.execute(text("DROP TABLE IF EXISTS kept_address"))
        session.execute(
            text(
                "CREATE TABLE kept_address (dataset VARCHAR(64), edition INT, id VARCHAR(64) "
                f"COLLATE utf8mb4_bin, {columns}, PRIMARY KEY (dataset, edition, id))"
            )
        )

    database.run(work)
    names = ", ".join(f"`{name}`" for name in ROW_COLUMNS)
    placeholders = ", ".join(f":{name}" for name in ROW_COLUMNS)
    insert = text(
        f"INSERT INTO kept_address (dataset, edition, {names}) VALUES ('made-up', 1, {placeholders})"
    )
    for block in _blocks(_pieces(file)):
        nothing = dict.fromkeys(ROW_COLUMNS)
        rows = [
            {
                **nothing, **row.components, "id": row.id, "country_code": row.country_code,
                "language": row.language, "use": row.use,
                "latitude": row.latitude, "longitude": row.longitude,
            }
            for row in block.rows()
        ]  # fmt: skip
        database.run(lambda session, rows=rows: session.execute(insert, rows))


def _read_rows(database: Database) -> int:
    found = 0
    with database.engine.connect().execution_options(yield_per=10_000) as connection:
        for part in connection.execute(text("SELECT * FROM kept_address")).partitions():
            found += len(part)
    return found


def _job(database: Database) -> str:
    return JobStore(database).make(NewJob("load", "made-up", "bench"), receiving=True).id


def _keep_blocks(database: Database, file: Path) -> None:
    jobs, data = JobStore(database), LoadData(database)
    jobs.received(_job(database), size=0, digest="")
    claimed = jobs.claim()
    assert claimed is not None
    for position, block in enumerate(_blocks(_pieces(file))):
        data.put_block(claimed[1], position, KeptBlock(block, range(len(block))))
    jobs.end(claimed[1], "done", "")


def _read_blocks(database: Database) -> int:
    job = JobStore(database).list("made-up")[0]
    return sum(len(kept.rows) for _, kept in LoadData(database).blocks(job.id))


def _keep_file(database: Database, file: Path) -> None:
    data, job = LoadData(database), _job(database)
    for position, piece in enumerate(_pieces(file)):
        data.add_part(job, position, piece)


def _read_file(database: Database) -> int:
    jobs = islice(JobStore(database).list("made-up"), 2)
    job = next(job for job in jobs if job.state == "receiving")
    return sum(len(block) for block in _blocks(LoadData(database).parts(job.id)))


if __name__ == "__main__":
    main()
