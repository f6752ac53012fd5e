"""How many addresses an edition has: fewer than rows where places have several languages"""

import sqlalchemy as sa
from alembic import op

revision = "0003"
down_revision = "0002"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column(
        "edition", sa.Column("addresses", sa.Integer(), nullable=False, server_default="0")
    )
    op.execute("UPDATE edition SET addresses = rows_used")


def downgrade() -> None:
    op.drop_column("edition", "addresses")
