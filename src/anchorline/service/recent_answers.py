"""A cache of recent answers: many people begin with the same letters."""

from __future__ import annotations

from dataclasses import dataclass

# About 1.5 kB each, so a process holds some 6 MB of them.
ANSWERS_KEPT = 4096


@dataclass(frozen=True, slots=True)
class KeptAnswer:
    """A body as it is sent, and its ETag."""

    etag: str
    body: bytes


class RecentAnswers:
    """Keeps the answers asked for lately, between half and all of `size`.

    Two generations: what is asked for moves into the young one, and when that is full the old one
    is dropped. Single steps on dictionaries need no lock.
    """

    def __init__(self, size: int = ANSWERS_KEPT) -> None:
        self._half = size // 2
        self._young: dict[tuple[str, bytes], KeptAnswer] = {}
        self._old: dict[tuple[str, bytes], KeptAnswer] = {}

    def get(self, stamp: str, query: bytes) -> KeptAnswer | None:
        """The answer of these editions to a query, if it was given lately."""
        key = (stamp, query)
        kept = self._young.get(key)
        if kept is None:
            kept = self._old.get(key)
            if kept is not None:
                self._put(key, kept)
        return kept

    def put(self, stamp: str, query: bytes, answer: KeptAnswer) -> None:
        """Keeps an answer."""
        self._put((stamp, query), answer)

    def _put(self, key: tuple[str, bytes], answer: KeptAnswer) -> None:
        if len(self._young) >= self._half:
            self._old, self._young = self._young, {}
        self._young[key] = answer
