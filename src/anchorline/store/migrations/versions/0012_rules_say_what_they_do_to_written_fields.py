"""Rules into a field that an earlier rule writes say what happens then: it was left as it was."""

from __future__ import annotations

import json
from typing import Any

import sqlalchemy as sa
from alembic import op

from anchorline.core.forms.upgrade import with_word_for_written_fields

revision = "0012"
down_revision = "0011"
branch_labels = None
depends_on = None

_FORMS = sa.table("form", sa.column("key", sa.String), sa.column("draft", sa.JSON))
_VERSIONS = sa.table(
    "form_version",
    sa.column("form", sa.String),
    sa.column("number", sa.Integer),
    sa.column("document", sa.JSON),
)


def upgrade() -> None:
    connection = op.get_bind()
    for key, draft in connection.execute(sa.select(_FORMS.c.key, _FORMS.c.draft)).all():
        document = _plain(draft)
        today = with_word_for_written_fields(document)
        if today is not document:
            connection.execute(sa.update(_FORMS).where(_FORMS.c.key == key).values(draft=today))
    query = sa.select(_VERSIONS.c.form, _VERSIONS.c.number, _VERSIONS.c.document)
    for form, number, kept in connection.execute(query).all():
        document = _plain(kept)
        today = with_word_for_written_fields(document)
        if today is not document:
            place = (_VERSIONS.c.form == form) & (_VERSIONS.c.number == number)
            connection.execute(sa.update(_VERSIONS).where(place).values(document=today))


def downgrade() -> None:
    """The word stays: without it the rules mean the same."""


def _plain(document: Any) -> dict[str, Any]:
    found: dict[str, Any] = json.loads(document) if isinstance(document, str) else document
    return found
