"""Administrators' own layouts: the document that describes one, drafts, previews, versions."""

from __future__ import annotations

from typing import Annotated, Any

from pydantic import Field

from .base import ComponentMap, CountryCode, Key, RequestSchema, Schema, ShortText, example
from .documents import (
    DifferenceRequest,
    DocumentDraft,
    DocumentList,
    DocumentSummary,
    DocumentVersion,
)
from .problems import ProblemPlace

Name = Annotated[ShortText, Field(min_length=1, max_length=31)]
LineText = Annotated[ShortText, Field(min_length=1)]
LanguageTag = Annotated[str, Field(min_length=2, max_length=35, description="BCP 47")]


class ComponentChangeSchema(RequestSchema):
    """What is different about one component, or an extra of one's own, that is asked for."""

    component: Name | None = Field(default=None, description="A component")
    extra: Name | None = Field(
        default=None, description="Instead of a component: a line of your own, asked for as well"
    )
    label: Annotated[dict[LanguageTag, ShortText], Field(max_length=100)] = Field(
        default={}, description="Labels by BCP 47 language; others stay as shipped"
    )
    required: bool | None = Field(default=None, description="Left out: as shipped")
    hidden: bool = Field(default=False, description="It is not asked for")
    add: bool = Field(default=False, description="Ask for it where the shipped layout does not")
    first: bool = Field(default=False, description="Asked for before everything else")
    after: Name | None = Field(default=None, description="Asked for after this one")


class LineChangeSchema(RequestSchema):
    """A line that is added, changed or dropped, in the notation of lines."""

    add: LineText | None = Field(default=None, description="A line that is written as well")
    change: LineText | None = Field(default=None, description="A shipped line that is changed")
    to: LineText | None = Field(default=None, description="What the changed line becomes")
    drop: LineText | None = Field(default=None, description="A shipped line that is not written")
    first: bool = Field(default=False, description="The added line comes before all others")
    after: LineText | None = Field(
        default=None, description="The added line comes after this one, else at the end"
    )
    script: Annotated[str, Field(max_length=4)] = Field(
        default="", description="ISO 15924; empty for the usual lines"
    )


_DOCUMENT = {
    "key": "letters-south",
    "title": "Letters to France and Belgium",
    "countries": ["FR", "BE"],
    "ask": [
        {"component": "district", "hidden": True},
        {"extra": "delivery_note", "label": {"en": "Delivery note"}, "after": "town"},
    ],
    "lines": [{"add": "delivery_note", "after": "organisation"}],
}
_SUMMARY = {
    "key": "letters-south",
    "title": "Letters to France and Belgium",
    "countries": ["FR", "BE"],
    "forms": [],
    "published_version": 1,
    "draft_differs": False,
    "changed_at": "2026-03-01T12:00:00Z",
    "conflicts": 0,
}


class OwnLayoutDocument(RequestSchema):
    """An own layout as it is written down: differences from its base layouts, nothing else."""

    model_config = example(_DOCUMENT)
    key: Annotated[Key, Field(pattern="^[a-z][a-z0-9_-]{0,63}$")]
    title: Annotated[ShortText, Field(min_length=1)]
    countries: Annotated[list[CountryCode], Field(min_length=1, max_length=300)]
    forms: Annotated[list[Key], Field(max_length=200)] = Field(
        default=[], description="For these forms only; empty: everywhere"
    )
    ask: Annotated[list[ComponentChangeSchema], Field(max_length=60)] = []
    lines: Annotated[list[LineChangeSchema], Field(max_length=100)] = []


class OwnLayoutSummary(DocumentSummary):
    """What lists show of an own layout."""

    model_config = example(_SUMMARY)
    countries: list[str]
    forms: list[str]
    conflicts: int = Field(description="How much of it newer shipped layouts say otherwise")


class OwnLayoutList(DocumentList):
    """Own layouts, by title."""

    model_config = example({"own_layouts": [_SUMMARY]})
    own_layouts: list[OwnLayoutSummary]


class ConflictSchema(Schema):
    """Something that it changes, and that the shipped layout has changed since."""

    country_code: str
    pointer: str = Field(description="The entry of the document")
    was: str = Field(description="What the shipped layout said when this was published")
    now: str = Field(description="What it says today")
    detail: str


class DifferenceSchema(Schema):
    """One thing that a layout says otherwise, in a sentence."""

    country_code: str
    about: str = Field(description="A component, an extra, or `lines`")
    detail: str


