"""Looking records up for forms: for links to them, and for what depends on a form's changes."""

from __future__ import annotations

from collections.abc import Sequence

from sqlalchemy import ColumnElement, String, cast, func, or_, select

from .database import COLLATION, Database
from .schema import RecordAddressRow, RecordRow


class RecordLookups:
    """Looks into records."""

    def __init__(self, database: Database) -> None:
        self._database = database

    def choices(self, form: str, shows: str | None, text: str, limit: int) -> list[tuple[str, str]]:
        """Records of a form to choose from: their ids, and what is shown of them.

        Args:
            shows: the key of the field whose values are shown; None for the records' labels.
            text: stands in what is shown; empty for all.
        """
        shown = _shown(shows)
        query = select(RecordRow.id, shown).where(RecordRow.form == form, shown.is_not(None))
        for word in text.split():
            query = query.where(shown.contains(word, autoescape=True))
        with self._database.transaction() as session:
            rows = session.execute(query.order_by(shown, RecordRow.id).limit(limit))
            return [(identifier, str(said)) for identifier, said in rows]

    def shown(self, identifier: str, form: str, shows: str | None) -> str | None:
        """What is shown of a record of a form; None where there is no such record."""
        query = select(_shown(shows), RecordRow.label)
        query = query.where(RecordRow.id == identifier, RecordRow.form == form)
        with self._database.transaction() as session:
            found = session.execute(query).first()
            return None if found is None else str(found[0] or found[1])

    def keeping(self, form: str, keys: Sequence[str]) -> dict[str, int]:
        """How many records of a form keep something in each of some fields and slots."""
        counts: dict[str, int] = {}
        with self._database.transaction() as session:
            for key in keys:
                has_value = func.json_contains_path(RecordRow.field_values, "one", f'$."{key}"')
                has_address = RecordRow.id.in_(
                    select(RecordAddressRow.record).where(RecordAddressRow.slot == key)
                )
                query = select(func.count(RecordRow.id)).where(
                    RecordRow.form == form, or_(has_value == 1, has_address)
                )
                counts[key] = session.scalar(query) or 0
        return counts

    def by_version(self, form: str) -> dict[int, int]:
        """How many records there are of each version of a form."""
        query = select(RecordRow.form_version, func.count(RecordRow.id))
        query = query.where(RecordRow.form == form).group_by(RecordRow.form_version)
        with self._database.transaction() as session:
            return dict(session.execute(query).tuples().all())


def _shown(shows: str | None) -> ColumnElement[str]:
    """What is shown of a record, compared as people write."""
    if shows is None:
        return RecordRow.label.expression
    value = func.json_value(RecordRow.field_values, f'$."{shows}"')
    return cast(value, String(200)).collate(COLLATION)
