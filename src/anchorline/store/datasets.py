"""Datasets and their editions."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from sqlalchemy import func, select

from .database import Database, NotThereError
from .schema import DatasetRow, EditionRow


@dataclass(frozen=True, slots=True)
class EditionEntry:
    """What is kept about one edition.

    Attributes:
        report: `unknown_columns` and the first `faults` (line, column, reason).
    """

    dataset: str
    number: int
    source_name: str
    source_digest: str
    rows_used: int
    rows_bad: int
    report: dict[str, Any]


class DatasetStore:
    """Reads and writes datasets."""

    def __init__(self, database: Database) -> None:
        self._database = database

    def next_number(self, dataset: str) -> int:
        """The number of the next edition; makes the dataset where it is new."""
        with self._database.transaction() as session:
            if session.get(DatasetRow, dataset) is None:
                session.add(DatasetRow(name=dataset, active_edition=None))
            highest = session.scalar(
                select(func.max(EditionRow.number)).where(EditionRow.dataset == dataset)
            )
            return (highest or 0) + 1

    def add_edition(self, entry: EditionEntry) -> None:
        """Keeps an edition's entry; AlreadyThereError where the number is taken."""
        with self._database.transaction() as session:
            session.add(
                EditionRow(
                    dataset=entry.dataset,
                    number=entry.number,
                    source_name=entry.source_name,
                    source_digest=entry.source_digest,
                    rows_used=entry.rows_used,
                    rows_bad=entry.rows_bad,
                    report=entry.report,
                    built_at=self._database.now(),
                )
            )

    def activate(self, dataset: str, number: int) -> None:
        """Makes an edition the active one; NotThereError where there is no such edition."""
        with self._database.transaction() as session:
            row = session.get(DatasetRow, dataset, with_for_update=True)
            if row is None or session.get(EditionRow, (dataset, number)) is None:
                raise NotThereError(f"There is no edition {number} of dataset {dataset!r}.")
            row.active_edition = number

    def active(self) -> dict[str, int]:
        """The active edition's number by dataset."""
        with self._database.transaction() as session:
            rows = session.execute(
                select(DatasetRow.name, DatasetRow.active_edition).where(
                    DatasetRow.active_edition.is_not(None)
                )
            )
            return {name: number for name, number in rows if number is not None}
