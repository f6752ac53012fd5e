"""Forms: the document that describes one, drafts, publishing, and filling a slot."""

from __future__ import annotations

from typing import Annotated, Any, Literal

from pydantic import Discriminator, Field, Tag

from .base import Key, RequestSchema, Schema, ShortText, Text, example
from .documents import (
    DifferenceRequest,
    DocumentDraft,
    DocumentList,
    DocumentSummary,
    DocumentVersion,
)
from .fields import FieldSchema, LanguageTag
from .formulas import FormLogic
from .rules import RuleSchema
from .slots import SlotSchema


class SlotPlace(RequestSchema):
    """Where a slot stands among the fields."""

    slot: Key


def _kind_of_entry(entry: object) -> str:
    """A form's entry places a slot where it names one; anything else must be a field."""
    named = entry.get("slot") if isinstance(entry, dict) else getattr(entry, "slot", None)
    return "Slot" if named is not None else "Field"


# Capitals in the tags: what names a variant is not part of a problem's place.
FormEntry = Annotated[
    Annotated[FieldSchema, Tag("Field")] | Annotated[SlotPlace, Tag("Slot")],
    Discriminator(_kind_of_entry),
]


_SUMMARY = {
    "key": "tuning-visit",
    "kind": "web",
    "title": "Book a piano visit",
    "published_version": 1,
    "draft_differs": False,
    "record_count": 12,
    "changed_at": "2026-03-01T12:00:00Z",
}
_NO_LOGIC: dict[str, Any] = {
    "order": ["note", "door", "door_street"],
    "formulas": {},
    "shown": {},
    "required": {},
}
_DOCUMENT = {
    "key": "door-list",
    "kind": "record",
    "title": "Doors",
    "fields": [{"key": "note", "label": "Note"}, {"slot": "door"}],
    "slots": [
        {
            "key": "door",
            "label": "Door",
            "countries": ["GB"],
            "parts": [{"key": "door_street", "component": "street"}],
            "mapping": [{"components": ["number", "street"], "into": "door_street"}],
        }
    ],
}


class ItemTranslation(RequestSchema):
    """What a field or slot says in another language; what is left out stays as it is."""

    label: ShortText | None = None
    help: Text | None = None
    placeholder: ShortText | None = None
    options: Annotated[
        dict[ShortText, ShortText], Field(max_length=500, description="Labels by value")
    ] = {}


class Translation(RequestSchema):
    """What a form says in another language."""

    title: ShortText | None = None
    intro: Text | None = None
    thanks: Text | None = None
    items: Annotated[
        dict[Key, ItemTranslation], Field(max_length=1000, description="By the keys")
    ] = {}


Origin = Annotated[str, Field(max_length=200, pattern=r"^https?://[^/\s,;'\"]+$")]


class PublicSettings(RequestSchema):
    """How a web form is open to everybody, and guarded against programs."""

    closed: bool = Field(default=False, description="Whether nobody can fill it now")
    closed_text: Text | None = Field(default=None, description="What is said instead of it then")
    sites: Annotated[list[Origin], Field(max_length=50)] = Field(
        default=[], description="Origins of the pages that may show its page in a frame"
    )
    without_trap: bool = Field(
        default=False, description="Whether to do without a field that only programs fill"
    )
    least_seconds: Annotated[int, Field(ge=0, le=600)] = Field(
        default=2, description="Sent sooner after it was opened, it is not kept"
    )
    most_per_minute: Annotated[int, Field(ge=1, le=10_000)] = Field(
        default=30, description="Records that one network address may make"
    )
    addresses_per_month: Annotated[int, Field(ge=0, le=100_000_000)] = Field(
        default=10_000, description="Addresses that its public page may fetch in a month (UTC)"
    )
    addresses_per_day: Annotated[int, Field(ge=0, le=100_000_000)] = Field(
        default=1_000, description="… and on a day (UTC)"
    )


class FormDocument(RequestSchema):
    """A form as it is written down."""

    model_config = example(_DOCUMENT)
    key: Key
    kind: Literal["record", "web"]
    title: Annotated[ShortText, Field(min_length=1)]
    style: Literal["whole", "pages", "questions"] = Field(
        default="whole",
        description="Filled all at once, page by page, or one question at a time",
    )
    keeps_hidden: bool = Field(
        default=False, description="Whether what is hidden is kept with a record all the same"
    )
    language: LanguageTag | None = Field(
        default=None, description="That it is written in; left out: en"
    )
    translations: Annotated[dict[LanguageTag, Translation], Field(max_length=30)] = {}
    intro: Text | None = None
    thanks: Text | None = None
    public: PublicSettings | None = Field(
        default=None, description="Of a web form: who may send it, and from where"
    )
    fields: Annotated[list[FormEntry], Field(max_length=500)] = []
    slots: Annotated[list[SlotSchema], Field(max_length=20)] = []


class FormSummary(DocumentSummary):
    """What lists show of a form."""

    model_config = example(_SUMMARY)
    kind: Literal["record", "web"]
    record_count: int


class FormList(DocumentList):
    """Forms, by title."""

    model_config = example({"forms": [_SUMMARY]})
    forms: list[FormSummary]


class FormQuery(RequestSchema):
    """The published version, or the draft."""

    draft: bool = False


class MapTiles(Schema):
    """Where maps take their pictures from."""

    address: str = Field(description="With {z}, {x} and {y}")
    attribution: str


class FormAnswer(Schema):
    """A form to be filled; `version` is None for a draft."""

    model_config = example(
        {
            "document": _DOCUMENT,
            "version": 1,
            "logic": _NO_LOGIC,
        }
    )
    document: FormDocument
    version: int | None
    logic: FormLogic
    tiles: MapTiles | None = Field(default=None, description="Of maps, where any are set up")


class BroughtSchema(Schema):
    """What own layouts bring to a slot beside what its form says."""

    parts: list[FieldSchema]
    mapping: list[RuleSchema]


class FormDraft(DocumentDraft):
    """A form's draft; the ETag header names its state."""

    model_config = example(
        {
            "document": _DOCUMENT,
            "summary": _SUMMARY,
            "problems": [],
            "logic": _NO_LOGIC,
            "brought": {},
        }
    )
    document: FormDocument
    summary: FormSummary
    logic: FormLogic = Field(description="Of those formulas that can be worked out")
    brought: dict[str, BroughtSchema] = Field(
        description="What own layouts bring to its slots, by the slots' keys"
    )


class FormVersion(DocumentVersion):
    """A published version of a form as it was."""

    model_config = example(
        {
            "document": _DOCUMENT,
            "version": 1,
            "published_at": "2026-03-01T12:00:00Z",
            "published_by": "robin@example.org",
            "logic": _NO_LOGIC,
        }
    )
    document: FormDocument
    logic: FormLogic


class FormDifferenceRequest(DifferenceRequest):
    """What to compare: left out, the draft with what is published."""

    model_config = example({}) | {"extra": "forbid"}
    document: FormDocument | None = Field(default=None, description="Instead of the draft")


def document_as_kept(document: FormDocument) -> dict[str, Any]:
    """The document without what was left out or has no effect: how it is kept and compared."""
    return document.model_dump(exclude_none=True, exclude_defaults=True) | {
        "key": document.key,
        "kind": document.kind,
    }
