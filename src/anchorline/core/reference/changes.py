"""Changes to an edition: rows to put in or replace, and ids to take out."""

from __future__ import annotations

from collections.abc import Iterable

from ..gazetteer.rows import RowBlock


class ChangeSet:
    """The ids that a file of changes touches.

    Attributes:
        drops: the ids to take out, by the line that asks for it.
    """

    def __init__(self) -> None:
        self.drops: dict[str, int] = {}
        self._puts: set[str] = set()
        self._dropped: set[str] = set()

    def add(self, puts: Iterable[str], drops: Iterable[tuple[str, int]]) -> None:
        """Takes in a part of the file: ids put, and ids to drop with their lines."""
        self._puts.update(puts)
        self.drops.update(drops)

    def remaining(self, block: RowBlock) -> RowBlock:
        """The rows of a block of the base that stay; the same block where all of them do."""
        ids = block.texts["id"]
        touched = self._puts.union(self.drops).intersection(ids)
        if not touched:
            return block
        self._dropped.update(touched)
        return block.take([i for i, row_id in enumerate(ids) if row_id not in touched])

    def not_found(self) -> list[tuple[str, int]]:
        """The ids to drop that no block had, with their lines."""
        return [
            (row_id, line) for row_id, line in self.drops.items() if row_id not in self._dropped
        ]
