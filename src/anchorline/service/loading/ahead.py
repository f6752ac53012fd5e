"""Fetching the next pieces while the ones before are worked on.

Waiting for the database and (un)zipping leave the interpreter free, so a thread that does them
costs the work beside it next to nothing.
"""

from __future__ import annotations

from collections import deque
from collections.abc import Callable, Iterable, Iterator
from concurrent.futures import Future, ThreadPoolExecutor
from types import TracebackType
from typing import TypeVar

_Piece = TypeVar("_Piece")
_AHEAD = 3
_END = object()


def ahead(pieces: Iterable[_Piece]) -> Iterator[_Piece]:
    """The same pieces in the same order, fetched by a thread a few at a time."""
    waiting = iter(pieces)
    with ThreadPoolExecutor(1, "ahead") as fetcher:
        asked: deque[Future[object]] = deque(
            fetcher.submit(next, waiting, _END) for _ in range(_AHEAD)
        )
        while (piece := asked.popleft().result()) is not _END:
            asked.append(fetcher.submit(next, waiting, _END))
            yield piece  # type: ignore[misc]


class Behind:
    """Does things in the order in which they are given, in a thread, a few behind.

    What goes wrong in one is raised when the next ones are given, or at the end.
    """

    def __init__(self) -> None:
        self._thread = ThreadPoolExecutor(1, "behind")
        self._given: deque[Future[None]] = deque()

    def __enter__(self) -> Behind:
        return self

    def __exit__(
        self,
        kind: type[BaseException] | None,
        error: BaseException | None,
        trace: TracebackType | None,
    ) -> None:
        try:
            while kind is None and self._given:
                self._given.popleft().result()
        finally:
            self._thread.shutdown(cancel_futures=True)

    def do(self, step: Callable[[], None]) -> None:
        """Gives one thing to do; waits while too many are undone."""
        self._given.append(self._thread.submit(step))
        while len(self._given) > _AHEAD or (self._given and self._given[0].done()):
            self._given.popleft().result()
