"""Trying the ways of writing on a practice address, one after the other."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from .report import RunReport
from .run import Run
from .ways import TRIED, WayTried, best_way, tells_of_way


@dataclass(frozen=True, slots=True)
class Found:
    """What came of trying.

    Attributes:
        report: of the last run; the address stands there, or a disturbance stopped it.
        way: of that run.
        best: the way that is best; empty where something came between.
    """

    report: RunReport
    tried: tuple[WayTried, ...]
    way: str
    best: str = ""

    def says(self) -> str:
        """What was tried, in words."""
        return "; ".join(one.says() for one in self.tried)


def try_ways(begin: Callable[[str], Run]) -> Found:
    """Writes in one way after the other, until one is good enough; the best one's text stays.

    Args:
        begin: makes a run that writes in a way.
    """
    tried: list[WayTried] = []
    way = TRIED[0]
    run = begin(way)
    while True:
        report = run.go()
        if not tells_of_way(report):
            return Found(report, tuple(tried), way)
        tried.append(WayTried(way, report.outcome, report.ms))
        if tried[-1].is_enough or len(tried) == len(TRIED):
            break
        if stopped := _taken_back(run):
            return Found(stopped, tuple(tried), way)
        way = TRIED[len(tried)]
        run = begin(way)
    best = best_way(tried)
    if best != way:
        if stopped := _taken_back(run):
            return Found(stopped, tuple(tried), way)
        report = begin(best).go()
    return Found(report, tuple(tried), best, best if tells_of_way(report) else "")


def _taken_back(run: Run) -> RunReport | None:
    """The report of a run that could not be taken back; None where it was."""
    report = run.undo()
    return None if report.stop == "undone" else report
