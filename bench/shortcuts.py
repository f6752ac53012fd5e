"""What each shortcut of serving is worth: the service with and without it, in turns of one run.

    python -m bench.shortcuts --size 100k
    python -m bench.shortcuts --size 1m --without "counting and timing"     what that costs

A shortcut stays only where p50 or p95 are worse by more than a tenth without it. What is measured:
one person and eight people who type without pauses; the same with few lines, whose answers were
all given lately; and sixty people with 200 ms between keys.
"""

from __future__ import annotations

import time
from contextlib import ExitStack

from anchorline.client import Client

from .load import file_of
from .machine import Machine
from .made_up import make_rows
from .options import SIZES, parser
from .queries import Sample
from .running import service
from .typing import BETWEEN_KEYS_S, Times, requests_of, type_away
from .without.sitecustomize import SHORTCUTS, TAKEN_OUT

LINES = 2000
_TURNS = 10
_WITH = "with all"
# Title, people, lines, pause between keys, seconds of a turn.
_LOADS = (
    ("one person", 1, LINES, 0.0, 1.0),
    ("eight people", 8, LINES, 0.0, 1.0),
    ("eight, the same 150 lines over and over", 8, 150, 0.0, 1.0),
    ("sixty, 200 ms between keys", 60, LINES, BETWEEN_KEYS_S, 2.0),
)


def main() -> None:
    """Loads, measures and prints."""
    options = parser(__doc__)
    options.add_argument("--without", choices=TAKEN_OUT, help="this alone; else each shortcut")
    given = options.parse_args()
    count = SIZES[given.size]
    machine = Machine()
    sample = Sample(lambda: make_rows(count, given.seed), count, given.seed + 1)
    lines = [line for _, line in sample.sessions(LINES)]
    print(f"{count:,} addresses, seed {given.seed}; {_TURNS} turns each")
    for without in [given.without] if given.without else SHORTCUTS:
        with ExitStack() as opened:
            places = {}
            for name, left_out in ((_WITH, ""), ("without", without)):
                running = opened.enter_context(service(left_out))
                client = opened.enter_context(Client(running.url, running.key))
                file = file_of(given.size, given.seed)
                client.datasets.wait(client.datasets.load("made-up", file, activate="always").id)
                places[name] = running.url, requests_of(running.url, running.key, lines)
            time.sleep(2)
            print(f"\n{without}")
            for title, people, kept, pause, seconds in _LOADS:
                found = {name: Times() for name in places}
                for turn in range(_TURNS + 1):
                    machine.look()
                    # Whoever is second finds the machine as the first left it: they take turns.
                    for name in list(places)[:: 1 if turn % 2 else -1]:
                        url, typed = places[name]
                        times = type_away(
                            url,
                            typed[:kept],
                            people=people,
                            seconds=seconds,
                            pause=pause,
                            turn=turn,
                        )
                        if turn:
                            found[name].add(times)
                have, lack = found[_WITH], found["without"]
                print(f"  {title}")
                for name, times in found.items():
                    print(f"    {name:9} {times}")
                print(
                    f"    without it: p50 {lack.at(50) / have.at(50):.2f}, "
                    f"p95 {lack.at(95) / have.at(95):.2f}, "
                    f"throughput {lack.a_second / have.a_second:.2f} times"
                )
    print(f"\nmachine: a small loop took {machine} meanwhile")


if __name__ == "__main__":
    main()
