"""What shipped layouts said when an own layout was published is called its base."""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op

revision = "0008"
down_revision = "0007"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.alter_column(
        "own_layout_version",
        "ground",
        new_column_name="base",
        existing_type=sa.JSON(),
        existing_nullable=False,
    )


def downgrade() -> None:
    op.alter_column(
        "own_layout_version",
        "base",
        new_column_name="ground",
        existing_type=sa.JSON(),
        existing_nullable=False,
    )
