"""The tables of documents: their drafts, their versions, and who has a draft open."""

from __future__ import annotations

from datetime import datetime
from typing import Any

from sqlalchemy import JSON, Boolean, Index, Integer, String
from sqlalchemy.orm import Mapped, mapped_column

from .columns import TABLE, Base, UtcTime, exact


class DocumentRow(Base):
    """A document with its draft; `about` is what lists show of it beside the title."""

    __tablename__ = "document"
    __table_args__ = (Index("ix_document_title", "kind", "title", "key"), TABLE)
    kind: Mapped[str] = mapped_column(exact(16), primary_key=True)
    key: Mapped[str] = mapped_column(exact(64), primary_key=True)
    title: Mapped[str] = mapped_column(String(200))
    about: Mapped[dict[str, Any]] = mapped_column(JSON)
    draft: Mapped[dict[str, Any]] = mapped_column(JSON)
    format: Mapped[int] = mapped_column(Integer)
    revision: Mapped[int] = mapped_column(Integer)
    draft_differs: Mapped[bool] = mapped_column(Boolean)
    published_version: Mapped[int | None] = mapped_column(Integer)
    changed_at: Mapped[datetime] = mapped_column(UtcTime())


class DocumentVersionRow(Base):
    """A published version; `of` is its document's key."""

    __tablename__ = "document_version"
    # Not tied to document: what was captured goes on naming versions of own layouts that are gone.
    __table_args__ = (TABLE,)
    kind: Mapped[str] = mapped_column(exact(16), primary_key=True)
    of: Mapped[str] = mapped_column("document_key", exact(64), primary_key=True)
    number: Mapped[int] = mapped_column(Integer, primary_key=True, autoincrement=False)
    document: Mapped[dict[str, Any]] = mapped_column(JSON)
    format: Mapped[int] = mapped_column(Integer)
    base: Mapped[dict[str, Any]] = mapped_column(JSON)
    published_at: Mapped[datetime] = mapped_column(UtcTime())
    published_by: Mapped[str] = mapped_column(String(254))


class DocumentEditorRow(Base):
    """A page that has the draft of a document open."""

    __tablename__ = "document_editor"
    __table_args__ = (TABLE,)
    kind: Mapped[str] = mapped_column(exact(16), primary_key=True)
    of: Mapped[str] = mapped_column("document_key", exact(64), primary_key=True)
    page: Mapped[str] = mapped_column(exact(32), primary_key=True)
    name: Mapped[str] = mapped_column(String(254))
    since: Mapped[datetime] = mapped_column(UtcTime())
    seen_at: Mapped[datetime] = mapped_column(UtcTime(), index=True)
