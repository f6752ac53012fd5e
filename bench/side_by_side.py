"""The finder and general text engines, given the same keystrokes and typing errors in turns."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np

from .engines import DatabaseEngine, TextEngine
from .made_up import make_rows
from .queries import Query
from .timing import Search, in_turns, show

OURS = "anchorline"
TYPOS = 100
# SQLite takes up to a second for a keystroke.
SLOW_EVERY = 11


def side_by_side(
    ours: Search, count: int, seed: int, keys: Sequence[str], queries: Sequence[Query]
) -> None:
    """Builds the other engines from the same rows and prints the times of all, and their shares.

    Args:
        keys: keystrokes of whole addresses, in the order in which they are typed.
        queries: of all classes; those with one typing error are taken.
    """
    engines = [make(make_rows(count, seed)) for make in (TextEngine, DatabaseEngine)]
    print()
    for engine in engines:
        print(
            f"{engine.name}: build {engine.build_seconds:.0f} s CPU (rows made included),"
            f" {engine.size / count:.0f} bytes an address"
        )
    searches = {OURS: ours, **{engine.name: engine.search for engine in engines}}
    typos = [query for query in queries if query.name == "one typo"][:TYPOS]
    rarely = {DatabaseEngine.name: SLOW_EVERY}
    for title, texts, rare in (
        ("every keystroke", keys, rarely),
        ("one typo", [query.text for query in typos], {}),
    ):
        times = in_turns(searches, texts, rare)
        print(f"\n{title}, in turns")
        for name, taken in times.items():
            show(f"  {name}", taken, None if name == OURS else times[OURS])
    print()
    for engine in engines:
        hits = [query.target in engine.search(query.text) for query in typos]
        print(f"one typo, {engine.name}: success@8 {np.mean(hits):.3f}")
