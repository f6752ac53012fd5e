"""From where each account was signed in to before"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects import mysql

revision = "0007"
down_revision = "0006"
branch_labels = None
depends_on = None


def _digest() -> sa.String:
    return sa.String(length=64, collation="utf8mb4_nopad_bin")


def upgrade() -> None:
    op.create_table(
        "sign_in_place",
        sa.Column("account_digest", _digest(), nullable=False),
        sa.Column("place_digest", _digest(), nullable=False),
        sa.Column("last_at", mysql.DATETIME(fsp=6), nullable=False),
        sa.PrimaryKeyConstraint("account_digest", "place_digest", name=op.f("pk_sign_in_place")),
        mariadb_default_charset="utf8mb4",
        mariadb_collate="utf8mb4_uca1400_ai_ci",
    )
    op.create_index("ix_sign_in_place_last_at", "sign_in_place", ["last_at"])


def downgrade() -> None:
    op.drop_table("sign_in_place")
