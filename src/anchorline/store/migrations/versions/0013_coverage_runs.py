"""Coverage runs: jobs of forms beside those of datasets, and what they found."""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.mysql import DATETIME

revision = "0013"
down_revision = "0012"
branch_labels = None
depends_on = None

_EXACT = "utf8mb4_nopad_bin"
_NAME = sa.String(64, collation=_EXACT)


def upgrade() -> None:
    op.alter_column("job", "dataset", existing_type=_NAME, nullable=True)
    op.create_table(
        "coverage_run",
        sa.Column("job", sa.String(32, collation=_EXACT), primary_key=True),
        sa.Column("form", sa.String(64, collation=_EXACT), nullable=False),
        sa.Column("slot", sa.String(64, collation=_EXACT), nullable=False),
        sa.Column("version", sa.Integer, nullable=True),
        sa.Column("revision", sa.Integer, nullable=False),
        sa.Column("source", sa.String(16), nullable=False),
        sa.Column("made_at", DATETIME(fsp=6), nullable=False),
        sa.Column("made_by", sa.String(254), nullable=False),
        sa.Column("seconds", sa.Double, nullable=False),
        sa.Column("result", sa.JSON, nullable=False),
        sa.ForeignKeyConstraint(
            ["form"], ["form.key"], name="fk_coverage_run_form_form", ondelete="CASCADE"
        ),
        sa.Index("ix_coverage_run_slot", "form", "slot", "made_at"),
        mariadb_default_charset="utf8mb4",
        mariadb_collate="utf8mb4_uca1400_ai_ci",
    )


def downgrade() -> None:
    op.drop_table("coverage_run")
    op.execute(sa.text("DELETE FROM job WHERE dataset IS NULL"))
    op.alter_column("job", "dataset", existing_type=_NAME, nullable=False)
