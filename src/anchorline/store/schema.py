"""The tables. Times are UTC with microseconds; texts are utf8mb4."""

from __future__ import annotations

from datetime import datetime
from typing import Any

from sqlalchemy import (
    JSON,
    BigInteger,
    Boolean,
    Double,
    ForeignKey,
    Index,
    Integer,
    String,
    Text,
    text,
)
from sqlalchemy.dialects.mysql import LONGBLOB, LONGTEXT
from sqlalchemy.orm import Mapped, mapped_column

from .columns import TABLE, Base, UtcTime, exact

# Names that are compared letter by letter, blanks at their ends included: keys, ids, codes.
_TABLE = TABLE


class UserRow(Base):
    __tablename__ = "user"
    __table_args__ = (_TABLE,)
    id: Mapped[int] = mapped_column(primary_key=True)
    email: Mapped[str] = mapped_column(exact(254), unique=True)
    name: Mapped[str] = mapped_column(String(120))
    password_hash: Mapped[str] = mapped_column(exact(255))
    created_at: Mapped[datetime] = mapped_column(UtcTime())


class LoginSessionRow(Base):
    __tablename__ = "login_session"
    __table_args__ = (_TABLE,)
    token_digest: Mapped[str] = mapped_column(exact(64), primary_key=True)
    user_id: Mapped[int] = mapped_column(ForeignKey("user.id", ondelete="CASCADE"))
    csrf_token: Mapped[str] = mapped_column(exact(64))
    expires_at: Mapped[datetime] = mapped_column(UtcTime(), index=True)


class SignInFailureRow(Base):
    __tablename__ = "sign_in_failure"
    __table_args__ = (_TABLE,)
    subject_digest: Mapped[str] = mapped_column(exact(64), primary_key=True)
    failures: Mapped[int] = mapped_column(Integer)
    last_at: Mapped[datetime] = mapped_column(UtcTime(), index=True)


class SignInPlaceRow(Base):
    __tablename__ = "sign_in_place"
    __table_args__ = (_TABLE,)
    account_digest: Mapped[str] = mapped_column(exact(64), primary_key=True)
    place_digest: Mapped[str] = mapped_column(exact(64), primary_key=True)
    last_at: Mapped[datetime] = mapped_column(UtcTime(), index=True)


class ApiKeyRow(Base):
    __tablename__ = "api_key"
    __table_args__ = (_TABLE,)
    id: Mapped[str] = mapped_column(exact(32), primary_key=True)
    kind: Mapped[str] = mapped_column(exact(16))
    name: Mapped[str] = mapped_column(String(120))
    secret_digest: Mapped[str] = mapped_column(exact(64))
    origins: Mapped[list[str]] = mapped_column(JSON)
    forms: Mapped[list[str]] = mapped_column(JSON)
    scopes: Mapped[list[str]] = mapped_column(JSON)
    targets: Mapped[list[str]] = mapped_column(JSON)
    created_at: Mapped[datetime] = mapped_column(UtcTime())
    expires_at: Mapped[datetime | None] = mapped_column(UtcTime())
    used_at: Mapped[datetime | None] = mapped_column(UtcTime())
    rotated_at: Mapped[datetime | None] = mapped_column(UtcTime())
    earlier_digest: Mapped[str | None] = mapped_column(exact(64))
    earlier_until: Mapped[datetime | None] = mapped_column(UtcTime())
    monthly_limit: Mapped[int | None] = mapped_column(Integer)
    warn_share: Mapped[float] = mapped_column(Double, default=0.8, server_default=text("0.8"))
    revoked: Mapped[bool] = mapped_column(Boolean, default=False)


class DatasetRow(Base):
    __tablename__ = "dataset"
    __table_args__ = (_TABLE,)
    name: Mapped[str] = mapped_column(exact(64), primary_key=True)
    active_edition: Mapped[int | None] = mapped_column(Integer)
    previous_edition: Mapped[int | None] = mapped_column(Integer)
    numbers_given: Mapped[int] = mapped_column(Integer, default=0)
    rules: Mapped[dict[str, Any]] = mapped_column(JSON, default=dict)


