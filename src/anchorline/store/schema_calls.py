"""The tables of what is called: addresses that were fetched, activity, what is observed."""

from __future__ import annotations

from datetime import date, datetime

from sqlalchemy import BigInteger, Date, Double, Index, Integer, String
from sqlalchemy.dialects.mysql import LONGTEXT
from sqlalchemy.orm import Mapped, mapped_column

from .columns import TABLE, Base, UtcTime, exact


class AddressUseRow(Base):
    """An address that was fetched within a capture."""

    __tablename__ = "address_use"
    __table_args__ = (TABLE,)
    subject: Mapped[str] = mapped_column(exact(80), primary_key=True)
    digest: Mapped[str] = mapped_column(exact(32), primary_key=True)
    at: Mapped[datetime] = mapped_column(UtcTime(), index=True)


class UseDayRow(Base):
    """How many addresses one subject has fetched on a day."""

    __tablename__ = "use_day"
    __table_args__ = (TABLE,)
    subject: Mapped[str] = mapped_column(exact(80), primary_key=True)
    day: Mapped[date] = mapped_column(Date, primary_key=True, index=True)
    count: Mapped[int] = mapped_column(Integer)


class ActivityRow(Base):
    """A call."""

    __tablename__ = "activity"
    __table_args__ = (Index("ix_activity_subject_id", "subject", "id"), TABLE)
    id: Mapped[int] = mapped_column(BigInteger, primary_key=True, autoincrement=True)
    at: Mapped[datetime] = mapped_column(UtcTime(), index=True)
    subject: Mapped[str] = mapped_column(exact(80))
    origin: Mapped[str] = mapped_column(exact(200))
    endpoint: Mapped[str] = mapped_column(exact(80))
    of: Mapped[str] = mapped_column("document", exact(64))
    status: Mapped[int] = mapped_column(Integer)
    ms: Mapped[float] = mapped_column(Double)
    question: Mapped[str | None] = mapped_column(LONGTEXT)
    answer: Mapped[str | None] = mapped_column(LONGTEXT)


class ObservationRow(Base):
    """A key or target of which question and answer are kept."""

    __tablename__ = "observation"
    __table_args__ = (TABLE,)
    kind: Mapped[str] = mapped_column(exact(16), primary_key=True)
    name: Mapped[str] = mapped_column(exact(80), primary_key=True)
    until: Mapped[datetime] = mapped_column(UtcTime())
    by: Mapped[str] = mapped_column("observed_by", exact(254))


class CaptureDayRow(Base):
    """What was counted of captures on a day."""

    __tablename__ = "capture_day"
    __table_args__ = (TABLE,)
    kind: Mapped[str] = mapped_column(exact(16), primary_key=True)
    name: Mapped[str] = mapped_column(exact(64), primary_key=True)
    day: Mapped[date] = mapped_column(Date, primary_key=True, index=True)
    shown: Mapped[int] = mapped_column(BigInteger)
    begun: Mapped[int] = mapped_column(BigInteger)
    picked: Mapped[int] = mapped_column(BigInteger)
    partly: Mapped[int] = mapped_column(BigInteger)
    by_hand: Mapped[int] = mapped_column(BigInteger)
    changed: Mapped[int] = mapped_column(BigInteger)
    left: Mapped[int] = mapped_column("left_off", BigInteger)
    keys: Mapped[int] = mapped_column("keys_pressed", BigInteger)
    characters: Mapped[int] = mapped_column("characters_filled", BigInteger)


class NotFoundRow(Base):
    """What was searched and not found."""

    __tablename__ = "not_found"
    __table_args__ = (TABLE,)
    kind: Mapped[str] = mapped_column(exact(16), primary_key=True)
    name: Mapped[str] = mapped_column(exact(64), primary_key=True)
    digest: Mapped[str] = mapped_column(exact(32), primary_key=True)
    text: Mapped[str | None] = mapped_column(String(120))
    count: Mapped[int] = mapped_column(Integer)
    last_at: Mapped[datetime] = mapped_column(UtcTime(), index=True)
