"""Who edits a form's draft, and in which language a record's form was read."""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.mysql import DATETIME

revision = "0010"
down_revision = "0009"
branch_labels = None
depends_on = None

_EXACT = "utf8mb4_nopad_bin"


def upgrade() -> None:
    op.create_table(
        "form_editor",
        sa.Column("form", sa.String(64, collation=_EXACT), primary_key=True),
        sa.Column("page", sa.String(32, collation=_EXACT), primary_key=True),
        sa.Column("name", sa.String(254), nullable=False),
        sa.Column("since", DATETIME(fsp=6), nullable=False),
        sa.Column("seen_at", DATETIME(fsp=6), nullable=False),
        sa.ForeignKeyConstraint(
            ["form"], ["form.key"], name="fk_form_editor_form_form", ondelete="CASCADE"
        ),
        mariadb_default_charset="utf8mb4",
        mariadb_collate="utf8mb4_uca1400_ai_ci",
    )
    op.create_index("ix_form_editor_seen_at", "form_editor", ["seen_at"])
    op.add_column(
        "record",
        sa.Column("language", sa.String(35, collation=_EXACT), nullable=False, server_default=""),
    )


def downgrade() -> None:
    op.drop_column("record", "language")
    op.drop_table("form_editor")
