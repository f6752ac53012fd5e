"""Mistakes and runs of targets speak of fields, as the targets do; mappings of targets are covered.

Targets themselves are not rewritten: what is kept is read by its format (`core.targets.upgrade`).
"""

from __future__ import annotations

import json

import sqlalchemy as sa
from alembic import op

revision = "0023"
down_revision = "0022"
branch_labels = None
depends_on = None

_RUN = sa.table("target_run", sa.column("id", sa.Integer), sa.column("report", sa.JSON))
_BATCH = 500
_EXACT = "utf8mb4_nopad_bin"


def upgrade() -> None:
    columns = {one["name"] for one in sa.inspect(op.get_bind()).get_columns("coverage_run")}
    if "kind" not in columns:
        kind = sa.Column(
            "kind", sa.String(16, collation=_EXACT), nullable=False, server_default="form"
        )
        op.add_column("coverage_run", kind)
        op.alter_column(
            "coverage_run", "kind", server_default=None, existing_nullable=False,
            existing_type=sa.String(16, collation=_EXACT),
        )  # fmt: skip
    _kinds("input_", "field_")
    _reports("parts", "part", "fields", "field")


def downgrade() -> None:
    columns = {one["name"] for one in sa.inspect(op.get_bind()).get_columns("coverage_run")}
    if "kind" in columns:
        op.get_bind().execute(sa.text("DELETE FROM coverage_run WHERE kind <> 'form'"))
        op.drop_column("coverage_run", "kind")
    _kinds("field_", "input_")
    _reports("fields", "field", "parts", "part")


def _kinds(old: str, new: str) -> None:
    op.get_bind().execute(
        sa.text("UPDATE target_fault SET kind = REPLACE(kind, :old, :new)"),
        {"old": old, "new": new},
    )


def _reports(old: str, old_entry: str, new: str, new_entry: str) -> None:
    connection, last = op.get_bind(), 0
    while True:
        query = sa.select(_RUN).where(_RUN.c.id > last).order_by(_RUN.c.id).limit(_BATCH)
        rows = connection.execute(query).all()
        if not rows:
            return
        for number, given in rows:
            report = json.loads(given) if isinstance(given, str) else dict(given)
            if old in report:
                entries = [
                    {new_entry if name == old_entry else name: value for name, value in one.items()}
                    for one in report.pop(old)
                ]
                changed = sa.update(_RUN).where(_RUN.c.id == number)
                connection.execute(changed.values(report={**report, new: entries}))
            last = number
