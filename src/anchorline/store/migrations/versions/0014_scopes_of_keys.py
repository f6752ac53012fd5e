"""Scopes and ends of keys, secrets that go on beside a new one, and when keys were used."""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.mysql import DATETIME

revision = "0014"
down_revision = "0013"
branch_labels = None
depends_on = None

_ALL = '["find", "forms", "records", "data", "administer"]'
_TIMES = ("expires_at", "used_at", "rotated_at", "earlier_until")


def upgrade() -> None:
    op.add_column("api_key", sa.Column("scopes", sa.JSON, nullable=True))
    for name in _TIMES:
        op.add_column("api_key", sa.Column(name, DATETIME(fsp=6), nullable=True))
    op.add_column(
        "api_key",
        sa.Column("earlier_digest", sa.String(64, collation="utf8mb4_nopad_bin"), nullable=True),
    )
    # Keys that there are go on to do what they did: a server key could do everything.
    op.execute(
        sa.text("UPDATE api_key SET scopes = IF(kind = 'server', :scopes, '[]')").bindparams(
            scopes=_ALL
        )
    )
    op.alter_column("api_key", "scopes", existing_type=sa.JSON, nullable=False)


def downgrade() -> None:
    for name in ("scopes", "earlier_digest", *_TIMES):
        op.drop_column("api_key", name)
