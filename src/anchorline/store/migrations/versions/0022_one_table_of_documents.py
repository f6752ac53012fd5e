"""Forms, own layouts and targets stand in one table of documents, with one of their versions.

Each says in which format it was written down, so that what is read later needs no rewriting: of a
database that came here over 0012 as it is now, the forms say it already; before, 0012 had rewritten
them, and they are of the second format. What stood against deleting is looked at by the code.
"""

# ruff: noqa: S608 (all that is put into statements stands in this file)

from __future__ import annotations

from typing import Any

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.mysql import DATETIME

revision = "0022"
down_revision = "0021"
branch_labels = None
depends_on = None

_EXACT = "utf8mb4_nopad_bin"
_TABLE: dict[str, Any] = {
    "mariadb_default_charset": "utf8mb4",
    "mariadb_collate": "utf8mb4_uca1400_ai_ci",
}
# By kind: its tables, the column of a version that names its document, what lists show of it.
_KINDS = {
    "form": ("form", "JSON_OBJECT('kind', kind)"),
    "own_layout": (
        "own_layout",
        "JSON_OBJECT('countries', JSON_EXTRACT(draft, '$.countries'), "
        "'forms', COALESCE(JSON_EXTRACT(draft, '$.forms'), JSON_ARRAY()))",
    ),
    "target": ("target", "JSON_OBJECT('kind', COALESCE(JSON_VALUE(draft, '$.kind'), 'page'))"),
}
_FOREIGN = (
    ("record", "fk_record_form_form"),
    ("coverage_run", "fk_coverage_run_form_form"),
    ("target_fault", "fk_target_fault_target_target"),
)


def upgrade() -> None:
    there = set(sa.inspect(op.get_bind()).get_table_names())
    if "document" not in there:
        op.create_table(
            "document",
            sa.Column("kind", sa.String(16, collation=_EXACT), primary_key=True),
            sa.Column("key", sa.String(64, collation=_EXACT), primary_key=True),
            sa.Column("title", sa.String(200), nullable=False),
            sa.Column("about", sa.JSON, nullable=False),
            sa.Column("draft", sa.JSON, nullable=False),
            sa.Column("format", sa.Integer, nullable=False),
            sa.Column("revision", sa.Integer, nullable=False),
            sa.Column("draft_differs", sa.Boolean, nullable=False),
            sa.Column("published_version", sa.Integer, nullable=True),
            sa.Column("changed_at", DATETIME(fsp=6), nullable=False),
            sa.Index("ix_document_title", "kind", "title", "key"),
            **_TABLE,
        )
    if "document_version" not in there:
        op.create_table(
            "document_version",
            sa.Column("kind", sa.String(16, collation=_EXACT), primary_key=True),
            sa.Column("document_key", sa.String(64, collation=_EXACT), primary_key=True),
            sa.Column("number", sa.Integer, primary_key=True, autoincrement=False),
            sa.Column("document", sa.JSON, nullable=False),
            sa.Column("format", sa.Integer, nullable=False),
            sa.Column("base", sa.JSON, nullable=False),
            sa.Column("published_at", DATETIME(fsp=6), nullable=False),
            sa.Column("published_by", sa.String(254), nullable=False),
            **_TABLE,
        )
    if "document_editor" not in there:
        op.create_table(
            "document_editor",
            sa.Column("kind", sa.String(16, collation=_EXACT), primary_key=True),
            sa.Column("document_key", sa.String(64, collation=_EXACT), primary_key=True),
            sa.Column("page", sa.String(32, collation=_EXACT), primary_key=True),
            sa.Column("name", sa.String(254), nullable=False),
            sa.Column("since", DATETIME(fsp=6), nullable=False),
            sa.Column("seen_at", DATETIME(fsp=6), nullable=False),
            sa.Index("ix_document_editor_seen_at", "seen_at"),
            **_TABLE,
        )
    # What a repeated request made may be a document, whose key is longer than an id.
    _idempotency(scope=255, record=64)
    for kind, (table, about) in _KINDS.items():
        if table in there:
            _take_over(kind, table, about)
    # All of it is in its new place: only now what it stood in goes.
    for table, name in _FOREIGN:
        if name in {one["name"] for one in sa.inspect(op.get_bind()).get_foreign_keys(table)}:
            op.drop_constraint(name, table, type_="foreignkey")
    for table in ("form_editor", "form_version", "form", "own_layout_version", "own_layout",
                  "target_version", "target"):  # fmt: skip
        op.execute(sa.text(f"DROP TABLE IF EXISTS {table}"))


def _idempotency(**lengths: int) -> None:
    for column, length in lengths.items():
        wanted = sa.String(length, collation=_EXACT)
        op.alter_column("idempotency", column, existing_type=wanted, type_=wanted, nullable=False)