class EditionRow(Base):
    __tablename__ = "edition"
    __table_args__ = (_TABLE,)
    dataset: Mapped[str] = mapped_column(ForeignKey("dataset.name"), primary_key=True)
    number: Mapped[int] = mapped_column(Integer, primary_key=True, autoincrement=False)
    source_name: Mapped[str] = mapped_column(String(255))
    source_digest: Mapped[str] = mapped_column(exact(64))
    rows_used: Mapped[int] = mapped_column(Integer)
    rows_bad: Mapped[int] = mapped_column(Integer)
    addresses: Mapped[int] = mapped_column(Integer, default=0)
    report: Mapped[dict[str, Any]] = mapped_column(JSON)
    built_at: Mapped[datetime] = mapped_column(UtcTime())
    job: Mapped[str | None] = mapped_column(exact(32))
    changes_to: Mapped[int | None] = mapped_column(Integer)
    comparison: Mapped[dict[str, Any] | None] = mapped_column(JSON)
    index_bytes: Mapped[int] = mapped_column(BigInteger, default=0)
    rows_bytes: Mapped[int] = mapped_column(BigInteger, default=0)
    activated_at: Mapped[datetime | None] = mapped_column(UtcTime())


class JobRow(Base):
    __tablename__ = "job"
    __table_args__ = (Index("ix_job_state_made", "state", "made_at"), _TABLE)
    id: Mapped[str] = mapped_column(exact(32), primary_key=True)
    kind: Mapped[str] = mapped_column(exact(16))
    dataset: Mapped[str | None] = mapped_column(ForeignKey("dataset.name"))
    state: Mapped[str] = mapped_column(exact(16))
    options: Mapped[dict[str, Any]] = mapped_column(JSON)
    source_name: Mapped[str] = mapped_column(String(255))
    source_digest: Mapped[str] = mapped_column(exact(64), default="")
    made_at: Mapped[datetime] = mapped_column(UtcTime())
    made_by: Mapped[str] = mapped_column(String(254))
    started_at: Mapped[datetime | None] = mapped_column(UtcTime())
    ended_at: Mapped[datetime | None] = mapped_column(UtcTime())
    claim: Mapped[str] = mapped_column(exact(32), default="")
    lease_until: Mapped[datetime | None] = mapped_column(UtcTime())
    attempts: Mapped[int] = mapped_column(Integer, default=0)
    cancel_asked: Mapped[bool] = mapped_column(Boolean, default=False)
    phase: Mapped[str] = mapped_column(exact(16), default="")
    phase_at: Mapped[datetime | None] = mapped_column(UtcTime())
    reading_seconds: Mapped[float] = mapped_column(Double, default=0.0)
    rows_done: Mapped[int] = mapped_column(Integer, default=0)
    rows_bad: Mapped[int] = mapped_column(Integer, default=0)
    bytes_done: Mapped[int] = mapped_column(BigInteger, default=0)
    bytes_total: Mapped[int] = mapped_column(BigInteger, default=0)
    edition: Mapped[int | None] = mapped_column(Integer)
    message: Mapped[str] = mapped_column(Text, default="")
    file_kept: Mapped[bool] = mapped_column(Boolean, default=False, server_default=text("0"))
    # Emptied when the job ends: unique among those that have not.
    alone: Mapped[str | None] = mapped_column(exact(200), unique=True)


class SourcePartRow(Base):
    __tablename__ = "source_part"
    __table_args__ = (_TABLE,)
    job: Mapped[str] = mapped_column(ForeignKey("job.id", ondelete="CASCADE"), primary_key=True)
    position: Mapped[int] = mapped_column(Integer, primary_key=True, autoincrement=False)
    data: Mapped[bytes] = mapped_column(LONGBLOB)


class RowBlockRow(Base):
    __tablename__ = "row_block"
    __table_args__ = (_TABLE,)
    job: Mapped[str] = mapped_column(ForeignKey("job.id", ondelete="CASCADE"), primary_key=True)
    position: Mapped[int] = mapped_column(Integer, primary_key=True, autoincrement=False)
    rows_used: Mapped[int] = mapped_column(Integer)
    last_line: Mapped[int] = mapped_column(Integer)
    data: Mapped[bytes] = mapped_column(LONGBLOB)
    notes: Mapped[bytes] = mapped_column(LONGBLOB)


class CoverageRunRow(Base):
    __tablename__ = "coverage_run"
    __table_args__ = (Index("ix_coverage_run_slot", "form", "slot", "made_at"), _TABLE)
    job: Mapped[str] = mapped_column(exact(32), primary_key=True)
    kind: Mapped[str] = mapped_column(exact(16))
    form: Mapped[str] = mapped_column(exact(64))
    slot: Mapped[str] = mapped_column(exact(64))
    version: Mapped[int | None] = mapped_column(Integer)
    revision: Mapped[int] = mapped_column(Integer)
    source: Mapped[str] = mapped_column(exact(16))
    made_at: Mapped[datetime] = mapped_column(UtcTime())
    made_by: Mapped[str] = mapped_column(String(254))
    seconds: Mapped[float] = mapped_column(Double)
    result: Mapped[dict[str, Any]] = mapped_column(JSON)


