"""How well capture goes is counted per form and target and day."""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.mysql import DATETIME

revision = "0019"
down_revision = "0018"
branch_labels = None
depends_on = None

_EXACT = "utf8mb4_nopad_bin"
_COUNTS = ("shown", "begun", "picked", "partly", "by_hand", "changed", "left_off", "keys_pressed",
           "characters_filled")  # fmt: skip


def _exact(name: str, length: int) -> sa.Column[str]:
    text = sa.String(length, collation=_EXACT)
    return sa.Column(name, text, nullable=False, primary_key=True)


def upgrade() -> None:
    op.create_table(
        "capture_day",
        _exact("kind", 16),
        _exact("name", 64),
        sa.Column("day", sa.Date, primary_key=True),
        *(sa.Column(name, sa.BigInteger, nullable=False) for name in _COUNTS),
        sa.Index("ix_capture_day_day", "day"),
        mariadb_default_charset="utf8mb4",
        mariadb_collate="utf8mb4_uca1400_ai_ci",
    )
    op.create_table(
        "not_found",
        _exact("kind", 16),
        _exact("name", 64),
        _exact("digest", 32),
        sa.Column("text", sa.String(120)),
        sa.Column("count", sa.Integer, nullable=False),
        sa.Column("last_at", DATETIME(fsp=6), nullable=False),
        sa.Index("ix_not_found_last_at", "last_at"),
        mariadb_default_charset="utf8mb4",
        mariadb_collate="utf8mb4_uca1400_ai_ci",
    )


def downgrade() -> None:
    op.drop_table("not_found")
    op.drop_table("capture_day")
