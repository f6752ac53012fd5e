"""Loading through the service: rows a second and memory, and what a load costs those who type.

    make bench-load                       a million addresses
    make bench-load SIZE=10m              ten million

A file of made-up addresses is sent to a running service, checked, kept, built and made ready to be
activated by a worker; then once more with a hundredth of the rows changed, so that there is
something to compare. The job's process is watched from outside. While the second load runs, and
when none does, ten people type: what a load costs them is the difference.
"""

from __future__ import annotations

import csv
import threading
import time
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from pathlib import Path

from anchorline.client import Client, JobAnswer
from anchorline.core.gazetteer import ROW_COLUMNS

from .machine import Machine
from .made_up import make_rows
from .options import FOLDER, SIZES, parser
from .queries import Sample
from .running import Running, service
from .typing import BETWEEN_KEYS_S, Times, requests_of, type_away

_machine = Machine()
TYPISTS = 10


def main() -> None:
    """Loads twice and prints what it took."""
    given = parser(__doc__).parse_args()
    count = SIZES[given.size]
    first, second = (file_of(given.size, given.seed, changed=changed) for changed in (False, True))
    megabytes = first.stat().st_size / 1e6
    print(f"{count:,} addresses, seed {given.seed}, {megabytes:.0f} MB of CSV")
    sample = Sample(lambda: make_rows(count, given.seed), count, given.seed + 1)
    lines = [line for _, line in sample.sessions(50)]
    with service() as running, Client(running.url, running.key) as client:
        for file in (first, second):
            _load(client, running, file, count, lines)
    print(f"\nmachine: a small loop took {_machine} meanwhile")


def _load(client: Client, running: Running, file: Path, count: int, lines: Sequence[str]) -> None:
    active = client.datasets.get("made-up").active_edition if _known(client) else None
    typists = _Typists(running, lines)
    quiet = typists.alone(15.0) if active is not None else None
    began = time.perf_counter()
    job = client.datasets.load("made-up", file)
    sent = time.perf_counter() - began
    watch = _Watch()
    if quiet is not None:
        typists.start()
    ended = client.datasets.wait(job.id, every=0.1, progress=watch.look)
    total = time.perf_counter() - began
    busy = typists.stop() if quiet is not None else None
    if ended.state != "done":
        raise RuntimeError(ended.message)
    edition = client.datasets.get("made-up").editions[0]
    print(f"\n{file.name}: {ended.message}")
    print(f"sent {sent:.1f} s; ready after {total:.1f} s in all: {count / total:,.0f} rows/s")
    for phase, seen in watch.phases.items():
        print(f"  {phase:10} {seen.seconds:6.1f} s   memory at most {seen.peak_mb:6.0f} MB")
    print(
        f"kept: rows {edition.rows_bytes / count:.1f} bytes an address, "
        f"index {edition.index_bytes / count:.1f}"
    )
    if quiet is None:
        client.datasets.activate("made-up", edition.number)
        time.sleep(2)
    else:
        print(f"{TYPISTS} people typing, alone          {quiet}")
        print(f"{TYPISTS} people typing, during a load  {busy}")


def _known(client: Client) -> bool:
    return any(d.name == "made-up" for d in client.datasets.list())


@dataclass
class _Phase:
    began: float
    seconds: float = 0.0
    peak_mb: float = 0.0


class _Watch:
    """Follows a job's phases and the memory of its process."""

    def __init__(self) -> None:
        self.phases: dict[str, _Phase] = {}

    def look(self, job: JobAnswer) -> None:
        _machine.look()
        now = time.perf_counter()
        if job.state != "running":
            return
        phase = self.phases.setdefault(job.phase or "starting", _Phase(now))
        phase.seconds = now - phase.began
        for status in _processes_of(job.id):
            lines = status.splitlines()
            resident = next((line for line in lines if line.startswith("VmRSS:")), "VmRSS: 0 kB")
            phase.peak_mb = max(phase.peak_mb, int(resident.split()[1]) / 1000)


def _processes_of(job: str) -> Iterator[str]:
    """The status of the processes that have a job's id among their arguments."""
    for entry in Path("/proc").iterdir():
        if entry.name.isdigit():
            try:
                if job.encode() in (entry / "cmdline").read_bytes():
                    yield (entry / "status").read_text()
            except OSError:
                continue


class _Typists:
    """Some people who type while something else goes on."""

    def __init__(self, running: Running, lines: Sequence[str]) -> None:
        self._url, self._typed = running.url, requests_of(running.url, running.key, lines)
        self._times: list[Times] = []
        self._stop = threading.Event()
        self._thread = threading.Thread(target=self._type)

    def alone(self, seconds: float) -> Times:
        """Lets them type with nothing going on."""
        self._turn(2.0)
        return self._turn(seconds)

    def start(self) -> None:
        """Lets them type until `stop`."""
        self._thread.start()

    def stop(self) -> Times:
        """Their times; the last turn, in which they stopped, is left out."""
        self._stop.set()
        self._thread.join()
        turns = self._times[:-1]
        milliseconds = [ms for times in turns for ms in times.milliseconds]
        return Times(milliseconds, sum(t.failed for t in turns), sum(t.seconds for t in turns))

    def _type(self) -> None:
        while not self._stop.is_set():
            self._times.append(self._turn(2.0))

    def _turn(self, seconds: float) -> Times:
        return type_away(
            self._url, self._typed, people=TYPISTS, seconds=seconds, pause=BETWEEN_KEYS_S
        )


def file_of(size: str, seed: int, *, changed: bool = False) -> Path:
    """The file of a seed, made once; with a hundredth of its rows changed, or none."""
    file = FOLDER / f"rows-{size}-{seed}{'-changed' if changed else ''}.csv"
    if file.exists():
        return file
    FOLDER.mkdir(parents=True, exist_ok=True)
    partial = file.with_suffix(".partial")
    with partial.open("w", encoding="utf-8", newline="") as opened:
        writer = csv.DictWriter(opened, ROW_COLUMNS)
        writer.writeheader()
        for number, row in enumerate(make_rows(SIZES[size], seed)):
            parts = dict(row.components)
            if changed and number % 100 == 0:
                parts["street"] = f"{parts['street']} Nova"
            writer.writerow(
                {
                    "id": row.id, "country_code": row.country_code, "language": row.language,
                    "latitude": row.latitude, "longitude": row.longitude, "use": row.use, **parts,
                }
            )  # fmt: skip
    partial.rename(file)
    return file


if __name__ == "__main__":
    main()
