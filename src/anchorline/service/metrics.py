"""Counts and times of answers, in memory that the processes of the service share.

Labels come from closed lists (the application's endpoints, the methods and statuses of HTTP), so
nobody can make series by asking for what there is not, and everything has its place beforehand.
Each process writes to a part of its own; a process that follows a dead one goes on counting there.
"""

from __future__ import annotations

import threading
from bisect import bisect_left
from collections.abc import Iterable, Iterator, Sequence
from http import HTTPStatus

from prometheus_client import CollectorRegistry, generate_latest
from prometheus_client.core import CounterMetricFamily, HistogramMetricFamily
from prometheus_client.registry import Collector

from .serving.board import shared_numbers

NONE = "none"
OTHER = "other"
METHODS = ("GET", "HEAD", "POST", "PUT", "PATCH", "DELETE", "OPTIONS", OTHER)
STATUSES = (*(status.value for status in HTTPStatus if status >= 200), 0)
SECONDS = (0.001, 0.0025, 0.005, 0.01, 0.025, 0.05, 0.1, 0.25, 0.5, 1.0, 2.5, 10.0)


class Metrics(Collector):
    """The counts of all processes.

    Args:
        endpoints: the names of all endpoints that the application has.
        processes: how many processes write.
    """

    def __init__(self, endpoints: Iterable[str], processes: int = 1) -> None:
        self._endpoints = [*sorted(set(endpoints)), NONE]
        self._rows = {name: place for place, name in enumerate(self._endpoints)}
        self._methods = {name: place for place, name in enumerate(METHODS)}
        self._statuses = {status: place for place, status in enumerate(STATUSES)}
        # Of an endpoint: answers by method and status, by how long they took, and the sum of that.
        self._by_label = len(METHODS) * len(STATUSES)
        self._width = self._by_label + len(SECONDS) + 2
        self._size = self._width * len(self._endpoints)
        self._numbers = shared_numbers(self._size * processes)
        self._processes = processes
        self._first = 0
        self._lock = threading.Lock()

    def be_process(self, number: int) -> None:
        """Says which of the processes this one is."""
        self._first = number * self._size

    def count(self, endpoint: str, method: str, status: int, seconds: float) -> None:
        """Counts and times one answer."""
        row = self._first + self._width * self._rows.get(endpoint, len(self._rows) - 1)
        label = self._methods.get(method, len(METHODS) - 1) * len(STATUSES)
        label += self._statuses.get(status, len(STATUSES) - 1)
        timed = row + self._by_label
        numbers = self._numbers
        with self._lock:
            numbers[row + label] += 1
            numbers[timed + bisect_left(SECONDS, seconds)] += 1
            numbers[timed + len(SECONDS) + 1] += seconds

    def text(self) -> bytes:
        """Everything in Prometheus' text format."""
        registry = CollectorRegistry(auto_describe=False)
        registry.register(self)
        return generate_latest(registry)

    def collect(self) -> Iterator[CounterMetricFamily | HistogramMetricFamily]:
        """The families, as prometheus_client asks for them."""
        sums = self._sums()
        answers = CounterMetricFamily(
            "anchorline_requests", "Requests answered", labels=["endpoint", "method", "status"]
        )
        times = HistogramMetricFamily(
            "anchorline_request_seconds",
            "Seconds from a request's arrival to its answer",
            labels=["endpoint"],
        )
        for place, endpoint in enumerate(self._endpoints):
            row = sums[place * self._width : (place + 1) * self._width]
            for label, number in enumerate(row[: self._by_label]):
                if number:
                    method, status = divmod(label, len(STATUSES))
                    said = str(STATUSES[status] or OTHER)
                    answers.add_metric([endpoint, METHODS[method], said], number)
            counts = row[self._by_label : -1]
            if any(counts):
                times.add_metric([endpoint], _cumulated(counts), sum_value=row[-1])
        yield answers
        yield times

    def _sums(self) -> list[float]:
        parts = [
            self._numbers[number * self._size : (number + 1) * self._size].tolist()
            for number in range(self._processes)
        ]
        return [sum(numbers) for numbers in zip(*parts, strict=True)]


def _cumulated(counts: Sequence[float]) -> list[tuple[str, float]]:
    """Counts by the upper ends of their buckets, each with those below it."""
    ends, total, buckets = [*map(str, SECONDS), "+Inf"], 0.0, []
    for end, number in zip(ends, counts, strict=True):
        total += number
        buckets.append((end, total))
    return buckets
