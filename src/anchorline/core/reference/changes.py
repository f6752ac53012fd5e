"""Changes to an edition: rows to put in or replace, and ids to take out.

A row that is put replaces the names of its address in its own language and one without a
language; a row without a language replaces all of them. Taking out takes out all of them.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator

from ..gazetteer.rows import RowBlock


class ChangeSet:
    """The ids that a file of changes touches.

    Attributes:
        drops: the ids to take out, by the line that asks for it.
    """

    def __init__(self) -> None:
        self.drops: dict[str, int] = {}
        self._puts: dict[str, set[str]] = {}
        self._dropped: set[str] = set()

    def add(self, puts: RowBlock, drops: Iterable[tuple[str, int]]) -> None:
        """Takes in a part of the file: rows put, and ids to drop with their lines."""
        for row_id, language in _names(puts):
            self._puts.setdefault(row_id, set()).add(language)
        self.drops.update(drops)

    def remaining(self, block: RowBlock) -> RowBlock:
        """The rows of a block of the base that stay; the same block where all of them do."""
        ids = block.texts["id"]
        touched = {row_id for row_id in ids if row_id in self._puts or row_id in self.drops}
        if not touched:
            return block
        self._dropped.update(touched)
        kept = [i for i, name in enumerate(_names(block)) if not self._goes(*name)]
        return block if len(kept) == len(block) else block.take(kept)

    def _goes(self, row_id: str, language: str) -> bool:
        if row_id in self.drops:
            return True
        put = self._puts.get(row_id)
        return put is not None and ("" in put or not language or language in put)

    def not_found(self) -> list[tuple[str, int]]:
        """The ids to drop that no block had, with their lines."""
        return [
            (row_id, line) for row_id, line in self.drops.items() if row_id not in self._dropped
        ]


def _names(block: RowBlock) -> Iterator[tuple[str, str]]:
    """The id and the language of each row."""
    ids = block.texts["id"]
    return zip(ids, block.texts.get("language", [""] * len(ids)), strict=True)
