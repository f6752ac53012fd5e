"""What is kept of documents, as it is handed out: their state, their versions."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import Any, NamedTuple

Document = dict[str, Any]
# The kinds that other tables name documents of.
FORM, TARGET = "form", "target"


def _as_it_is(document: Document, _format: int) -> Document:
    return document


def _nothing(_document: Document) -> dict[str, Any]:
    return {}


@dataclass(frozen=True, slots=True)
class StoredKind:
    """How documents of one kind are kept.

    Attributes:
        name: of the kind, in the tables.
        noun: what a document is called in messages.
        about: what lists show of a document beside its title.
        format: counts the ways in which documents of the kind have been written down.
        read: gives a document that was written down in an earlier format as today's.
    """

    name: str
    noun: str
    about: Callable[[Document], dict[str, Any]] = _nothing
    format: int = 1
    read: Callable[[Document, int], Document] = _as_it_is


@dataclass(frozen=True, slots=True)
class Entry:
    """What is kept about a document beside its draft.

    Attributes:
        revision: counts the draft's changes.
        draft_differs: whether the draft is not what is published.
        published_version: number of the version that is published, or None.
        about: what lists show of it beside its title.
    """

    key: str
    title: str
    revision: int
    draft_differs: bool
    published_version: int | None
    changed_at: datetime
    about: Mapping[str, Any]

    @property
    def tag(self) -> str:
        """Names the state that it is in: its draft, and what is published."""
        return f"{self.revision}-{self.published_version or 0}"


class Seen(NamedTuple):
    """The state of a document that a change was made to."""

    revision: int
    published: int

    @classmethod
    def of(cls, entry: Entry) -> Seen:
        """The state that an entry tells of."""
        return cls(entry.revision, entry.published_version or 0)


@dataclass(frozen=True, slots=True)
class Version:
    """A published version.

    Attributes:
        base: what else was true when it was published, as far as the kind keeps that.
    """

    key: str
    number: int
    document: Document
    published_at: datetime
    published_by: str
    base: Mapping[str, Any]


class Page(NamedTuple):
    """Some of a list; `after` is the cursor of the page after it, None where it is the last."""

    entries: Sequence[Entry]
    after: str | None
