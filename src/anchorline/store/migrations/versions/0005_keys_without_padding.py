"""Keys are compared with the blanks at their ends

Under utf8mb4_bin `race` and `race ` are the same: what was asked for one was done to the other.
"""

import sqlalchemy as sa
from alembic import op

revision = "0005"
down_revision = "0004"
branch_labels = None
depends_on = None

_PADDED, _EXACT = "utf8mb4_bin", "utf8mb4_nopad_bin"
# Both ends of a foreign key must have one collation, so the keys make way meanwhile.
_FOREIGN = [
    ("edition", "dataset", "dataset.name", ""),
    ("form_version", "form", "form.key", ""),
    ("record", "form", "form.key", ""),
    ("record_address", "record", "record.id", "ON DELETE CASCADE"),
    ("job", "dataset", "dataset.name", ""),
    ("source_part", "job", "job.id", "ON DELETE CASCADE"),
    ("row_block", "job", "job.id", "ON DELETE CASCADE"),
]


def upgrade() -> None:
    _change(_PADDED, _EXACT)


def downgrade() -> None:
    _change(_EXACT, _PADDED)


def _change(before: str, after: str) -> None:
    """Changes the columns of all tables; cut off in the middle, it can be run again."""
    for table, column, refers_to, _ in _FOREIGN:
        name = f"fk_{table}_{column}_{refers_to.partition('.')[0]}"
        op.execute(f"ALTER TABLE `{table}` DROP FOREIGN KEY IF EXISTS `{name}`")
    for table, changes in _columns(before).items():
        modified = (f"MODIFY {definition.format(collation=after)}" for definition in changes)
        op.execute(f"ALTER TABLE `{table}` {', '.join(modified)}")
    for table, column, refers_to, on_delete in _FOREIGN:
        other, _, key = refers_to.partition(".")
        op.execute(
            f"ALTER TABLE `{table}` ADD CONSTRAINT `fk_{table}_{column}_{other}` "
            f"FOREIGN KEY IF NOT EXISTS (`{column}`) REFERENCES `{other}` (`{key}`) {on_delete}"
        )


def _columns(collation: str) -> dict[str, list[str]]:
    """Definitions of the columns of a collation by table, with a place for another collation."""
    rows = op.get_bind().execute(
        sa.text(
            "SELECT table_name, column_name, column_type, is_nullable, column_default "
            "FROM information_schema.columns WHERE table_schema = DATABASE() "
            "AND collation_name = :collation AND data_type = 'varchar'"
        ),
        {"collation": collation},
    )
    found: dict[str, list[str]] = {}
    for table, column, kind, nullable, default in rows:
        null = "NULL" if nullable == "YES" else "NOT NULL"
        kept = "" if default in (None, "NULL") else f" DEFAULT {default}"
        found.setdefault(table, []).append(
            f"`{column}` {kind} CHARACTER SET utf8mb4 COLLATE {{collation}} {null}{kept}"
        )
    return found
