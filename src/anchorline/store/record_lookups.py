"""Looking records up for forms: for links to them, and for what depends on a form's changes."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

from sqlalchemy import ColumnElement, String, cast, func, or_, select
from sqlalchemy.orm import Session

from .database import COLLATION, Database
from .schema import RecordAddressRow, RecordRow


class RecordLookups:
    """Looks into records."""

    def __init__(self, database: Database) -> None:
        self._database = database

    def choices(
        self, form: str, shows: str | None, text: str, limit: int, searches: Sequence[str] = ()
    ) -> list[tuple[str, str]]:
        """Records of a form to choose from: their ids, and what is shown of them.

        Args:
            shows: the key of the field whose values are shown; None for the records' labels.
            text: its words stand in what is shown; empty for all.
            searches: keys of other fields that are searched as well, and shown behind it.
        """
        shown = _all_shown(shows, searches)
        query = select(RecordRow.id, shown).where(
            RecordRow.form == form, _shown(shows).is_not(None)
        )
        for word in text.split():
            query = query.where(shown.contains(word, autoescape=True))

        def work(session: Session) -> list[tuple[str, str]]:
            rows = session.execute(query.order_by(shown, RecordRow.id).limit(limit))
            return [(identifier, str(said)) for identifier, said in rows]

        return self._database.run(work)

    def shown(
        self, identifier: str, form: str, shows: str | None, searches: Sequence[str] = ()
    ) -> str | None:
        """What is shown of a record of a form; None where there is no such record."""
        query = select(_all_shown(shows, searches), RecordRow.label)
        query = query.where(RecordRow.id == identifier, RecordRow.form == form)

        def work(session: Session) -> str | None:
            found = session.execute(query).first()
            return None if found is None else str(found[0] or found[1])

        return self._database.run(work)

    def having(self, form: str, texts: Mapping[str, str]) -> tuple[str, str] | None:
        """The record of a form whose fields have some texts: its id and label.

        The oldest that has them exactly, else the oldest that has them but for case and accents.
        """

        def work(session: Session) -> tuple[str, str] | None:
            return record_having(session, form, texts)

        return self._database.run(work)

    def keeping(self, form: str, keys: Sequence[str]) -> dict[str, int]:
        """How many records of a form keep something in each of some fields and slots."""
        counts: dict[str, int] = {}

        def work(session: Session) -> None:
            for key in keys:
                has_value = func.json_contains_path(RecordRow.field_values, "one", f'$."{key}"')
                has_address = RecordRow.id.in_(
                    select(RecordAddressRow.record).where(RecordAddressRow.slot == key)
                )
                query = select(func.count(RecordRow.id)).where(
                    RecordRow.form == form, or_(has_value == 1, has_address)
                )
                counts[key] = session.scalar(query) or 0

        self._database.run(work)
        return counts

    def count_of(self, form: str) -> int:
        """How many records of a form there are."""
        query = select(func.count(RecordRow.id)).where(RecordRow.form == form)
        return self._database.run(lambda session: session.scalar(query)) or 0

    def counts_of(self, forms: Sequence[str]) -> dict[str, int]:
        """How many records of each of some forms there are; forms without any are left out."""
        query = select(RecordRow.form, func.count(RecordRow.id)).where(RecordRow.form.in_(forms))
        query = query.group_by(RecordRow.form)
        return self._database.run(lambda session: dict(session.execute(query).all()))

    def by_version(self, form: str) -> dict[int, int]:
        """How many records there are of each version of a form."""
        query = select(RecordRow.form_version, func.count(RecordRow.id))
        query = query.where(RecordRow.form == form).group_by(RecordRow.form_version)

        def work(session: Session) -> dict[int, int]:
            return dict(session.execute(query).all())

        return self._database.run(work)


def record_having(session: Session, form: str, texts: Mapping[str, str]) -> tuple[str, str] | None:
    """See `RecordLookups.having`."""
    for same in (_has_exactly, _has_folded):
        query = select(RecordRow.id, RecordRow.label).where(RecordRow.form == form)
        for key, text in texts.items():
            query = query.where(same(key, text))
        found = session.execute(query.order_by(RecordRow.made_at, RecordRow.id).limit(1)).first()
        if found is not None:
            return str(found[0]), str(found[1])
    return None


def _has_exactly(key: str, text: str) -> ColumnElement[bool]:
    value = func.json_value(RecordRow.field_values, f'$."{key}"')
    return cast(value, String(4000)).collate("utf8mb4_nopad_bin") == text


def _has_folded(key: str, text: str) -> ColumnElement[bool]:
    value = func.json_value(RecordRow.field_values, f'$."{key}"')
    return cast(value, String(4000)).collate(COLLATION) == text


def _all_shown(shows: str | None, searches: Sequence[str]) -> ColumnElement[str]:
    """What is shown of a record, with other fields behind it where they hold something."""
    parts = [_shown(shows), *(func.nullif(_shown(key), "") for key in searches)]
    joined = func.concat_ws(" · ", *parts) if searches else parts[0]
    return cast(joined, String(600)).collate(COLLATION) if searches else joined


def _shown(shows: str | None) -> ColumnElement[str]:
    """What is shown of a record, compared as people write."""
    if shows is None:
        return RecordRow.label.expression
    value = func.json_value(RecordRow.field_values, f'$."{shows}"')
    return cast(value, String(200)).collate(COLLATION)
