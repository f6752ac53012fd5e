"""Fetching the next pieces in a thread while the ones before are worked on.

Waiting for the database and (un)zipping release the interpreter, so the thread hardly slows the
work beside it.
"""

from __future__ import annotations

from collections import deque
from collections.abc import Callable, Iterable, Iterator
from concurrent.futures import Future, ThreadPoolExecutor
from types import TracebackType
from typing import TypeVar

_Piece = TypeVar("_Piece")
_MOST_WAITING = 3
_END = object()


def prefetch(pieces: Iterable[_Piece]) -> Iterator[_Piece]:
    """The same pieces in the same order, fetched by a thread a few at a time."""
    waiting = iter(pieces)
    with ThreadPoolExecutor(1, "prefetch") as fetcher:
        fetches: deque[Future[object]] = deque(
            fetcher.submit(next, waiting, _END) for _ in range(_MOST_WAITING)
        )
        while (piece := fetches.popleft().result()) is not _END:
            fetches.append(fetcher.submit(next, waiting, _END))
            yield piece  # type: ignore[misc]


class BackgroundSteps:
    """Runs steps in a thread, in the order in which they are submitted.

    At most a few wait; submitting one more blocks.

    What goes wrong in one is raised when the next ones are given, or at the end.
    """

    def __init__(self) -> None:
        self._thread = ThreadPoolExecutor(1, "background-steps")
        self._submitted: deque[Future[None]] = deque()

    def __enter__(self) -> BackgroundSteps:
        return self

    def __exit__(
        self,
        kind: type[BaseException] | None,
        error: BaseException | None,
        trace: TracebackType | None,
    ) -> None:
        try:
            while kind is None and self._submitted:
                self._submitted.popleft().result()
        finally:
            self._thread.shutdown(cancel_futures=True)

    def submit(self, step: Callable[[], None]) -> None:
        """Gives one thing to do; waits while too many are undone."""
        self._submitted.append(self._thread.submit(step))
        while len(self._submitted) > _MOST_WAITING or (
            self._submitted and self._submitted[0].done()
        ):
            self._submitted.popleft().result()
