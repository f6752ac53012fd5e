"""Conditions of forms are formulas; a form that was written down before is read as one of today.

Nothing is rewritten: what is kept stays as it was, and `core.forms.upgrade` reads it.
"""

from __future__ import annotations

revision = "0009"
down_revision = "0008"
branch_labels = None
depends_on = None


def upgrade() -> None:
    """Nothing to do."""


def downgrade() -> None:
    """Formulas stay: they can say more than a field and its values did."""
