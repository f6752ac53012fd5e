"""Datasets, their rules, and their editions."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import asdict, dataclass, field
from datetime import datetime
from typing import Any

from sqlalchemy import delete, insert, select
from sqlalchemy.orm import Session

from anchorline.core.reference.comparison import MOVED_M

from .cursors import Cursor, KeysetPage, cut
from .database import Database, InUseError, NotThereError
from .job_model import OPEN_STATES
from .schema import DatasetRow, EditionRow, JobRow


@dataclass(frozen=True, slots=True)
class DatasetRules:
    """How a dataset's loads are treated, as its steward set it.

    Attributes:
        bad_share: the share of rows, 0 to 1, that may be bad before a load is stopped.
        automatic: whether an edition becomes active by itself where it keeps to the limits.
        gone_share, changed_share, moved_share: these limits, shares of the active edition.
        moved_m: metres from which an address counts as moved.
        keep: how many of the newest editions are kept beside the active one and the one before.
    """

    bad_share: float = 0.05
    automatic: bool = False
    gone_share: float = 0.02
    changed_share: float = 0.1
    moved_share: float = 0.05
    moved_m: float = MOVED_M
    keep: int = 3


@dataclass(frozen=True, slots=True)
class Dataset:
    """A dataset; `previous` is the edition that was active before."""

    name: str
    active: int | None
    previous: int | None
    rules: DatasetRules


@dataclass(frozen=True, slots=True)
class EditionEntry:
    """What is kept about one edition.

    Attributes:
        report: `unknown_columns`, and `findings` as `Findings.to_document` makes them.
        job: the job whose rows it is built from; None for editions of before there were jobs.
        changes_to: the edition that it is made of changes to; None for a whole one.
        comparison: with the edition that was active then, as `Comparison.to_document` makes it.
        addresses: fewer than rows where some are the same address in another language.
        index_bytes, rows_bytes: what its index and its rows take.
    """

    dataset: str
    number: int
    source_name: str
    source_digest: str
    rows_used: int
    rows_bad: int
    report: dict[str, Any] = field(default_factory=dict)
    job: str | None = None
    changes_to: int | None = None
    comparison: dict[str, Any] | None = None
    addresses: int = 0
    index_bytes: int = 0
    rows_bytes: int = 0
    built_at: datetime | None = None
    activated_at: datetime | None = None


_FIELDS: tuple[str, ...] = tuple(EditionEntry.__dataclass_fields__)


def make_dataset(session: Session, name: str) -> None:
    """Makes a dataset where it is new; several may do so at once."""
    if session.get(DatasetRow, name) is None:
        new = insert(DatasetRow).values(name=name, active_edition=None)
        session.execute(new.prefix_with("IGNORE"))


class DatasetStore:
    """Reads and writes datasets."""

    def __init__(self, database: Database) -> None:
        self._database = database

    def list(self) -> Sequence[Dataset]:
        """All datasets by name."""

        def work(session: Session) -> Sequence[Dataset]:
            rows = session.scalars(select(DatasetRow).order_by(DatasetRow.name))
            return [_dataset(row) for row in rows]

        return self._database.run(work)

    def page(self, limit: int, after: str | None = None) -> KeysetPage[Dataset]:
        """Some of them, in the same order.

        Args:
            after: the cursor of the page before.

        Raises:
            BadCursorError: it was not handed out by this list.
        """
        cursor = Cursor("datasets")
        query = select(DatasetRow).order_by(DatasetRow.name).limit(limit + 1)
        if after is not None:
            query = query.where(DatasetRow.name > cursor.read(after, str)[0])
        found = self._database.run(lambda session: list(map(_dataset, session.scalars(query))))
        return cut(found, limit, cursor, lambda dataset: (dataset.name,))

    def get(self, name: str) -> Dataset:
        """A dataset; NotThereError where there is none."""

        def work(session: Session) -> Dataset:
            return _dataset(_required(session, name))

        return self._database.run(work)

    def set_rules(self, name: str, rules: DatasetRules) -> Dataset:
        """Sets a dataset's rules; makes it where it is new."""

        def work(session: Session) -> Dataset:
            make_dataset(session, name)
            row = session.get_one(DatasetRow, name, with_for_update=True)
            row.rules = asdict(rules)
            session.flush()
            return _dataset(row)

        return self._database.run(work)

    def give_number(self, dataset: str) -> int:
        """The number for a new edition; none is given twice."""

        def work(session: Session) -> int:
            row = _required(session, dataset, lock=True)
            row.numbers_given += 1
            return row.numbers_given

        return self._database.run(work)

    def editions(self, dataset: str) -> Sequence[EditionEntry]:
        """The editions that are kept, newest first."""

        def work(session: Session) -> Sequence[EditionEntry]:
            rows = session.scalars(
                select(EditionRow)
                .where(EditionRow.dataset == dataset)
                .order_by(EditionRow.number.desc())
            )
            return [_edition(row) for row in rows]

        return self._database.run(work)

    def edition(self, dataset: str, number: int) -> EditionEntry:
        """An edition; NotThereError where there is none."""

        def work(session: Session) -> EditionEntry:
            row = session.get(EditionRow, (dataset, number))
            if row is None:
                raise NotThereError(_no_edition(dataset, number))
            return _edition(row)

        return self._database.run(work)

    def put_edition(self, entry: EditionEntry) -> None:
        """Keeps an edition's entry, in place of one with the same number."""
        values = {name: getattr(entry, name) for name in _FIELDS}
        values["built_at"] = entry.built_at or self._database.now()

        def work(session: Session) -> None:
            session.merge(EditionRow(**values))

        self._database.run(work)

    def set_index_bytes(self, dataset: str, number: int, size: int) -> None:
        """Notes what an edition's index takes on disk."""

        def work(session: Session) -> None:
            row = session.get(EditionRow, (dataset, number))
            if row is None:
                raise NotThereError(_no_edition(dataset, number))
            row.index_bytes = size

        self._database.run(work)

    def activate(self, dataset: str, number: int) -> None:
        """Makes an edition the active one; NotThereError where there is no such edition."""

        def work(session: Session) -> None:
            row = session.get(DatasetRow, dataset, with_for_update=True)
            edition = session.get(EditionRow, (dataset, number))
            if row is None or edition is None:
                raise NotThereError(_no_edition(dataset, number))
            if row.active_edition != number:
                row.previous_edition, row.active_edition = row.active_edition, number
                edition.activated_at = self._database.now()

        self._database.run(work)

    def remove_edition(self, dataset: str, number: int) -> None:
        """Takes out an edition's entry, unless it is the active one."""

        def work(session: Session) -> None:
            row = _required(session, dataset, lock=True)
            if row.active_edition == number:
                raise NotThereError(f"Edition {number} of {dataset} is active; it stays.")
            if row.previous_edition == number:
                row.previous_edition = None
            session.execute(
                delete(EditionRow).where(EditionRow.dataset == dataset, EditionRow.number == number)
            )

        self._database.run(work)

    def remove(self, name: str) -> None:
        """Takes out a dataset with its editions' entries, its jobs and their rows, all or nothing.

        Raises:
            NotThereError: there is no such dataset.
            InUseError: work on it is going on.
        """

        def work(session: Session) -> None:
            row = _required(session, name, lock=True)
            working = select(JobRow.id).where(JobRow.dataset == name, JobRow.state.in_(OPEN_STATES))
            if session.scalar(working.limit(1)) is not None:
                raise InUseError(
                    f"Work on the dataset {name!r} is going on. Wait for it, or cancel it first."
                )
            session.execute(delete(EditionRow).where(EditionRow.dataset == name))
            session.execute(delete(JobRow).where(JobRow.dataset == name))
            session.delete(row)

        self._database.run(work)

    def active(self) -> dict[str, int]:
        """The active edition's number by dataset."""

        def work(session: Session) -> dict[str, int]:
            rows = session.execute(
                select(DatasetRow.name, DatasetRow.active_edition).where(
                    DatasetRow.active_edition.is_not(None)
                )
            )
            return {name: number for name, number in rows if number is not None}

        return self._database.run(work)


def superfluous(dataset: Dataset, numbers: Sequence[int]) -> list[int]:
    """The editions that the rule of `keep` does not keep: the oldest."""
    staying = {dataset.active, dataset.previous}
    others = sorted((n for n in numbers if n not in staying), reverse=True)
    return others[dataset.rules.keep :]


def _required(session: Session, name: str, *, lock: bool = False) -> DatasetRow:
    row = session.get(DatasetRow, name, with_for_update=lock or None)
    if row is None:
        raise NotThereError(f"There is no dataset {name!r}.")
    return row


def _no_edition(dataset: str, number: int) -> str:
    return f"There is no edition {number} of dataset {dataset!r}."


def _dataset(row: DatasetRow) -> Dataset:
    return Dataset(
        row.name, row.active_edition, row.previous_edition, DatasetRules(**(row.rules or {}))
    )


def _edition(row: EditionRow) -> EditionEntry:
    return EditionEntry(**{name: getattr(row, name) for name in _FIELDS})
