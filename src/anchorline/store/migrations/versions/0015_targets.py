"""Targets, and the targets that a browser key may be used for."""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.mysql import DATETIME

revision = "0015"
down_revision = "0014"
branch_labels = None
depends_on = None

_EXACT = "utf8mb4_nopad_bin"


def upgrade() -> None:
    op.create_table(
        "target",
        sa.Column("key", sa.String(64, collation=_EXACT), primary_key=True),
        sa.Column("title", sa.String(200), nullable=False),
        sa.Column("draft", sa.JSON, nullable=False),
        sa.Column("revision", sa.Integer, nullable=False),
        sa.Column("draft_differs", sa.Boolean, nullable=False),
        sa.Column("published_version", sa.Integer, nullable=True),
        sa.Column("changed_at", DATETIME(fsp=6), nullable=False),
        mariadb_default_charset="utf8mb4",
        mariadb_collate="utf8mb4_uca1400_ai_ci",
    )
    op.create_table(
        "target_version",
        sa.Column("target", sa.String(64, collation=_EXACT), primary_key=True),
        sa.Column("number", sa.Integer, primary_key=True, autoincrement=False),
        sa.Column("document", sa.JSON, nullable=False),
        sa.Column("published_at", DATETIME(fsp=6), nullable=False),
        sa.Column("published_by", sa.String(254), nullable=False),
        sa.ForeignKeyConstraint(["target"], ["target.key"], name="fk_target_version_target_target"),
        mariadb_default_charset="utf8mb4",
        mariadb_collate="utf8mb4_uca1400_ai_ci",
    )
    op.add_column("api_key", sa.Column("targets", sa.JSON, nullable=True))
    op.execute(sa.text("UPDATE api_key SET targets = '[]'"))
    op.alter_column("api_key", "targets", existing_type=sa.JSON, nullable=False)


def downgrade() -> None:
    op.drop_column("api_key", "targets")
    op.drop_table("target_version")
    op.drop_table("target")
