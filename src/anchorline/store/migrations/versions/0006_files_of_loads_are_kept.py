"""A load's file is kept until the load has ended well or somebody throws it away"""

import sqlalchemy as sa
from alembic import op

revision = "0006"
down_revision = "0005"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column(
        "job", sa.Column("file_kept", sa.Boolean(), nullable=False, server_default=sa.text("0"))
    )
    op.execute("UPDATE job SET file_kept = 1 WHERE id IN (SELECT DISTINCT job FROM source_part)")


def downgrade() -> None:
    op.drop_column("job", "file_kept")
