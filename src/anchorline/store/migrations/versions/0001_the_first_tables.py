"""The first tables"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects import mysql

revision = "0001"
down_revision = None
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "api_key",
        sa.Column("id", sa.String(length=32, collation="utf8mb4_bin"), nullable=False),
        sa.Column("kind", sa.String(length=16, collation="utf8mb4_bin"), nullable=False),
        sa.Column("name", sa.String(length=120), nullable=False),
        sa.Column("secret_digest", sa.String(length=64, collation="utf8mb4_bin"), nullable=False),
        sa.Column("origins", sa.JSON(), nullable=False),
        sa.Column("forms", sa.JSON(), nullable=False),
        sa.Column("created_at", mysql.DATETIME(fsp=6), nullable=False),
        sa.Column("revoked", sa.Boolean(), nullable=False),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_api_key")),
        mariadb_collate="utf8mb4_uca1400_ai_ci",
        mariadb_default_charset="utf8mb4",
    )
    op.create_table(
        "dataset",
        sa.Column("name", sa.String(length=64, collation="utf8mb4_bin"), nullable=False),
        sa.Column("active_edition", sa.Integer(), nullable=True),
        sa.PrimaryKeyConstraint("name", name=op.f("pk_dataset")),
        mariadb_collate="utf8mb4_uca1400_ai_ci",
        mariadb_default_charset="utf8mb4",
    )
    op.create_table(
        "form",
        sa.Column("key", sa.String(length=64, collation="utf8mb4_bin"), nullable=False),
        sa.Column("kind", sa.String(length=16, collation="utf8mb4_bin"), nullable=False),
        sa.Column("title", sa.String(length=200), nullable=False),
        sa.Column("draft", sa.JSON(), nullable=False),
        sa.Column("revision", sa.Integer(), nullable=False),
        sa.Column("draft_differs", sa.Boolean(), nullable=False),
        sa.Column("published_version", sa.Integer(), nullable=True),
        sa.Column("changed_at", mysql.DATETIME(fsp=6), nullable=False),
        sa.PrimaryKeyConstraint("key", name=op.f("pk_form")),
        mariadb_collate="utf8mb4_uca1400_ai_ci",
        mariadb_default_charset="utf8mb4",
    )
    op.create_table(
        "idempotency",
        sa.Column("scope", sa.String(length=96, collation="utf8mb4_bin"), nullable=False),
        sa.Column("key_digest", sa.String(length=64, collation="utf8mb4_bin"), nullable=False),
        sa.Column("request_digest", sa.String(length=64, collation="utf8mb4_bin"), nullable=False),
        sa.Column("record", sa.String(length=32, collation="utf8mb4_bin"), nullable=False),
        sa.Column("made_at", mysql.DATETIME(fsp=6), nullable=False),
        sa.PrimaryKeyConstraint("scope", "key_digest", name=op.f("pk_idempotency")),
        mariadb_collate="utf8mb4_uca1400_ai_ci",
        mariadb_default_charset="utf8mb4",
    )
    op.create_index(op.f("ix_idempotency_made_at"), "idempotency", ["made_at"], unique=False)
    op.create_table(
        "sign_in_failure",
        sa.Column("subject_digest", sa.String(length=64, collation="utf8mb4_bin"), nullable=False),
        sa.Column("failures", sa.Integer(), nullable=False),
        sa.Column("last_at", mysql.DATETIME(fsp=6), nullable=False),
        sa.PrimaryKeyConstraint("subject_digest", name=op.f("pk_sign_in_failure")),
        mariadb_collate="utf8mb4_uca1400_ai_ci",
        mariadb_default_charset="utf8mb4",
    )
    op.create_index(
        op.f("ix_sign_in_failure_last_at"), "sign_in_failure", ["last_at"], unique=False
    )
    op.create_table(
        "user",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("email", sa.String(length=254, collation="utf8mb4_bin"), nullable=False),
        sa.Column("name", sa.String(length=120), nullable=False),
        sa.Column("password_hash", sa.String(length=255, collation="utf8mb4_bin"), nullable=False),
        sa.Column("created_at", mysql.DATETIME(fsp=6), nullable=False),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_user")),
        sa.UniqueConstraint("email", name=op.f("uq_user_email")),
        mariadb_collate="utf8mb4_uca1400_ai_ci",
        mariadb_default_charset="utf8mb4",
    )
    op.create_table(
        "edition",
        sa.Column("dataset", sa.String(length=64, collation="utf8mb4_bin"), nullable=False),
        sa.Column("number", sa.Integer(), autoincrement=False, nullable=False),
        sa.Column("source_name", sa.String(length=255), nullable=False),
        sa.Column("source_digest", sa.String(length=64, collation="utf8mb4_bin"), nullable=False),
        sa.Column("rows_used", sa.Integer(), nullable=False),
        sa.Column("rows_bad", sa.Integer(), nullable=False),
        sa.Column("report", sa.JSON(), nullable=False),
        sa.Column("built_at", mysql.DATETIME(fsp=6), nullable=False),
        sa.ForeignKeyConstraint(
            ["dataset"], ["dataset.name"], name=op.f("fk_edition_dataset_dataset")
        ),
        sa.PrimaryKeyConstraint("dataset", "number", name=op.f("pk_edition")),
        mariadb_collate="utf8mb4_uca1400_ai_ci",
        mariadb_default_charset="utf8mb4",
    )
    op.create_table(
        "form_version",
        sa.Column("form", sa.String(length=64, collation="utf8mb4_bin"), nullable=False),
        sa.Column("number", sa.Integer(), autoincrement=False, nullable=False),
        sa.Column("document", sa.JSON(), nullable=False),
        sa.Column("published_at", mysql.DATETIME(fsp=6), nullable=False),
        sa.Column("published_by", sa.String(length=254), nullable=False),
        sa.ForeignKeyConstraint(["form"], ["form.key"], name=op.f("fk_form_version_form_form")),
        sa.PrimaryKeyConstraint("form", "number", name=op.f("pk_form_version")),
        mariadb_collate="utf8mb4_uca1400_ai_ci",
        mariadb_default_charset="utf8mb4",
    )
    op.create_table(
        "login_session",
        sa.Column("token_digest", sa.String(length=64, collation="utf8mb4_bin"), nullable=False),
        sa.Column("user_id", sa.Integer(), nullable=False),
        sa.Column("csrf_token", sa.String(length=64, collation="utf8mb4_bin"), nullable=False),
        sa.Column("expires_at", mysql.DATETIME(fsp=6), nullable=False),
        sa.ForeignKeyConstraint(
            ["user_id"], ["user.id"], name=op.f("fk_login_session_user_id_user"), ondelete="CASCADE"
        ),
        sa.PrimaryKeyConstraint("token_digest", name=op.f("pk_login_session")),
        mariadb_collate="utf8mb4_uca1400_ai_ci",
        mariadb_default_charset="utf8mb4",
    )
    op.create_index(
        op.f("ix_login_session_expires_at"), "login_session", ["expires_at"], unique=False
    )
    op.create_table(
        "record",
        sa.Column("id", sa.String(length=32, collation="utf8mb4_bin"), nullable=False),
        sa.Column("form", sa.String(length=64, collation="utf8mb4_bin"), nullable=False),
        sa.Column("form_version", sa.Integer(), nullable=False),
        sa.Column("label", sa.String(length=200), nullable=False),
        sa.Column("field_values", sa.JSON(), nullable=False),
        sa.Column("search_text", mysql.LONGTEXT(), nullable=False),
        sa.Column("made_at", mysql.DATETIME(fsp=6), nullable=False),
        sa.Column("made_by", sa.String(length=254), nullable=False),
        sa.ForeignKeyConstraint(["form"], ["form.key"], name=op.f("fk_record_form_form")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_record")),
        mariadb_collate="utf8mb4_uca1400_ai_ci",
        mariadb_default_charset="utf8mb4",
    )
    op.create_index("ix_record_form_label", "record", ["form", "label", "id"], unique=False)
    op.create_index("ix_record_form_made", "record", ["form", "made_at", "id"], unique=False)
    op.create_index("ix_record_label", "record", ["label", "id"], unique=False)
    op.create_index("ix_record_made", "record", ["made_at", "id"], unique=False)
    op.create_table(
        "record_address",
        sa.Column("record", sa.String(length=32, collation="utf8mb4_bin"), nullable=False),
        sa.Column("slot", sa.String(length=64, collation="utf8mb4_bin"), nullable=False),
        sa.Column("position", sa.Integer(), nullable=False),
        sa.Column("country_code", sa.String(length=2, collation="utf8mb4_bin"), nullable=False),
        sa.Column("components", sa.JSON(), nullable=False),
        sa.Column("facts", sa.JSON(), nullable=False),
        sa.Column("address_id", sa.String(length=160, collation="utf8mb4_bin"), nullable=True),
        sa.Column("edition", sa.String(length=100, collation="utf8mb4_bin"), nullable=True),
        sa.Column("typed", sa.Text(), nullable=False),
        sa.Column("changed", sa.JSON(), nullable=False),
        sa.ForeignKeyConstraint(
            ["record"],
            ["record.id"],
            name=op.f("fk_record_address_record_record"),
            ondelete="CASCADE",
        ),
        sa.PrimaryKeyConstraint("record", "slot", name=op.f("pk_record_address")),
        mariadb_collate="utf8mb4_uca1400_ai_ci",
        mariadb_default_charset="utf8mb4",
    )


def downgrade() -> None:
    op.drop_table("record_address")
    op.drop_index("ix_record_made", table_name="record")
    op.drop_index("ix_record_label", table_name="record")
    op.drop_index("ix_record_form_made", table_name="record")
    op.drop_index("ix_record_form_label", table_name="record")
    op.drop_table("record")
    op.drop_index(op.f("ix_login_session_expires_at"), table_name="login_session")
    op.drop_table("login_session")
    op.drop_table("form_version")
    op.drop_table("edition")
    op.drop_table("user")
    op.drop_index(op.f("ix_sign_in_failure_last_at"), table_name="sign_in_failure")
    op.drop_table("sign_in_failure")
    op.drop_index(op.f("ix_idempotency_made_at"), table_name="idempotency")
    op.drop_table("idempotency")
    op.drop_table("form")
    op.drop_table("dataset")
    op.drop_table("api_key")
