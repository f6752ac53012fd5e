"""The service under people who type, next to an empty route under the same load.

    make bench-service                    on a million addresses
    make bench-service SIZE=100k

The empty route runs in a plain Flask application under gunicorn with as many workers and threads.
Both get the same requests from the same machine. First one person without pauses (what an answer
costs), then eight without pauses (throughput; also with few lines, whose answers were all given
lately), then more and more people with 200 ms between keys,
until their p95 passes 50 ms. Before that editions are switched while people type.
"""

from __future__ import annotations

import subprocess
import sys
import threading
import time
from collections.abc import Iterator
from contextlib import contextmanager

from anchorline.client import Client

from .load import file_of
from .machine import Machine
from .made_up import make_rows
from .options import SIZES, parser
from .queries import Sample
from .running import Running, free_port, service, wait_for
from .typing import BETWEEN_KEYS_S, Times, requests_of, type_away

MOST_MS = 50.0
LINES = 4000
_SECONDS = 8.0
_TURNS = 12
Places = dict[str, tuple[str, list[list[bytes]]]]
_machine = Machine()


def main() -> None:
    """Loads, measures and prints."""
    given = parser(__doc__).parse_args()
    count = SIZES[given.size]
    sample = Sample(lambda: make_rows(count, given.seed), count, given.seed + 1)
    lines = [line for _, line in sample.sessions(LINES)]
    with service() as running, Client(running.url, running.key) as client, _empty() as empty:
        for _ in range(2):
            job = client.datasets.load(
                "made-up", file_of(given.size, given.seed), activate="always"
            )
            client.datasets.wait(job.id)
        time.sleep(2)
        places = {
            "suggest": (running.url, requests_of(running.url, running.key, lines)),
            "empty route": (empty, requests_of(empty, running.key, lines)),
        }
        distinct = {request for typed in places["suggest"][1] for request in typed}
        print(f"{count:,} addresses, seed {given.seed}")
        print(f"{LINES:,} lines typed key by key: {len(distinct):,} different requests")
        for title, people, kept in (
            ("one person, no pauses", 1, LINES),
            ("eight, no pauses", 8, LINES),
            ("eight, no pauses, 150 lines over and over", 8, 150),
        ):
            print(f"\n{title}")
            found = _measure(
                {name: (url, typed[:kept]) for name, (url, typed) in places.items()}, people
            )
            for name, times in found.items():
                print(f"  {name:12} {times}")
            ours, theirs = found["suggest"], found["empty route"]
            print(
                f"  ratio: p50 {ours.at(50) / theirs.at(50):.2f}, "
                f"throughput {theirs.a_second / ours.a_second:.2f}"
            )
        # Before the service is overloaded: what then waits would be measured with it.
        _switch(client, running, places["suggest"][1])
        _hold(places)
    print(f"\nmachine: a small loop took {_machine} meanwhile")


def _measure(places: Places, people: int) -> dict[str, Times]:
    """Without pauses; both in short turns, because the machine's speed changes within minutes."""
    found = {name: Times() for name in places}
    for turn in range(_TURNS + 1):
        _machine.look()
        for name, (url, typed) in places.items():
            times = type_away(url, typed, people=people, seconds=1, pause=0, turn=turn)
            if turn:
                found[name].add(times)
    return found


def _hold(places: Places) -> None:
    """More and more people, until the 95th percentile is too slow."""
    print(f"\nwith {1000 * BETWEEN_KEYS_S:.0f} ms between keys")
    people, held = 50, dict.fromkeys(places, 0)
    left = dict(places)
    while left and people <= 3200:
        for name, (url, typed) in list(left.items()):
            _machine.look()
            times = type_away(url, typed, people=people, seconds=_SECONDS, pause=BETWEEN_KEYS_S)
            print(f"  {people:5} people  {name:12} {times}")
            if times.at(95) > MOST_MS or times.failed:
                del left[name]
            else:
                held[name] = people
        people = int(people * 1.5)
    for name, most in held.items():
        print(f"  {name}: held below {MOST_MS:.0f} ms at p95: {most} people")


def _switch(client: Client, running: Running, typed: list[list[bytes]]) -> None:
    """Another edition every second while people type."""
    stop = threading.Event()

    def switch() -> None:
        turn = 0
        while not stop.wait(1.0):
            client.datasets.activate("made-up", 1 + turn % 2)
            turn += 1

    switching = threading.Thread(target=switch)
    switching.start()
    times = type_away(running.url, typed, people=20, seconds=12, pause=BETWEEN_KEYS_S)
    stop.set()
    switching.join()
    print(f"\nanother edition every second, 20 people\n  suggest      {times}")


@contextmanager
def _empty() -> Iterator[str]:
    """The empty route, served as the service is; its address."""
    port = free_port()
    process = subprocess.Popen(
        [sys.executable, "-m", "gunicorn", "--no-control-socket", "--worker-class", "gthread",
         "--workers", "2", "--threads", "4", "--keep-alive", "15", "--log-level", "warning",
         "--bind", f"127.0.0.1:{port}", "bench.empty_route:app"]
    )  # fmt: skip
    try:
        wait_for(f"http://127.0.0.1:{port}/api/v1/suggest")
        yield f"http://127.0.0.1:{port}"
    finally:
        process.terminate()
        process.wait()


if __name__ == "__main__":
    main()
