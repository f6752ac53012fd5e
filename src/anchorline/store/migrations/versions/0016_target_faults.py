"""Mistakes of set-up that pages report."""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.mysql import DATETIME

revision = "0016"
down_revision = "0015"
branch_labels = None
depends_on = None

_EXACT = "utf8mb4_nopad_bin"


def upgrade() -> None:
    op.create_table(
        "target_fault",
        sa.Column("target", sa.String(64, collation=_EXACT), primary_key=True),
        sa.Column("kind", sa.String(32, collation=_EXACT), primary_key=True),
        sa.Column("subject", sa.String(200, collation=_EXACT), primary_key=True),
        sa.Column("detail", sa.String(600), nullable=False),
        sa.Column("count", sa.Integer, nullable=False),
        sa.Column("first_at", DATETIME(fsp=6), nullable=False),
        sa.Column("last_at", DATETIME(fsp=6), nullable=False),
        sa.Column("browser", sa.String(200), nullable=False),
        sa.ForeignKeyConstraint(
            ["target"], ["target.key"], name="fk_target_fault_target_target", ondelete="CASCADE"
        ),
        mariadb_default_charset="utf8mb4",
        mariadb_collate="utf8mb4_uca1400_ai_ci",
    )


def downgrade() -> None:
    op.drop_table("target_fault")
