"""Administrators' own layouts and their versions, and with which an address was captured"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects import mysql

revision = "0004"
down_revision = "0003"
branch_labels = None
depends_on = None


def _exact(length: int) -> sa.String:
    return sa.String(length=length, collation="utf8mb4_bin")


def upgrade() -> None:
    op.create_table(
        "own_layout",
        sa.Column("key", _exact(64), nullable=False),
        sa.Column("title", sa.String(length=200), nullable=False),
        sa.Column("draft", sa.JSON(), nullable=False),
        sa.Column("revision", sa.Integer(), nullable=False),
        sa.Column("draft_differs", sa.Boolean(), nullable=False),
        sa.Column("published_version", sa.Integer(), nullable=True),
        sa.Column("changed_at", mysql.DATETIME(fsp=6), nullable=False),
        sa.PrimaryKeyConstraint("key", name=op.f("pk_own_layout")),
        mariadb_default_charset="utf8mb4",
        mariadb_collate="utf8mb4_uca1400_ai_ci",
    )
    op.create_table(
        "own_layout_version",
        sa.Column("own_layout", _exact(64), nullable=False),
        sa.Column("number", sa.Integer(), autoincrement=False, nullable=False),
        sa.Column("document", sa.JSON(), nullable=False),
        sa.Column("ground", sa.JSON(), nullable=False),
        sa.Column("published_at", mysql.DATETIME(fsp=6), nullable=False),
        sa.Column("published_by", sa.String(length=254), nullable=False),
        sa.PrimaryKeyConstraint("own_layout", "number", name=op.f("pk_own_layout_version")),
        mariadb_default_charset="utf8mb4",
        mariadb_collate="utf8mb4_uca1400_ai_ci",
    )
    op.add_column(
        "record_address", sa.Column("layout", _exact(200), nullable=False, server_default="")
    )
    op.create_index("ix_record_address_country", "record_address", ["country_code", "record"])


def downgrade() -> None:
    op.drop_index("ix_record_address_country", "record_address")
    op.drop_column("record_address", "layout")
    op.drop_table("own_layout_version")
    op.drop_table("own_layout")
