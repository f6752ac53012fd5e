"""Rules into a field that an earlier rule writes say what happens then: it was left as it was.

Forms that are there were written down in the first format, in which they did not say it. Nothing is
rewritten: what is kept stays as it was, and `core.forms.upgrade` reads it by its format.
"""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op

revision = "0012"
down_revision = "0011"
branch_labels = None
depends_on = None


def upgrade() -> None:
    for table in ("form", "form_version"):
        columns = {one["name"] for one in sa.inspect(op.get_bind()).get_columns(table)}
        if "format" not in columns:
            written = sa.Column("format", sa.Integer, nullable=False, server_default="1")
            op.add_column(table, written)


def downgrade() -> None:
    for table in ("form", "form_version"):
        columns = {one["name"] for one in sa.inspect(op.get_bind()).get_columns(table)}
        if "format" in columns:
            op.drop_column(table, "format")
