"""Calls are kept for some days; question and answer only where somebody observes."""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.mysql import DATETIME, LONGTEXT

revision = "0018"
down_revision = "0017"
branch_labels = None
depends_on = None

_EXACT = "utf8mb4_nopad_bin"


def _exact(name: str, length: int, *, primary_key: bool = False) -> sa.Column[str]:
    text = sa.String(length, collation=_EXACT)
    return sa.Column(name, text, nullable=False, primary_key=primary_key)


def upgrade() -> None:
    op.create_table(
        "activity",
        sa.Column("id", sa.BigInteger, primary_key=True, autoincrement=True),
        sa.Column("at", DATETIME(fsp=6), nullable=False),
        _exact("subject", 80),
        _exact("origin", 200),
        _exact("endpoint", 80),
        _exact("document", 64),
        sa.Column("status", sa.Integer, nullable=False),
        sa.Column("ms", sa.Double, nullable=False),
        sa.Column("question", LONGTEXT),
        sa.Column("answer", LONGTEXT),
        sa.Index("ix_activity_at", "at"),
        sa.Index("ix_activity_subject_id", "subject", "id"),
        mariadb_default_charset="utf8mb4",
        mariadb_collate="utf8mb4_uca1400_ai_ci",
    )
    op.create_table(
        "observation",
        _exact("kind", 16, primary_key=True),
        _exact("name", 80, primary_key=True),
        sa.Column("until", DATETIME(fsp=6), nullable=False),
        _exact("observed_by", 254),
        mariadb_default_charset="utf8mb4",
        mariadb_collate="utf8mb4_uca1400_ai_ci",
    )


def downgrade() -> None:
    op.drop_table("observation")
    op.drop_table("activity")
