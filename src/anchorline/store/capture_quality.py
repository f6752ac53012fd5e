"""How well capture goes: counts per form and target and day, and what was not found."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import date, datetime, timedelta

from sqlalchemy import func, select
from sqlalchemy.dialects.mysql import insert
from sqlalchemy.orm import Session

from anchorline.core.capture_counts import COUNTED

from .database import Database
from .schema_calls import CaptureDayRow, NotFoundRow

# What was not found is forgotten when nobody has searched it for so long.
NOT_FOUND_REMEMBERED = timedelta(days=90)
# A page that goes wild fills no more than this.
_MOST_NOT_FOUND = 2_000
_MOST_SHOWN = 50


@dataclass(frozen=True, slots=True)
class CaptureDay:
    """What was counted on a day (UTC): by the keys of `core.capture_counts.COUNTED`."""

    kind: str
    name: str
    day: date
    counts: Mapping[str, int]


@dataclass(frozen=True, slots=True)
class NotFoundText:
    """What was searched and not found; `text` None where only its digest is kept."""

    kind: str
    name: str
    digest: str
    text: str | None
    count: int
    last_at: datetime


class CaptureQuality:
    """Adds and lists counts."""

    def __init__(self, database: Database) -> None:
        self._database = database

    def add(
        self,
        kind: str,
        name: str,
        counts: Mapping[str, int],
        not_found: Mapping[str, str | None],
    ) -> None:
        """Adds what a page has counted to today's counts.

        Args:
            kind: `form` or `target`.
            not_found: by their digests; None for those of which the text is not kept.
        """
        now, row, seen = self._database.now(), CaptureDayRow, NotFoundRow

        def work(session: Session) -> None:
            day = insert(row).values(
                kind=kind, name=name, day=now.date(), **{one: counts[one] for one in COUNTED}
            )
            more = {one: getattr(row, one) + counts[one] for one in COUNTED}
            session.execute(
                day.on_duplicate_key_update({getattr(row, one).name: more[one] for one in COUNTED})
            )
            there = select(func.count()).where(seen.kind == kind, seen.name == name)
            if not not_found or (session.scalar(there) or 0) >= _MOST_NOT_FOUND:
                return
            for digest, text in sorted(not_found.items()):
                one = insert(seen).values(
                    kind=kind, name=name, digest=digest, text=text, count=1, last_at=now
                )
                kept = func.coalesce(one.inserted.text, seen.text)
                session.execute(
                    one.on_duplicate_key_update(count=seen.count + 1, last_at=now, text=kept)
                )

        self._database.run(work)

    def list(
        self, kind: str | None, name: str | None, since: date, until: date
    ) -> tuple[Sequence[CaptureDay], Sequence[NotFoundText]]:
        """The days with counts, the oldest first; and what was not found most often."""
        row, seen = CaptureDayRow, NotFoundRow
        days = select(row).where(row.day >= since, row.day <= until)
        texts = select(seen)
        if kind is not None:
            days, texts = days.where(row.kind == kind), texts.where(seen.kind == kind)
        if name is not None:
            days, texts = days.where(row.name == name), texts.where(seen.name == name)
        most = texts.order_by(seen.count.desc(), seen.last_at.desc()).limit(_MOST_SHOWN)

        def work(session: Session) -> tuple[Sequence[CaptureDay], Sequence[NotFoundText]]:
            listed = [
                CaptureDay(
                    one.kind, one.name, one.day, {name: getattr(one, name) for name in COUNTED}
                )
                for one in session.scalars(days.order_by(row.day, row.kind, row.name))
            ]
            return listed, [
                NotFoundText(one.kind, one.name, one.digest, one.text, one.count, one.last_at)
                for one in session.scalars(most)
            ]

        return self._database.run(work)
