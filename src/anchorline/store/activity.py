"""Activity: the calls of the last days, and for which of them question and answer are kept."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from datetime import datetime, timedelta
from typing import NamedTuple

import orjson
from sqlalchemy import Select, delete, select, text
from sqlalchemy.orm import Session

from .database import Database
from .schema_calls import ActivityRow, ObservationRow

# Statuses of each outcome, the last one not included.
OUTCOMES: dict[str, tuple[int, int]] = {
    "answered": (100, 400),
    "refused": (400, 500),
    "failed": (500, 600),
}
LONGEST_OBSERVATION = timedelta(hours=24)
_BATCH = 1_000
# One value for all rows: taking them apart is the database's work, which costs a tenth of what
# writing each value into a statement would.
_KEEP = text("""
    INSERT INTO activity
        (at, subject, origin, endpoint, document, status, ms, question, answer)
    SELECT FROM_UNIXTIME(call_at), subject, origin, endpoint, document, status, ms, question, answer
    FROM JSON_TABLE(:rows, '$[*]' COLUMNS (
        place FOR ORDINALITY,
        call_at DECIMAL(20, 6) PATH '$[0]', subject VARCHAR(80) PATH '$[1]',
        origin VARCHAR(200) PATH '$[2]', endpoint VARCHAR(80) PATH '$[3]',
        document VARCHAR(64) PATH '$[4]', status INT PATH '$[5]', ms DOUBLE PATH '$[6]',
        question LONGTEXT PATH '$[7]', answer LONGTEXT PATH '$[8]'
    )) AS calls
    ORDER BY place
""")


class NewCall(NamedTuple):
    """A call that is not kept yet: made at every keystroke, so no more than a tuple.

    Attributes:
        at: seconds since 1970, UTC.
        subject, origin, of, question, answer: as of a `Call`.
    """

    at: float
    subject: str
    origin: str
    endpoint: str
    of: str
    status: int
    ms: float
    question: str | None = None
    answer: str | None = None


@dataclass(frozen=True, slots=True)
class Call:
    """One call.

    Attributes:
        id: its place in the order in which calls were kept.
        subject: a key's id, a form's page, people who are signed in; empty for nobody known.
        origin: of the page that called; empty where none was told.
        of: the form or target that it was about; empty for none.
        question, answer: whole, where somebody observes; None otherwise.
    """

    at: datetime
    subject: str
    origin: str
    endpoint: str
    of: str
    status: int
    ms: float
    question: str | None
    answer: str | None
    id: int


@dataclass(frozen=True, slots=True)
class WantedCalls:
    """Which calls are looked for; what is None is not looked at.

    Attributes:
        outcome: a key of OUTCOMES.
        after, before: ids, neither of them included.
    """

    subject: str | None = None
    endpoint: str | None = None
    of: str | None = None
    origin: str | None = None
    outcome: str | None = None
    since: datetime | None = None
    until: datetime | None = None
    after: int | None = None
    before: int | None = None


@dataclass(frozen=True, slots=True)
class Observation:
    """A key or target of which question and answer are kept until some time."""

    kind: str
    name: str
    until: datetime
    by: str


class ActivityStore:
    """Keeps and finds calls."""

    def __init__(self, database: Database) -> None:
        self._database = database

    def keep(self, calls: Sequence[NewCall]) -> None:
        """Keeps calls in their order."""
        rows = orjson.dumps(
            [
                (
                    one.at,
                    one.subject[:80],
                    one.origin[:200],
                    one.endpoint[:80],
                    one.of[:64],
                    *one[5:],
                )
                for one in calls
            ]
        ).decode()

        def work(session: Session) -> None:
            session.execute(_KEEP, {"rows": rows})

        self._database.run(work)

    def find(self, wanted: WantedCalls, limit: int) -> Sequence[Call]:
        """The latest calls that are wanted, the latest first; after an id the oldest of those."""
        return self._some(wanted, limit, oldest=wanted.after is not None)

    def each(self, wanted: WantedCalls) -> Iterator[Call]:
        """All calls that are wanted, the oldest first."""
        at = wanted.after or 0
        while True:
            next_ones = replace(wanted, after=at)
            found = self._some(next_ones, _BATCH, oldest=True)
            yield from found
            if len(found) < _BATCH:
                return
            at = found[-1].id

    def _some(self, wanted: WantedCalls, limit: int, *, oldest: bool) -> Sequence[Call]:
        order = ActivityRow.id.asc() if oldest else ActivityRow.id.desc()

        def work(session: Session) -> Sequence[Call]:
            rows = session.scalars(_query(wanted).order_by(order).limit(limit))
            return [_call(row) for row in rows]

        return self._database.run(work)

    def observe(self, kind: str, name: str, until: datetime, by: str) -> None:
        """Has question and answer kept until then; a time that is over ends it."""
        row = ObservationRow

        def work(session: Session) -> None:
            session.execute(
                delete(row).where(
                    (row.until <= self._database.now()) | ((row.kind == kind) & (row.name == name))
                )
            )
            if until > self._database.now():
                session.add(row(kind=kind, name=name, until=until, by=by))

        self._database.run(work)

    def observations(self) -> Sequence[Observation]:
        """What is observed now."""
        row = ObservationRow

        def work(session: Session) -> Sequence[Observation]:
            query = select(row).where(row.until > self._database.now())
            rows = session.scalars(query.order_by(row.kind, row.name))
            return [Observation(one.kind, one.name, one.until, one.by) for one in rows]

        return self._database.run(work)


def _query(wanted: WantedCalls) -> Select[ActivityRow]:
    row = ActivityRow
    query = select(row)
    for column, value in (
        (row.subject, wanted.subject),
        (row.endpoint, wanted.endpoint),
        (row.of, wanted.of),
        (row.origin, wanted.origin),
    ):
        if value is not None:
            query = query.where(column == value)
    if wanted.outcome is not None:
        low, high = OUTCOMES[wanted.outcome]
        query = query.where(row.status >= low, row.status < high)
    if wanted.since is not None:
        query = query.where(row.at >= wanted.since)
    if wanted.until is not None:
        query = query.where(row.at < wanted.until)
    if wanted.after is not None:
        query = query.where(row.id > wanted.after)
    if wanted.before is not None:
        query = query.where(row.id < wanted.before)
    return query


def _call(row: ActivityRow) -> Call:
    return Call(
        row.at,
        row.subject,
        row.origin,
        row.endpoint,
        row.of,
        row.status,
        row.ms,
        row.question,
        row.answer,
        row.id,
    )
