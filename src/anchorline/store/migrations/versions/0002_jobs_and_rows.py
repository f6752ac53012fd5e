"""Jobs, the files they load, and the rows that editions are built from"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects import mysql

revision = "0002"
down_revision = "0001"
branch_labels = None
depends_on = None


def _exact(length: int) -> sa.String:
    return sa.String(length=length, collation="utf8mb4_bin")


def _time() -> mysql.DATETIME:
    return mysql.DATETIME(fsp=6)


def upgrade() -> None:
    op.add_column("dataset", sa.Column("previous_edition", sa.Integer(), nullable=True))
    op.add_column(
        "dataset", sa.Column("numbers_given", sa.Integer(), nullable=False, server_default="0")
    )
    op.add_column("dataset", sa.Column("rules", sa.JSON(), nullable=False, server_default="{}"))
    op.add_column("edition", sa.Column("job", _exact(32), nullable=True))
    op.add_column("edition", sa.Column("changes_to", sa.Integer(), nullable=True))
    op.add_column("edition", sa.Column("comparison", sa.JSON(), nullable=True))
    op.add_column(
        "edition", sa.Column("index_bytes", sa.BigInteger(), nullable=False, server_default="0")
    )
    op.add_column(
        "edition", sa.Column("rows_bytes", sa.BigInteger(), nullable=False, server_default="0")
    )
    op.add_column("edition", sa.Column("activated_at", _time(), nullable=True))
    op.execute(
        "UPDATE dataset SET numbers_given = COALESCE("
        "(SELECT MAX(number) FROM edition WHERE edition.dataset = dataset.name), 0)"
    )
    op.create_table(
        "job",
        sa.Column("id", _exact(32), nullable=False),
        sa.Column("kind", _exact(16), nullable=False),
        sa.Column("dataset", _exact(64), nullable=False),
        sa.Column("state", _exact(16), nullable=False),
        sa.Column("options", sa.JSON(), nullable=False),
        sa.Column("source_name", sa.String(length=255), nullable=False),
        sa.Column("source_digest", _exact(64), nullable=False),
        sa.Column("made_at", _time(), nullable=False),
        sa.Column("made_by", sa.String(length=254), nullable=False),
        sa.Column("started_at", _time(), nullable=True),
        sa.Column("ended_at", _time(), nullable=True),
        sa.Column("claim", _exact(32), nullable=False),
        sa.Column("lease_until", _time(), nullable=True),
        sa.Column("attempts", sa.Integer(), nullable=False),
        sa.Column("cancel_asked", sa.Boolean(), nullable=False),
        sa.Column("phase", _exact(16), nullable=False),
        sa.Column("phase_at", _time(), nullable=True),
        sa.Column("reading_seconds", sa.Double(), nullable=False),
        sa.Column("rows_done", sa.Integer(), nullable=False),
        sa.Column("rows_bad", sa.Integer(), nullable=False),
        sa.Column("bytes_done", sa.BigInteger(), nullable=False),
        sa.Column("bytes_total", sa.BigInteger(), nullable=False),
        sa.Column("edition", sa.Integer(), nullable=True),
        sa.Column("message", sa.Text(), nullable=False),
        sa.ForeignKeyConstraint(["dataset"], ["dataset.name"], name=op.f("fk_job_dataset_dataset")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_job")),
        mariadb_collate="utf8mb4_uca1400_ai_ci",
        mariadb_default_charset="utf8mb4",
    )
    op.create_index("ix_job_state_made", "job", ["state", "made_at"])
    op.create_table(
        "source_part",
        sa.Column("job", _exact(32), nullable=False),
        sa.Column("position", sa.Integer(), autoincrement=False, nullable=False),
        sa.Column("data", mysql.LONGBLOB(), nullable=False),
        sa.ForeignKeyConstraint(
            ["job"], ["job.id"], name=op.f("fk_source_part_job_job"), ondelete="CASCADE"
        ),
        sa.PrimaryKeyConstraint("job", "position", name=op.f("pk_source_part")),
        mariadb_collate="utf8mb4_uca1400_ai_ci",
        mariadb_default_charset="utf8mb4",
    )
    op.create_table(
        "row_block",
        sa.Column("job", _exact(32), nullable=False),
        sa.Column("position", sa.Integer(), autoincrement=False, nullable=False),
        sa.Column("rows_used", sa.Integer(), nullable=False),
        sa.Column("last_line", sa.Integer(), nullable=False),
        sa.Column("data", mysql.LONGBLOB(), nullable=False),
        sa.Column("notes", mysql.LONGBLOB(), nullable=False),
        sa.ForeignKeyConstraint(
            ["job"], ["job.id"], name=op.f("fk_row_block_job_job"), ondelete="CASCADE"
        ),
        sa.PrimaryKeyConstraint("job", "position", name=op.f("pk_row_block")),
        mariadb_collate="utf8mb4_uca1400_ai_ci",
        mariadb_default_charset="utf8mb4",
    )


def downgrade() -> None:
    for table in ("row_block", "source_part", "job"):
        op.drop_table(table)
    for column in ("activated_at", "rows_bytes", "index_bytes", "comparison", "changes_to", "job"):
        op.drop_column("edition", column)
    for column in ("rules", "numbers_given", "previous_edition"):
        op.drop_column("dataset", column)
