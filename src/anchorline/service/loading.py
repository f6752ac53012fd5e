"""Loading a file of reference data into a new edition, and making it the active one."""

from __future__ import annotations

import gzip
import hashlib
import io
import re
import zlib
from dataclasses import asdict, dataclass
from pathlib import Path
from typing import IO

from anchorline.core.gazetteer import Row, RowFault, build_edition, read_rows
from anchorline.core.gazetteer.rows import unknown_columns
from anchorline.store.datasets import EditionEntry

from .context import Services

DEFAULT_BAD_SHARE = 0.05
FAULTS_KEPT = 1000
# No colon: in ids it parts the dataset's name from the row's id.
_NAME = re.compile(r"[a-z0-9][a-z0-9-]{0,63}")


class LoadError(Exception):
    """A load that was stopped; nothing was changed."""


@dataclass(frozen=True, slots=True)
class Loaded:
    """What a load did; `ignored` names the file's columns that are not known."""

    dataset: str
    number: int
    used: int
    bad: int
    ignored: tuple[str, ...]


def load_file(
    services: Services, dataset: str, file: Path, *, bad_share: float = DEFAULT_BAD_SHARE
) -> Loaded:
    """Loads a `.csv`, `.csv.gz` or `.jsonl` file whole, as the next edition, and activates it.

    Args:
        bad_share: the share of rows, 0 to 1, that may be bad before the load is stopped.

    Raises:
        LoadError: the name or the file cannot be used, or too many rows are bad, or all are.
    """
    if not _NAME.fullmatch(dataset):
        raise LoadError(
            f"{dataset!r} cannot name a dataset: use small letters, digits and -, at most 64."
        )
    json_lines = ".jsonl" in file.suffixes
    rows: list[Row] = []
    faults: list[RowFault] = []
    try:
        digest = hashlib.sha256(file.read_bytes()).hexdigest()
        with _opened(file) as lines:
            ignored = unknown_columns(lines.readline(), json_lines=json_lines)
        with _opened(file) as lines:
            for item in read_rows(lines, services.layouts, json_lines=json_lines):
                if isinstance(item, Row):
                    rows.append(item)
                else:
                    faults.append(item)
    except (OSError, EOFError, zlib.error, ValueError) as error:
        raise LoadError(f"{file} cannot be loaded: {error}") from error
    total = len(rows) + len(faults)
    if not rows or len(faults) > bad_share * total:
        first = "; ".join(f"line {f.line}, {f.column}: {f.reason}" for f in faults[:3])
        raise LoadError(
            f"{len(faults)} of {total} rows cannot be used, at most {bad_share:.0%} may: {first}"
        )
    number = services.datasets.next_number(dataset)
    services.edition_files.write(dataset, number, build_edition(rows, services.layouts))
    services.datasets.add_edition(
        EditionEntry(
            dataset=dataset,
            number=number,
            source_name=file.name,
            source_digest=digest,
            rows_used=len(rows),
            rows_bad=len(faults),
            report={
                "unknown_columns": ignored,
                "faults": [asdict(fault) for fault in faults[:FAULTS_KEPT]],
            },
        )
    )
    services.datasets.activate(dataset, number)
    return Loaded(dataset, number, len(rows), len(faults), tuple(ignored))


def _opened(file: Path) -> IO[str]:
    if file.suffix == ".gz":
        return io.TextIOWrapper(gzip.open(file, "rb"), encoding="utf-8", newline="")
    return file.open(encoding="utf-8", newline="")