def _take_over(kind: str, table: str, about: str) -> None:
    columns = {one["name"] for one in sa.inspect(op.get_bind()).get_columns(table)}
    written = "format" if "format" in columns else "2" if kind == "form" else "1"
    base = "base" if kind == "own_layout" else "JSON_OBJECT()"
    op.execute(
        sa.text(
            "INSERT IGNORE INTO document (kind, `key`, title, about, draft, format, revision, "
            "draft_differs, published_version, changed_at) "
            f"SELECT '{kind}', `key`, title, {about}, draft, {written}, revision, "
            f"draft_differs, published_version, changed_at FROM {table}"
        )
    )
    op.execute(
        sa.text(
            "INSERT IGNORE INTO document_version (kind, document_key, number, document, format, "
            "base, published_at, published_by) "
            f"SELECT '{kind}', {table}, number, document, {written}, {base}, "
            f"published_at, published_by FROM {table}_version"
        )
    )


def downgrade() -> None:
    for kind, (table, _about) in _KINDS.items():
        is_form, is_own = kind == "form", kind == "own_layout"
        op.create_table(
            table,
            sa.Column("key", sa.String(64, collation=_EXACT), primary_key=True),
            sa.Column("title", sa.String(200), nullable=False),
            sa.Column("draft", sa.JSON, nullable=False),
            sa.Column("revision", sa.Integer, nullable=False),
            sa.Column("draft_differs", sa.Boolean, nullable=False),
            sa.Column("published_version", sa.Integer, nullable=True),
            sa.Column("changed_at", DATETIME(fsp=6), nullable=False),
            *([sa.Column("kind", sa.String(16, collation=_EXACT), nullable=False)] * is_form),
            *([sa.Column("format", sa.Integer, nullable=False)] * is_form),
            **_TABLE,
        )
        op.create_table(
            f"{table}_version",
            sa.Column(table, sa.String(64, collation=_EXACT), primary_key=True),
            sa.Column("number", sa.Integer, primary_key=True, autoincrement=False),
            sa.Column("document", sa.JSON, nullable=False),
            sa.Column("published_at", DATETIME(fsp=6), nullable=False),
            sa.Column("published_by", sa.String(254), nullable=False),
            *([sa.Column("base", sa.JSON, nullable=False)] * is_own),
            *([sa.Column("format", sa.Integer, nullable=False)] * is_form),
            **_TABLE,
        )
        more, of = (", kind, format", ", JSON_VALUE(about, '$.kind'), format") * is_form or ("", "")
        op.execute(
            sa.text(
                f"INSERT INTO {table} (`key`, title, draft, revision, draft_differs, "
                f"published_version, changed_at{more}) SELECT `key`, title, draft, revision, "
                f"draft_differs, published_version, changed_at{of} FROM document "
                f"WHERE kind = '{kind}'"
            )
        )
        more = ", format" if is_form else ", base" if is_own else ""
        op.execute(
            sa.text(
                f"INSERT INTO {table}_version ({table}, number, document, published_at, "
                f"published_by{more}) SELECT document_key, number, document, published_at, "
                f"published_by{more} FROM document_version WHERE kind = '{kind}'"
            )
        )
        if not is_own:
            op.create_foreign_key(
                f"fk_{table}_version_{table}_{table}", f"{table}_version", table, [table], ["key"]
            )
    op.create_table(
        "form_editor",
        sa.Column("form", sa.String(64, collation=_EXACT), primary_key=True),
        sa.Column("page", sa.String(32, collation=_EXACT), primary_key=True),
        sa.Column("name", sa.String(254), nullable=False),
        sa.Column("since", DATETIME(fsp=6), nullable=False),
        sa.Column("seen_at", DATETIME(fsp=6), nullable=False),
        sa.ForeignKeyConstraint(
            ["form"], ["form.key"], name="fk_form_editor_form_form", ondelete="CASCADE"
        ),
        sa.Index("ix_form_editor_seen_at", "seen_at"),
        **_TABLE,
    )
    op.create_foreign_key("fk_record_form_form", "record", "form", ["form"], ["key"])
    op.create_foreign_key(
        "fk_coverage_run_form_form", "coverage_run", "form", ["form"], ["key"], ondelete="CASCADE"
    )
    op.create_foreign_key(
        "fk_target_fault_target_target",
        "target_fault",
        "target",
        ["target"],
        ["key"],
        ondelete="CASCADE",
    )
    for table in ("document_editor", "document_version", "document"):
        op.drop_table(table)
    op.execute(sa.text("DELETE FROM idempotency WHERE LENGTH(record) > 32 OR LENGTH(scope) > 96"))
    _idempotency(scope=96, record=32)
