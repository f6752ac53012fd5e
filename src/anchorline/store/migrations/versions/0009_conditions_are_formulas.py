"""Conditions of drafts become formulas; published versions stay as they were."""

from __future__ import annotations

import json

import sqlalchemy as sa
from alembic import op

from anchorline.core.forms.upgrade import upgraded

revision = "0009"
down_revision = "0008"
branch_labels = None
depends_on = None

_FORMS = sa.table("form", sa.column("key", sa.String), sa.column("draft", sa.JSON))


def upgrade() -> None:
    connection = op.get_bind()
    for key, draft in connection.execute(sa.select(_FORMS.c.key, _FORMS.c.draft)).all():
        document = json.loads(draft) if isinstance(draft, str) else draft
        today = upgraded(document)
        if today is not document:
            change = sa.update(_FORMS).where(_FORMS.c.key == key).values(draft=today)
            connection.execute(change)


def downgrade() -> None:
    """Formulas stay: they can say more than a field and its values did."""
