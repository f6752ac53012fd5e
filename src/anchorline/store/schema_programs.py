"""The tables of programs on the desktop: looks at their screens, and runs."""

from __future__ import annotations

from datetime import datetime
from typing import Any

from sqlalchemy import JSON, BigInteger, Index, Integer
from sqlalchemy.orm import Mapped, mapped_column

from .columns import TABLE, Base, UtcTime, exact


class LookRow(Base):
    """A look at a screen."""

    __tablename__ = "look"
    __table_args__ = (TABLE,)
    id: Mapped[str] = mapped_column(exact(32), primary_key=True)
    facts: Mapped[list[dict[str, Any]]] = mapped_column(JSON)
    machine: Mapped[str] = mapped_column(exact(200))
    by: Mapped[str] = mapped_column("sent_by", exact(254))
    at: Mapped[datetime] = mapped_column(UtcTime(), index=True)


class TargetRunRow(Base):
    """A run of a program target; `report` is what an agent told of it."""

    __tablename__ = "target_run"
    __table_args__ = (Index("ix_target_run_target_id", "target", "id"), TABLE)
    id: Mapped[int] = mapped_column(BigInteger, primary_key=True, autoincrement=True)
    target: Mapped[str] = mapped_column(exact(64))
    version: Mapped[int] = mapped_column(Integer)
    report: Mapped[dict[str, Any]] = mapped_column(JSON)
    by: Mapped[str] = mapped_column("told_by", exact(254))
    at: Mapped[datetime] = mapped_column(UtcTime(), index=True)
