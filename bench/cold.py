"""Opens an index that is in no cache, runs fifty queries and prints what they cost, as JSON."""

from __future__ import annotations

import json
import os
import sys
import time
from pathlib import Path

from anchorline.core.gazetteer import Gazetteer, SearchRequest, load_abbreviations
from anchorline.core.layouts import load_names, shipped_layouts
from anchorline.store.edition_files import EditionFiles

from .made_up import make_rows
from .options import FOLDER
from .queries import line_of

QUERIES = 50


def main(name: str, seed: int) -> None:
    """Prints opening time, the slowest of the first queries, and memory."""
    lines = [line_of(row) for row in make_rows(QUERIES * 40, seed)][::40]
    layouts = shipped_layouts()
    # As the service does before its workers part.
    load_names()
    load_abbreviations()
    for file in (FOLDER / name / str(seed)).iterdir():
        with file.open("rb") as opened:
            os.posix_fadvise(opened.fileno(), 0, 0, os.POSIX_FADV_DONTNEED)
    before = _memory("Private_Dirty")
    started = time.perf_counter()
    gazetteer = Gazetteer([EditionFiles(FOLDER).open(name, seed)], layouts)
    opened_ms = 1000 * (time.perf_counter() - started)
    times = []
    for line in lines:
        started = time.perf_counter()
        gazetteer.suggest(SearchRequest(line[: len(line) * 2 // 3]))
        times.append(1000 * (time.perf_counter() - started))
    figures = {
        "open_ms": opened_ms,
        "slowest_ms": max(times),
        "private_mb": _memory("Private_Dirty") - before,
        "resident_mb": _memory("Rss"),
    }
    print(json.dumps(figures))


def _memory(kind: str) -> float:
    """Megabytes of this process, of a kind that the kernel counts."""
    text = Path("/proc/self/smaps_rollup").read_text()
    return next(int(line.split()[1]) / 1000 for line in text.splitlines() if line.startswith(kind))


if __name__ == "__main__":
    main(sys.argv[1], int(sys.argv[2]))
