"""Jobs that are alone: of those about the same, one at a time."""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op

revision = "0021"
down_revision = "0020"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column("job", sa.Column("alone", sa.String(200, collation="utf8mb4_nopad_bin")))
    op.create_unique_constraint("uq_job_alone", "job", ["alone"])


def downgrade() -> None:
    op.drop_constraint("uq_job_alone", "job", type_="unique")
    op.drop_column("job", "alone")
