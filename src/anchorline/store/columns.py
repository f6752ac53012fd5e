"""What tables are made of: their base, kinds of columns, and columns that several have."""

from __future__ import annotations

from datetime import UTC, datetime
from typing import Any

from sqlalchemy import MetaData, String, TypeDecorator
from sqlalchemy.dialects.mysql import DATETIME
from sqlalchemy.engine import Dialect
from sqlalchemy.orm import DeclarativeBase

from .database import COLLATION

_EXACT = "utf8mb4_nopad_bin"
TABLE = {"mariadb_default_charset": "utf8mb4", "mariadb_collate": COLLATION}


class UtcTime(TypeDecorator[datetime]):
    """An aware UTC time, kept with microseconds."""

    impl = DATETIME(fsp=6)
    cache_ok = True

    def process_bind_param(self, value: datetime | None, dialect: Dialect) -> datetime | None:  # noqa: ARG002
        """As MariaDB keeps it: without a zone."""
        return None if value is None else value.astimezone(UTC).replace(tzinfo=None)

    def process_result_value(self, value: Any | None, dialect: Dialect) -> datetime | None:  # noqa: ARG002
        """As everything else has it: in UTC."""
        return None if value is None else value.replace(tzinfo=UTC)


class Base(DeclarativeBase):
    """Root of the tables."""

    metadata = MetaData(
        naming_convention={
            "ix": "ix_%(table_name)s_%(column_0_N_name)s",
            "uq": "uq_%(table_name)s_%(column_0_N_name)s",
            "fk": "fk_%(table_name)s_%(column_0_N_name)s_%(referred_table_name)s",
            "pk": "pk_%(table_name)s",
        }
    )


def exact(length: int) -> String:
    """A text column that compares letter by letter."""
    return String(length, collation=_EXACT)