class OwnLayoutDraft(DocumentDraft):
    """A draft; the ETag header names its state."""

    model_config = example(
        {
            "document": _DOCUMENT,
            "summary": _SUMMARY,
            "problems": [],
            "conflicts": [],
            "differences": [
                {
                    "country_code": "FR",
                    "about": "district",
                    "detail": "Locality (lieu-dit) is no longer asked for.",
                }
            ],
        }
    )
    document: OwnLayoutDocument
    summary: OwnLayoutSummary
    conflicts: list[ConflictSchema]
    differences: list[DifferenceSchema] = Field(description="From its base layouts")


class OwnLayoutVersion(DocumentVersion):
    """A published version of an own layout as it was."""

    model_config = example(
        {
            "document": _DOCUMENT,
            "version": 1,
            "published_at": "2026-03-01T12:00:00Z",
            "published_by": "robin@example.org",
        }
    )
    document: OwnLayoutDocument


class OwnLayoutDifferenceRequest(DifferenceRequest):
    """What to compare: left out, the draft with what is published."""

    model_config = example({}) | {"extra": "forbid"}
    document: OwnLayoutDocument | None = Field(default=None, description="Instead of the draft")


class PreviewRequest(RequestSchema):
    """A document as it is now, one of its countries, and an address to try."""

    model_config = example(
        {"document": _DOCUMENT, "country_code": "FR", "components": {"town": "Brackwater"}}
    )
    document: OwnLayoutDocument
    country_code: CountryCode
    language: LanguageTag = "en"
    components: ComponentMap = {}


class PreviewComponent(Schema):
    """One component that would be asked for."""

    component: str
    label: str
    labels: dict[str, str]
    required: bool
    added: bool = Field(description="The shipped layout does not ask for it")
    change: int | None = Field(description="Which entry of `ask` changes it")


class PreviewLine(Schema):
    """A line as it would be, and where it comes from."""

    line: str
    was: str | None = Field(description="As the base layout has it; null for an added one")
    change: int | None = Field(description="Which entry of `lines` made it so")
    dropped: bool


class PreviewAnswer(Schema):
    """A country's layout as it would be, beside its base."""

    model_config = example(
        {
            "country_code": "FR",
            "name": "France",
            "languages": ["fr"],
            "base": [],
            "components": [
                {
                    "component": "town",
                    "label": "Town",
                    "labels": {"en": "Town"},
                    "required": True,
                    "added": False,
                    "change": None,
                }
            ],
            "hidden": [{"component": "district", "label": "Locality (lieu-dit)"}],
            "lines": {
                "": [
                    {
                        "line": "postcode TOWN",
                        "was": "postcode TOWN",
                        "change": None,
                        "dropped": False,
                    }
                ]
            },
            "written": ["BRACKWATER"],
            "written_base": ["BRACKWATER"],
            "differences": [],
            "problems": [],
        }
    )
    country_code: str
    name: str
    languages: list[str]
    base: list[PreviewComponent] = Field(description="What the base layout asks for, in its order")
    components: list[PreviewComponent] = Field(description="What would be asked for, in order")
    hidden: list[dict[str, str]] = Field(description="Components that would not be asked for")
    lines: dict[str, list[PreviewLine]] = Field(description="By ISO 15924 script")
    written: list[str] = Field(description="The address in these lines")
    written_base: list[str] = Field(description="The address in the lines of the base layout")
    differences: list[DifferenceSchema]
    problems: list[ProblemPlace]


class SampleSchema(Schema):
    """An address to try a layout with."""

    label: str
    components: dict[str, str]
    record: str | None = Field(description="The record it was captured in; null: reference data")
    form: str | None


class SamplesQuery(RequestSchema):
    """Of which form records are wanted."""

    form: Key | None = Field(default=None, description="Only records of this form")


class SamplesAnswer(Schema):
    """Addresses of the latest records in a country, then some of its reference data."""

    model_config = example(
        {
            "samples": [
                {
                    "label": "16 Abbey Mews, Brackwater",
                    "components": {"number": "16", "street": "Abbey Mews", "town": "Brackwater"},
                    "record": None,
                    "form": None,
                }
            ]
        }
    )
    samples: list[SampleSchema]


def own_layout_as_kept(document: OwnLayoutDocument) -> dict[str, Any]:
    """The document without what was left out or has no effect: how it is kept and compared."""
    return document.model_dump(exclude_none=True, exclude_defaults=True)
