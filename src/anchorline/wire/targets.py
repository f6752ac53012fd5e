"""Targets: pages and programs that are not ours, as they are kept and attached to."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Any, Literal

from pydantic import Discriminator, Field, RootModel, Tag

from .base import RequestSchema, Schema, ShortText, Text, example
from .documents import (
    DifferenceRequest,
    DocumentDraft,
    DocumentList,
    DocumentSummary,
    DocumentVersion,
)
from .page_targets import EXAMPLE_TARGET, PageTargetDocument
from .program_targets import ProgramTargetDocument

_SUMMARY = {
    "key": "checkout",
    "kind": "page",
    "title": "Checkout of the shop",
    "published_version": 1,
    "draft_differs": False,
    "changed_at": "2027-03-01T12:00:00Z",
}


def _kind(document: object) -> str:
    """Of which kind a document is; a page where it does not say."""
    kind = document.get("kind") if isinstance(document, dict) else getattr(document, "kind", None)
    return "Program" if kind == "program" else "Page"


AnyTarget = Annotated[
    Annotated[PageTargetDocument, Tag("Page")] | Annotated[ProgramTargetDocument, Tag("Program")],
    Discriminator(_kind),
]


class TargetDocument(RootModel[AnyTarget]):
    """A target of any kind as it is written down."""

    model_config = example(EXAMPLE_TARGET)


def target_as_kept(document: PageTargetDocument | ProgramTargetDocument) -> dict[str, Any]:
    """The document without what was left out or has no effect: how it is kept and compared."""
    return document.model_dump(mode="json", exclude_defaults=True) | {
        "key": document.key,
        "kind": document.kind,
        "title": document.title,
    }


class TargetSummary(DocumentSummary):
    """A target in a list."""

    model_config = example(_SUMMARY)
    kind: str


class TargetList(DocumentList):
    """Targets, by title."""

    model_config = example({"targets": [_SUMMARY]})
    targets: list[TargetSummary]


class TargetDraft(DocumentDraft):
    """A draft, what stands against publishing it, and what should be known of it."""

    model_config = example(
        {
            "document": EXAMPLE_TARGET,
            "summary": _SUMMARY,
            "problems": [],
            "warnings": [
                {
                    "pointer": "/addresses/0/mapping",
                    "detail": "No rule takes the building, which 3 of 20 addresses have.",
                }
            ],
        }
    )
    document: AnyTarget
    summary: TargetSummary


class TargetVersion(DocumentVersion):
    """A published version of a target as it was."""

    model_config = example(
        {
            "document": EXAMPLE_TARGET,
            "version": 1,
            "published_at": "2027-03-01T12:00:00Z",
            "published_by": "robin@example.org",
        }
    )
    document: AnyTarget


class TargetDifferenceRequest(DifferenceRequest):
    """What to compare: left out, the draft with what is published."""

    model_config = example({}) | {"extra": "forbid"}
    document: AnyTarget | None = Field(default=None, description="Instead of the draft")


class CountryFieldSchema(Schema):
    """The field in which a page says the country, and what the mapping writes there for each."""

    field: str
    texts: dict[str, str] = Field(description="By country code")


class AttachedTarget(Schema):
    """A published target, as a page attaches to it."""

    model_config = example(
        {
            "document": EXAMPLE_TARGET,
            "version": 1,
            "country_fields": {"delivery": {"field": "country", "texts": {"GB": "GBR"}}},
        }
    )
    document: PageTargetDocument
    version: int
    country_fields: dict[str, CountryFieldSchema] = Field(
        description="By the keys of addresses that fill a field with the country alone"
    )


FaultKind = Literal[
    "attribute",
    "path",
    "field_missing",
    "field_several",
    "selector",
    "field_locked",
    "address_unknown",
    "option_missing",
    "value_refused",
    "twice",
    "refused",
]


class TargetFaultReport(RequestSchema):
    """A mistake of set-up that a page has found: never what somebody typed."""

    model_config = example(
        {
            "kind": "field_missing",
            "subject": "town",
            "detail": "the field “town” is not on this page: looked for name “ship_town”.",
        }
    ) | {"extra": "forbid"}
    kind: FaultKind
    subject: Annotated[ShortText, Field(description="A field's key, an attribute, a path")] = ""
    detail: Annotated[Text, Field(max_length=600)]


class TargetFaultSchema(Schema):
    """A mistake of set-up, as often as pages have reported it."""

    kind: FaultKind
    subject: str
    detail: str
    count: int
    first_at: datetime
    last_at: datetime
    browser: str = Field(description="Of the latest report, as it names itself")


class TargetFaultList(Schema):
    """Mistakes of set-up, the latest first."""

    model_config = example(
        {
            "faults": [
                {
                    "kind": "field_missing",
                    "subject": "town",
                    "detail": "the field “town” is not on this page: looked for name “ship_town”.",
                    "count": 12,
                    "first_at": "2027-03-01T10:42:00Z",
                    "last_at": "2027-03-02T08:15:00Z",
                    "browser": "Mozilla/5.0 (X11; Linux x86_64) Gecko/20100101 Firefox/130.0",
                }
            ]
        }
    )
    faults: list[TargetFaultSchema]