class TargetFaultRow(Base):
    __tablename__ = "target_fault"
    __table_args__ = (_TABLE,)
    target: Mapped[str] = mapped_column(exact(64), primary_key=True)
    kind: Mapped[str] = mapped_column(exact(32), primary_key=True)
    subject: Mapped[str] = mapped_column(exact(200), primary_key=True)
    detail: Mapped[str] = mapped_column(String(600))
    count: Mapped[int] = mapped_column(Integer)
    first_at: Mapped[datetime] = mapped_column(UtcTime())
    last_at: Mapped[datetime] = mapped_column(UtcTime())
    browser: Mapped[str] = mapped_column(String(200))


class RecordRow(Base):
    __tablename__ = "record"
    __table_args__ = (
        Index("ix_record_form_made", "form", "made_at", "id"),
        Index("ix_record_form_label", "form", "label", "id"),
        Index("ix_record_made", "made_at", "id"),
        Index("ix_record_label", "label", "id"),
        _TABLE,
    )
    id: Mapped[str] = mapped_column(exact(32), primary_key=True)
    form: Mapped[str] = mapped_column(exact(64))
    form_version: Mapped[int] = mapped_column(Integer)
    label: Mapped[str] = mapped_column(String(200))
    field_values: Mapped[dict[str, Any]] = mapped_column(JSON)
    search_text: Mapped[str] = mapped_column(LONGTEXT)
    made_at: Mapped[datetime] = mapped_column(UtcTime())
    made_by: Mapped[str] = mapped_column(String(254))
    language: Mapped[str] = mapped_column(exact(35), default="", server_default="")
    revision: Mapped[int] = mapped_column(Integer, default=1, server_default="1")
    changed_at: Mapped[datetime | None] = mapped_column(UtcTime())
    changed_by: Mapped[str | None] = mapped_column(String(254))
    typed_values: Mapped[dict[str, str] | None] = mapped_column(JSON(none_as_null=True))


class RecordRevisionRow(Base):
    __tablename__ = "record_revision"
    __table_args__ = (_TABLE,)
    record: Mapped[str] = mapped_column(
        ForeignKey("record.id", ondelete="CASCADE"), primary_key=True
    )
    number: Mapped[int] = mapped_column(Integer, primary_key=True, autoincrement=False)
    form_version: Mapped[int] = mapped_column(Integer)
    field_values: Mapped[dict[str, Any]] = mapped_column(JSON)
    addresses: Mapped[list[dict[str, Any]]] = mapped_column(JSON)
    made_at: Mapped[datetime] = mapped_column(UtcTime())
    made_by: Mapped[str] = mapped_column(String(254))


class RecordAddressRow(Base):
    __tablename__ = "record_address"
    __table_args__ = (Index("ix_record_address_country", "country_code", "record"), _TABLE)
    record: Mapped[str] = mapped_column(
        ForeignKey("record.id", ondelete="CASCADE"), primary_key=True
    )
    slot: Mapped[str] = mapped_column(exact(64), primary_key=True)
    position: Mapped[int] = mapped_column(Integer)
    country_code: Mapped[str] = mapped_column(exact(2))
    components: Mapped[dict[str, str]] = mapped_column(JSON)
    facts: Mapped[dict[str, Any]] = mapped_column(JSON)
    address_id: Mapped[str | None] = mapped_column(exact(160))
    edition: Mapped[str | None] = mapped_column(exact(100))
    typed: Mapped[str] = mapped_column(Text)
    changed: Mapped[list[str]] = mapped_column(JSON)
    layout: Mapped[str] = mapped_column(exact(200), default="")
    pin: Mapped[dict[str, Any] | None] = mapped_column(JSON(none_as_null=True))


class IdempotencyRow(Base):
    __tablename__ = "idempotency"
    __table_args__ = (_TABLE,)
    scope: Mapped[str] = mapped_column(exact(255), primary_key=True)
    key_digest: Mapped[str] = mapped_column(exact(64), primary_key=True)
    request_digest: Mapped[str] = mapped_column(exact(64))
    record: Mapped[str] = mapped_column(exact(64))
    made_at: Mapped[datetime] = mapped_column(UtcTime(), index=True)
