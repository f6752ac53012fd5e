"""What a record is, new and kept."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from datetime import datetime
from typing import Any

from anchorline.core.forms import Captured


@dataclass(frozen=True, slots=True)
class NewRecord:
    """A checked, filled form, ready to be kept.

    Attributes:
        label: what lists show of it.
        language: in which its form was read; empty: in its own.
        typed: what was typed into fields that keep it otherwise, by their keys.
        planned: records of other forms that its links lead to and that are made with it.
    """

    form: str
    form_version: int
    label: str
    values: dict[str, Any]
    addresses: Sequence[Captured]
    made_by: str
    language: str = ""
    typed: Mapping[str, str] = field(default_factory=dict)
    planned: Sequence[PlannedRecord] = ()


@dataclass(frozen=True, slots=True)
class PlannedRecord:
    """A record that is made with another one that links to it, unless it is there by then.

    Attributes:
        field: the key of the link.
        id: that it gets.
        record: what it is.
        texts: by which one that is there is found, by the keys of its fields.
    """

    field: str
    id: str
    record: NewRecord
    texts: Mapping[str, str]


@dataclass(frozen=True, slots=True)
class RecordSummary:
    """A record as lists show it."""

    id: str
    form: str
    form_version: int
    label: str
    made_at: datetime
    made_by: str


@dataclass(frozen=True, slots=True)
class Record(RecordSummary):
    """A whole record."""

    values: dict[str, Any]
    addresses: Sequence[Captured]
    language: str
    typed: Mapping[str, str]
    revision: int
    changed_at: datetime | None
    changed_by: str | None


@dataclass(frozen=True, slots=True)
class RecordPage:
    """A page of a list; `after` fetches the next one, None at the end."""

    records: Sequence[RecordSummary]
    after: str | None
    total: int


@dataclass(frozen=True, slots=True)
class CaptureCounts:
    """How many records there are, and how well the latest addresses were captured.

    Attributes:
        records: all of them.
        recent: those made lately.
        captured: the latest captured addresses that were looked at, at most LATEST.
        picked: of these, picked in the finder.
        unchanged: of these, picked and not changed by hand.
    """

    records: int
    recent: int
    captured: int
    picked: int
    unchanged: int
