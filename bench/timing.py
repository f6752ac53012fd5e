"""Timing searches: each text once, several engines in turns, and the lines that say how long."""

from __future__ import annotations

import time
from collections.abc import Callable, Mapping, Sequence

import numpy as np
import numpy.typing as npt

from .machine import Machine

Search = Callable[[str], object]
Times = npt.NDArray[np.float64]

machine = Machine()
_LOOK_EVERY = 20
# So many texts one engine is asked before it is another's turn: long enough for the caches of the
# processor to be its own again, short enough for the machine's speed to be the same for all.
_TURN = 100


def timed(search: Search, texts: Sequence[str]) -> Times:
    """CPU and wall milliseconds of each search, as two columns."""
    found = np.empty((len(texts), 2))
    for place, text in enumerate(texts):
        if place % _LOOK_EVERY == 0:
            machine.look()
        cpu, wall = time.thread_time_ns(), time.perf_counter_ns()
        search(text)
        found[place] = time.thread_time_ns() - cpu, time.perf_counter_ns() - wall
    return found / 1e6


def in_turns(
    searches: Mapping[str, Search], texts: Sequence[str], rarely: Mapping[str, int]
) -> dict[str, Times]:
    """The same texts through several engines, `_TURN` at a time, in the order of the texts.

    Args:
        rarely: engines that are asked every so many texts only.
    """
    found: dict[str, list[Times]] = {name: [] for name in searches}
    for start in range(0, len(texts), _TURN):
        turn = texts[start : start + _TURN]
        for name, search in searches.items():
            found[name].append(timed(search, turn[:: rarely.get(name, 1)]))
    return {name: np.concatenate(times) for name, times in found.items()}


def show(name: str, times: Times, beside: Times | None = None) -> None:
    """Prints percentiles of times, and what share they are of those beside."""
    at = (50, 95, 99)
    cpu = np.percentile(times[:, 0], at)
    wall = np.percentile(times[:, 1], 95)
    line = "{:<30}{:>7}  cpu p50 {:.3f}  p95 {:.3f}  p99 {:.3f}  wall p95 {:.3f}"
    print(line.format(name, len(times), *cpu, wall))
    if beside is not None:
        shares = np.percentile(beside[:, 0], at) / cpu
        print("{:<37}  ours to it: {:.2f}  {:.3f}  {:.3f}".format("", *shares))
