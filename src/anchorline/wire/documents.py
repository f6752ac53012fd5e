"""What all kinds of documents share: lists, drafts, differences, versions, who edits."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Any, Literal

from pydantic import Field

from .base import Key, PageQuery, PageSchema, RequestSchema, Schema, ShortText, example
from .problems import ProblemPlace

VersionNumber = Annotated[int, Field(ge=1, le=2**31 - 1)]
NewKey = Annotated[Key, Field(pattern="^[a-z][a-z0-9_-]{0,63}$")]

SUMMARY: dict[str, Any] = {
    "published_version": 1,
    "draft_differs": False,
    "changed_at": "2026-03-01T12:00:00Z",
}


class DocumentSummary(Schema):
    """What lists show of a document of any kind."""

    key: str
    title: str
    published_version: int | None
    draft_differs: bool = Field(description="Whether the draft is not what is published")
    changed_at: datetime


class DocumentListQuery(PageQuery):
    """Which of the documents of a kind."""

    search: ShortText = Field(
        default="", description="Only those in whose title or key each of its words stands"
    )


class DocumentList(PageSchema):
    """A page of the documents of a kind, by title."""


class DraftQuery(RequestSchema):
    """How a draft is kept."""

    unfinished: bool = Field(
        default=False,
        description="Keep it although something in it is wrong, which the answer then names; "
        "it cannot be published before that is mended",
    )


class DocumentDraft(Schema):
    """A draft and what there is to say of it; the ETag header names its state."""

    problems: list[ProblemPlace] = Field(description="What stands against publishing it")
    warnings: list[ProblemPlace] = Field(default=[], description="What should be known of it")


class DifferenceQuery(RequestSchema):
    """What to compare: left out, the draft with what is published."""

    since: VersionNumber | None = Field(
        default=None, description="A version, instead of the published one"
    )
    until: VersionNumber | None = Field(default=None, description="A version, instead of the draft")


class DifferenceRequest(DifferenceQuery):
    """The same for a document that is given; each kind has its own schema of one."""


class ChangeSchema(Schema):
    """One change."""

    kind: Literal["added", "removed", "changed", "moved"]
    pointer: str = Field(description="Into the new document; into the old one where it is removed")
    detail: str
    records: int | None = Field(
        description="Of a form's field or slot that is removed: how many records keep "
        "something in it"
    )


class DifferenceAnswer(Schema):
    """What changes, and what there is to say of the new document."""

    model_config = example(
        {
            "changes": [
                {
                    "kind": "removed",
                    "pointer": "/fields/3",
                    "detail": "“Fax” is removed: 214 records keep their value.",
                    "records": 214,
                }
            ],
            "problems": [],
            "is_new": False,
        }
    )
    changes: list[ChangeSchema]
    problems: list[ProblemPlace] = Field(description="What stands against publishing")
    warnings: list[ProblemPlace] = Field(default=[], description="What should be known")
    unreadable: int = Field(
        default=0, description="How many of these, the first ones, stand against keeping it, too"
    )
    is_new: bool = Field(description="Whether nothing is published to compare with")


class DocumentVersionSchema(Schema):
    """A published version in the list of all."""

    number: int
    published_at: datetime
    published_by: str
    in_force: bool
    records: int | None = Field(
        description="Of a form: how many records were made with it; null where there are none"
    )
    changes: list[str] = Field(description="What it changed, in sentences; the first few")
    more_changes: int = Field(description="How many further ones there are")


class VersionsQuery(PageQuery):
    """Which of a document's versions."""

    limit: Annotated[int, Field(ge=1, le=200)] = 50


class DocumentVersions(PageSchema):
    """Versions of a document, the newest first."""

    model_config = example(
        {
            "versions": [
                {
                    "number": 2,
                    "published_at": "2026-03-01T12:00:00Z",
                    "published_by": "robin@example.org",
                    "in_force": True,
                    "records": 12,
                    "changes": ["“Phone” is now required."],
                    "more_changes": 0,
                }
            ]
        }
    )
    versions: list[DocumentVersionSchema]


class DocumentVersion(Schema):
    """A published version as it was."""

    version: int
    published_at: datetime
    published_by: str


class RestoreRequest(RequestSchema):
    """The version to go back to."""

    model_config = example({"version": 1}) | {"extra": "forbid"}
    version: Annotated[int, Field(ge=0, le=2**31 - 1)] = Field(
        description="0: none is published any more"
    )


class CopyRequest(RequestSchema):
    """What the copy of a draft is called."""

    model_config = example({"key": "tuning-visit-north", "title": "Visits, north"}) | {
        "extra": "forbid"
    }
    key: NewKey
    title: Annotated[ShortText, Field(min_length=1)] | None = Field(
        default=None, description="Left out: the same"
    )


class EditorRequest(RequestSchema):
    """An open page with the draft."""

    model_config = example({"page": "p8f3k2a9"}) | {"extra": "forbid"}
    page: Annotated[str, Field(pattern=r"^[a-z0-9]{6,32}$")] = Field(
        description="Names the open page, made up by it"
    )
    leaves: bool = Field(default=False, description="The page is being closed")


class EditorSchema(Schema):
    """Somebody else who has the draft open."""

    name: str
    since: datetime


class Editors(Schema):
    """Who else has the draft open, the earliest first; and whether it has changed."""

    model_config = example(
        {"editors": [{"name": "kim@example.org", "since": "2026-03-01T12:00:00Z"}], "revision": 3}
    )
    editors: list[EditorSchema]
    revision: int = Field(description="Of the draft: it grows with each change")
