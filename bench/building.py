"""Builds an index in a process of its own and prints what that cost, as JSON."""

from __future__ import annotations

import json
import resource
import sys
import time

from anchorline.core.gazetteer import build_edition
from anchorline.core.gazetteer.building.table import RowTable
from anchorline.core.layouts import shipped_layouts
from anchorline.store.edition_files import EditionFiles

from .made_up import make_rows
from .options import FOLDER


def main(name: str, count: int, seed: int) -> None:
    """Builds `count` rows of a seed into the edition `seed` of a dataset."""
    table = RowTable(make_rows(count, seed))
    started = time.process_time()
    built = build_edition(table, shipped_layouts())
    cpu = time.process_time() - started
    peak = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1000
    size = EditionFiles(FOLDER).write(name, seed, built)
    print(json.dumps({"cpu_s": cpu, "peak_mb": peak, "bytes": size}))


if __name__ == "__main__":
    main(sys.argv[1], int(sys.argv[2]), int(sys.argv[3]))
