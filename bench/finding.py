"""Finding: time, success and memory on made-up addresses, beside general text engines.

    make bench-finding                    a million addresses
    make bench-finding SIZE=10m           ten million, our own index alone

Times are of one thread, in milliseconds; CPU time is what the thread used. The machine's own
speed is printed beside them, as the time of a small loop while they were taken: on shared machines
it varies by a factor of two.
"""

from __future__ import annotations

import json
import subprocess
import sys
import time
from collections import defaultdict
from collections.abc import Sequence

import numpy as np

from anchorline.core.gazetteer import Edition, Gazetteer, SearchRequest
from anchorline.core.layouts import shipped_layouts
from anchorline.service.settle_memory import settle_memory
from anchorline.store.edition_files import EditionFiles

from . import judge
from .made_up import make_rows
from .options import FOLDER, SIZES, parser
from .queries import OPEN_CLASSES, Query, Sample, common_pairs
from .timing import Search, machine, show, timed
from .vocabulary import confusable

TOP = 5


def main() -> None:
    """Builds or opens the index, and prints the tables."""
    options = parser(__doc__)
    options.add_argument("--each", type=int, default=300, help="queries of each class")
    options.add_argument("--alone", action="store_true", help="without the other engines")
    given = options.parse_args()
    count, name = SIZES[given.size], f"made-up-{given.size}"
    built = _built(name, given.size, given.seed)
    cold = _child("bench.cold", name, str(given.seed))
    print(f"{count:,} addresses, seed {given.seed}")
    print(
        f"build {built['cpu_s']:.1f} s CPU, peak {built['peak_mb']:.0f} MB;"
        f" index {built['bytes'] / count:.1f} bytes an address"
    )
    print(
        f"open {cold['open_ms']:.1f} ms; first 50 queries at most {cold['slowest_ms']:.1f} ms;"
        f" private memory {cold['private_mb']:.1f} MB of {cold['resident_mb']:.0f} MB resident"
    )
    edition = EditionFiles(FOLDER).open(name, given.seed)
    print(f"a word has {confusable(edition):.2f} others within one edit on average")
    sample = Sample(lambda: make_rows(count, given.seed), count, given.seed + 1)
    queries, sessions = sample.queries(given.each), sample.sessions(150)
    layouts = shipped_layouts()
    gazetteer = Gazetteer([edition], layouts)
    judge.warm(edition)
    settle_memory()
    found = _run_ours(gazetteer, edition, queries)
    print(f"{len(queries):,} queries\n")
    _print_classes(found)
    lines = [line for _, line in sessions]
    keys = [line[:end] for line in lines for end in range(1, len(line) + 1)]
    print()
    pairs = [query.text for query in common_pairs(judge.common_words(edition, 16))]
    show("common words", timed(_search_of(gazetteer), pairs))
    # Nothing of these lines is known beforehand.
    show("every keystroke", timed(_search_of(Gazetteer([edition], layouts)), keys))
    needed = _keys_needed(gazetteer, edition, sessions)
    print(
        f"keys until the address is among {TOP}: median {np.median(needed):.0f} of {np.mean([len(x) for x in lines]):.0f}"
    )
    if not (given.alone or given.size == "10m"):
        from .side_by_side import side_by_side

        ours = _search_of(Gazetteer([edition], layouts))
        side_by_side(ours, count, given.seed, keys, queries)
    print(f"\nmachine: a small loop took {machine} while this ran")


def _search_of(gazetteer: Gazetteer) -> Search:
    return lambda text: gazetteer.suggest(SearchRequest(text))


def _built(name: str, size: str, seed: int) -> dict[str, float]:
    """The figures of the build, made in a process of its own where it is not there yet."""
    figures = FOLDER / name / f"{seed}.json"
    if not figures.exists():
        figures.parent.mkdir(parents=True, exist_ok=True)
        figures.write_text(json.dumps(_child("bench.building", name, str(SIZES[size]), str(seed))))
    found: dict[str, float] = json.loads(figures.read_text())
    return found


def _child(module: str, *arguments: str) -> dict[str, float]:
    command = [sys.executable, "-m", module, *arguments]
    done = subprocess.run(command, check=True, capture_output=True, text=True)
    found: dict[str, float] = json.loads(done.stdout)
    return found


def _run_ours(
    gazetteer: Gazetteer, edition: Edition, queries: Sequence[Query]
) -> dict[str, list[tuple[float, float, int, float]]]:
    found: dict[str, list[tuple[float, float, int, float]]] = defaultdict(list)
    for place, query in enumerate(queries):
        if place % 20 == 0:
            machine.look()
        cpu, wall = time.thread_time_ns(), time.perf_counter_ns()
        rows = gazetteer.suggest(SearchRequest(query.text, kinds=query.kinds)) or []
        took = (time.thread_time_ns() - cpu) / 1e6, (time.perf_counter_ns() - wall) / 1e6
        found[query.name].append((*took, judge.rank(edition, query, rows), query.ceiling))
    return found


_HEADER = f"{'class':<20}{'n':>6}  {'cpu p50':>8}{'p95':>7}{'p99':>7}  {'wall p95':>8}  {'@1':>6}{'@8':>7}{'MRR':>7}  of possible"


def _print_classes(found: dict[str, list[tuple[float, float, int, float]]]) -> None:
    print(_HEADER)
    for name, figures in found.items():
        cpu, wall, places, ceilings = (np.array(column) for column in zip(*figures, strict=True))
        hit = places > 0
        success = np.mean(hit & (places <= 8))
        share = f"{success / ceilings.mean():.3f}" if name in OPEN_CLASSES else ""
        mrr = np.mean(np.where(hit, 1 / np.maximum(places, 1), 0))
        a, b, c = np.percentile(cpu, (50, 95, 99))
        print(
            f"{name:<20}{len(cpu):>6}  {a:8.3f}{b:7.3f}{c:7.3f}  {np.percentile(wall, 95):8.3f}  "
            f"{np.mean(places == 1):6.3f}{success:7.3f}{mrr:7.3f}  {share}"
        )


def _keys_needed(gazetteer: Gazetteer, edition: Edition, sessions: Sequence) -> list[int]:  # type: ignore[type-arg]
    """How many keys of a line bring its address among the first TOP rows."""
    needed = []
    for row, line in sessions:
        query = Query("session", line, row.id, "number")
        for end in range(1, len(line) + 1):
            rows = gazetteer.suggest(SearchRequest(line[:end], limit=TOP)) or []
            if judge.rank(edition, query, rows):
                break
        needed.append(end)
    return needed


if __name__ == "__main__":
    main()
