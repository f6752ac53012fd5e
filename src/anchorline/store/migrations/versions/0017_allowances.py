"""Addresses that are fetched are counted by key and day; a key may have a limit."""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.mysql import DATETIME

revision = "0017"
down_revision = "0016"
branch_labels = None
depends_on = None

_EXACT = "utf8mb4_nopad_bin"


def upgrade() -> None:
    op.add_column("api_key", sa.Column("monthly_limit", sa.Integer))
    op.add_column(
        "api_key", sa.Column("warn_share", sa.Double, nullable=False, server_default="0.8")
    )
    op.create_table(
        "address_use",
        sa.Column("subject", sa.String(80, collation=_EXACT), primary_key=True),
        sa.Column("digest", sa.String(32, collation=_EXACT), primary_key=True),
        sa.Column("at", DATETIME(fsp=6), nullable=False),
        sa.Index("ix_address_use_at", "at"),
        mariadb_default_charset="utf8mb4",
        mariadb_collate="utf8mb4_uca1400_ai_ci",
    )
    op.create_table(
        "use_day",
        sa.Column("subject", sa.String(80, collation=_EXACT), primary_key=True),
        sa.Column("day", sa.Date, primary_key=True),
        sa.Column("count", sa.Integer, nullable=False),
        sa.Index("ix_use_day_day", "day"),
        mariadb_default_charset="utf8mb4",
        mariadb_collate="utf8mb4_uca1400_ai_ci",
    )


def downgrade() -> None:
    op.drop_table("use_day")
    op.drop_table("address_use")
    op.drop_column("api_key", "warn_share")
    op.drop_column("api_key", "monthly_limit")
