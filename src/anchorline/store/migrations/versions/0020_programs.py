"""Looks at programs' screens, and runs of their targets."""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.mysql import DATETIME

revision = "0020"
down_revision = "0019"
branch_labels = None
depends_on = None

_EXACT = "utf8mb4_nopad_bin"


def _exact(name: str, length: int) -> sa.Column[str]:
    return sa.Column(name, sa.String(length, collation=_EXACT), nullable=False)


def upgrade() -> None:
    op.create_table(
        "look",
        sa.Column("id", sa.String(32, collation=_EXACT), primary_key=True),
        sa.Column("facts", sa.JSON, nullable=False),
        _exact("machine", 200),
        _exact("sent_by", 254),
        sa.Column("at", DATETIME(fsp=6), nullable=False),
        sa.Index("ix_look_at", "at"),
        mariadb_default_charset="utf8mb4",
        mariadb_collate="utf8mb4_uca1400_ai_ci",
    )
    op.create_table(
        "target_run",
        sa.Column("id", sa.BigInteger, primary_key=True, autoincrement=True),
        _exact("target", 64),
        sa.Column("version", sa.Integer, nullable=False),
        sa.Column("report", sa.JSON, nullable=False),
        _exact("told_by", 254),
        sa.Column("at", DATETIME(fsp=6), nullable=False),
        sa.Index("ix_target_run_target_id", "target", "id"),
        sa.Index("ix_target_run_at", "at"),
        mariadb_default_charset="utf8mb4",
        mariadb_collate="utf8mb4_uca1400_ai_ci",
    )


def downgrade() -> None:
    op.drop_table("target_run")
    op.drop_table("look")
