"""Records that are changed: what they were before, positions, phones as they were typed."""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.mysql import DATETIME

revision = "0011"
down_revision = "0010"
branch_labels = None
depends_on = None

_EXACT = "utf8mb4_nopad_bin"


def upgrade() -> None:
    op.add_column("record", sa.Column("revision", sa.Integer, nullable=False, server_default="1"))
    op.add_column("record", sa.Column("changed_at", DATETIME(fsp=6), nullable=True))
    op.add_column("record", sa.Column("changed_by", sa.String(254), nullable=True))
    op.add_column("record", sa.Column("typed_values", sa.JSON, nullable=True))
    op.add_column("record_address", sa.Column("pin", sa.JSON, nullable=True))
    op.create_table(
        "record_revision",
        sa.Column("record", sa.String(32, collation=_EXACT), primary_key=True),
        sa.Column("number", sa.Integer, primary_key=True, autoincrement=False),
        sa.Column("form_version", sa.Integer, nullable=False),
        sa.Column("field_values", sa.JSON, nullable=False),
        sa.Column("addresses", sa.JSON, nullable=False),
        sa.Column("made_at", DATETIME(fsp=6), nullable=False),
        sa.Column("made_by", sa.String(254), nullable=False),
        sa.ForeignKeyConstraint(
            ["record"],
            ["record.id"],
            name="fk_record_revision_record_record",
            ondelete="CASCADE",
        ),
        mariadb_default_charset="utf8mb4",
        mariadb_collate="utf8mb4_uca1400_ai_ci",
    )


def downgrade() -> None:
    op.drop_table("record_revision")
    op.drop_column("record_address", "pin")
    for name in ("typed_values", "changed_by", "changed_at", "revision"):
        op.drop_column("record", name)
