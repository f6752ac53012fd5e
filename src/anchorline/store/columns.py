"""What tables are made of: their base, kinds of columns, and columns that several have."""

from __future__ import annotations

from datetime import UTC, datetime
from typing import Any

from sqlalchemy import JSON, Boolean, Integer, MetaData, String, TypeDecorator
from sqlalchemy.dialects.mysql import DATETIME
from sqlalchemy.engine import Dialect
from sqlalchemy.orm import DeclarativeBase, Mapped, mapped_column

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


class DraftColumns(Base):
    """The columns of every document that is edited as a draft."""

    __abstract__ = True

    key: Mapped[str] = mapped_column(exact(64), primary_key=True)
    title: Mapped[str] = mapped_column(String(200))
    draft: Mapped[dict[str, Any]] = mapped_column(JSON)
    revision: Mapped[int] = mapped_column(Integer)
    draft_differs: Mapped[bool] = mapped_column(Boolean)
    published_version: Mapped[int | None] = mapped_column(Integer)
    changed_at: Mapped[datetime] = mapped_column(UtcTime())


class VersionColumns(Base):
    """The columns of every published version; `of` is the document's key."""

    __abstract__ = True

    of: Mapped[str]
    number: Mapped[int] = mapped_column(Integer, primary_key=True, autoincrement=False)
    document: Mapped[dict[str, Any]] = mapped_column(JSON)
    published_at: Mapped[datetime] = mapped_column(UtcTime())
    published_by: Mapped[str] = mapped_column(String(254))
