"""Forms: the document that describes one, drafts, publishing, and filling a slot."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Any, Literal

from pydantic import Discriminator, Field, Tag

from .base import CountryCode, Key, RequestSchema, Schema, ShortText, Text, example
from .formulas import FormLogic, FormulaText
from .problems import ProblemPlace

Value = str | int | float | bool | Annotated[list[ShortText], Field(max_length=500)] | None
Values = Annotated[
    dict[Annotated[str, Field(max_length=64)], Value],
    Field(max_length=500, description="Values by the fields' keys"),
]


LanguageTag = Annotated[
    str,
    Field(
        max_length=35,
        pattern=r"^[a-z]{2,3}(-[A-Za-z0-9]{2,8})*$",
        description="BCP 47: de, pt-BR",
    ),
]
_SHOWN = "Shown only while this formula is yes"
_REQUIRED = "Must be filled while this formula is yes"


class FieldOption(RequestSchema):
    """One choice: what is kept and what is shown."""

    value: Annotated[ShortText, Field(min_length=1)]
    label: ShortText | None = None


class FieldSchema(RequestSchema):
    """One input of the form, or of a slot (then it may stand for a component)."""

    key: Key
    type: ShortText | None = None
    label: ShortText | None = None
    required: bool = False
    help: Text | None = None
    placeholder: ShortText | None = Field(
        default=None, description="An example that stands in it while it is empty"
    )
    options: Annotated[list[FieldOption], Field(max_length=500)] | None = None
    max_length: Annotated[int, Field(ge=1, le=100_000)] | None = None
    least: int | float | ShortText | None = Field(
        default=None, description="The least number, or the first date"
    )
    most: int | float | ShortText | None = Field(
        default=None, description="The greatest number, or the last date"
    )
    decimals: Annotated[int, Field(ge=0, le=10)] | None = Field(
        default=None, description="Digits behind the point, at most; 0 for whole numbers"
    )
    unit: Annotated[ShortText, Field(max_length=20)] | None = Field(
        default=None, description="What stands behind a number: km"
    )
    shown_when: FormulaText | None = Field(default=None, description=_SHOWN)
    required_when: FormulaText | None = Field(default=None, description=_REQUIRED)
    formula: FormulaText | None = Field(
        default=None, description="Of the type formula: what the field comes to"
    )
    hidden: bool = Field(
        default=False, description="Of the type formula: worked out without being seen"
    )
    default: Value = Field(default=None, description="What stands in it at first, as it is kept")
    form: Key | None = Field(
        default=None, description="Of a link: the form whose records can be chosen"
    )
    shows: Key | None = Field(
        default=None,
        description="Of a link: the field by which they are found; left out: their labels",
    )
    columns: Annotated[int, Field(ge=1, le=2)] | None = Field(
        default=None, description="Of a page or section: how many it has beside each other"
    )
    foldable: bool = Field(default=False, description="Of a section: whether it can be folded")
    folded: bool = Field(default=False, description="Of a foldable section: whether it is at first")
    component: ShortText | None = None


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


class RuleSchema(RequestSchema):
    """Which components, joined and changed how, go into which field."""

    components: Annotated[list[ShortText], Field(min_length=1, max_length=20)]
    into: Key
    join: Annotated[ShortText, Field(max_length=20)] | None = None
    changes: Annotated[list[ShortText], Field(max_length=10)] = []


class SlotSchema(RequestSchema):
    """One address captured on the form."""

    key: Key
    label: Annotated[ShortText, Field(min_length=1)]
    countries: Annotated[list[CountryCode], Field(min_length=1, max_length=300)]
    country: CountryCode | None = None
    kinds: Annotated[list[ShortText], Field(max_length=20)] = []
    required: bool = True
    help: Text | None = None
    shown_when: FormulaText | None = Field(default=None, description=_SHOWN)
    required_when: FormulaText | None = Field(default=None, description=_REQUIRED)
    parts: Annotated[list[FieldSchema], Field(max_length=40)] = []
    mapping: Annotated[list[RuleSchema], Field(max_length=100)] = []


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
    fields: Annotated[list[FormEntry], Field(max_length=500)] = []
    slots: Annotated[list[SlotSchema], Field(max_length=20)] = []


class FormSummary(Schema):
    """What lists show of a form."""

    model_config = example(_SUMMARY)
    key: str
    kind: Literal["record", "web"]
    title: str
    published_version: int | None
    draft_differs: bool = Field(description="Whether the draft is not what is published")
    record_count: int
    changed_at: datetime


class FormList(Schema):
    """All forms, by title."""

    model_config = example({"forms": [_SUMMARY]})
    forms: list[FormSummary]


class FormQuery(RequestSchema):
    """The published version, or the draft."""

    draft: bool = False


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


class BroughtSchema(Schema):
    """What own layouts bring to a slot beside what its form says."""

    parts: list[FieldSchema]
    mapping: list[RuleSchema]


class DraftAnswer(Schema):
    """A form's draft; the ETag header names its revision."""

    model_config = example(
        {
            "document": _DOCUMENT,
            "form": _SUMMARY,
            "problems": [],
            "logic": _NO_LOGIC,
            "brought": {},
        }
    )
    document: FormDocument
    form: FormSummary
    problems: list[ProblemPlace] = Field(description="What stands against publishing it")
    logic: FormLogic = Field(description="Of those formulas that can be worked out")
    brought: dict[str, BroughtSchema] = Field(
        description="What own layouts bring to its slots, by the slots' keys"
    )


def document_as_kept(document: FormDocument) -> dict[str, Any]:
    """The document without what was left out or has no effect: how it is kept and compared."""
    return document.model_dump(exclude_none=True, exclude_defaults=True) | {
        "key": document.key,
        "kind": document.kind,
    }
