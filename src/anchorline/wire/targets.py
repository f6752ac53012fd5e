"""Targets: pages that are not ours, as they are written down, kept and attached to."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Any, Literal

from pydantic import Field

from .base import CountryCode, Key, RequestSchema, Schema, ShortText, Text, example
from .fields import LanguageTag
from .problems import ProblemPlace
from .rules import ExampleSchema, RuleSchema
from .slots import NearSchema

EXAMPLE_TARGET: dict[str, Any] = {
    "key": "checkout",
    "kind": "page",
    "title": "Checkout of the shop",
    "origins": ["https://shop.example"],
    "paths": ["/checkout*"],
    "inputs": [
        {"key": "street", "label": "Street", "find": [{"name": "ship_street"}]},
        {"key": "town", "label": "Town", "find": [{"name": "ship_town"}]},
    ],
    "addresses": [
        {
            "key": "delivery",
            "label": "Delivery",
            "countries": ["GB"],
            "finder": {"sits": "before", "at": "street"},
            "mapping": [
                {"lines": "street", "into": "street"},
                {"components": ["town"], "into": "town"},
            ],
        }
    ],
}
_SUMMARY = {
    "key": "checkout",
    "kind": "page",
    "title": "Checkout of the shop",
    "published_version": 1,
    "draft_differs": False,
    "changed_at": "2027-03-01T12:00:00Z",
}


class WaySchema(RequestSchema):
    """One way to find an input on its page."""

    css: ShortText | None = None
    name: ShortText | None = None
    id: ShortText | None = None
    autocomplete: ShortText | None = None
    label: ShortText | None = None
    class_name: ShortText | None = None


class PageInputSchema(RequestSchema):
    """An input of a page."""

    key: Key
    label: ShortText | None = None
    find: Annotated[list[WaySchema], Field(max_length=20)] = Field(
        default=[], description="Ways to find it; the first that finds one counts"
    )
    max_length: Annotated[int, Field(ge=1, le=10_000)] | None = None
    writes: Literal["any", "value", "text"] = Field(
        default="any", description="Of a list: by what an option is chosen"
    )


class FinderPlace(RequestSchema):
    """Where the finder sits."""

    sits: Literal["before", "after", "instead"] = "before"
    at: Key | None = Field(default=None, description="Seen from this input")
    label: ShortText | None = None


class PageAddressSchema(RequestSchema):
    """One address that is captured on the page."""

    key: Key
    label: Annotated[ShortText, Field(min_length=1)]
    countries: Annotated[list[CountryCode], Field(min_length=1, max_length=300)] | None = Field(
        default=None, description="Left out: all that there are"
    )
    country: CountryCode | None = None
    kinds: Annotated[list[ShortText], Field(max_length=20)] = []
    language: LanguageTag | None = None
    datasets: Annotated[list[ShortText], Field(max_length=20)] = []
    practice_word: Annotated[ShortText, Field(max_length=30)] | None = Field(
        default=None,
        description="What is typed behind this word is looked for among the practice addresses",
    )
    near: NearSchema | None = None
    finder: FinderPlace | None = None
    mapping: Annotated[list[RuleSchema], Field(max_length=100)] = []
    examples: Annotated[list[ExampleSchema], Field(max_length=100)] = []


class PageTargetDocument(RequestSchema):
    """A page target as it is written down."""

    model_config = example(EXAMPLE_TARGET) | {"extra": "forbid"}
    key: Key
    kind: Literal["page"] = "page"
    title: Annotated[ShortText, Field(min_length=1)]
    origins: Annotated[list[ShortText], Field(max_length=50)] = []
    paths: Annotated[list[ShortText], Field(max_length=50)] = Field(
        default=[], description="Patterns of its paths, * for any characters; left out: all"
    )
    inputs: Annotated[list[PageInputSchema], Field(max_length=200)] = []
    addresses: Annotated[list[PageAddressSchema], Field(max_length=20)] = []
    style: Annotated[Text, Field(max_length=4000)] | None = Field(
        default=None, description="CSS for the finder, kept inside its shadow tree"
    )


def target_as_kept(document: PageTargetDocument) -> dict[str, Any]:
    """The document without what was left out or has no effect: how it is kept and compared."""
    return document.model_dump(mode="json", exclude_defaults=True) | {
        "key": document.key,
        "kind": document.kind,
        "title": document.title,
    }


class TargetSummary(Schema):
    """A target in a list."""

    model_config = example(_SUMMARY)
    key: str
    kind: str
    title: str
    published_version: int | None
    draft_differs: bool
    changed_at: datetime


class TargetList(Schema):
    """All targets, by title."""

    model_config = example({"targets": [_SUMMARY]})
    targets: list[TargetSummary]


class TargetDraft(Schema):
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
    document: PageTargetDocument
    summary: TargetSummary
    problems: list[ProblemPlace]
    warnings: list[ProblemPlace]


class AttachedTarget(Schema):
    """A published target, as a page attaches to it."""

    model_config = example({"document": EXAMPLE_TARGET, "version": 1})
    document: PageTargetDocument
    version: int


FaultKind = Literal[
    "attribute",
    "path",
    "input_missing",
    "input_several",
    "selector",
    "input_locked",
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
            "kind": "input_missing",
            "subject": "town",
            "detail": "the input “town” is not on this page: looked for name “ship_town”.",
        }
    ) | {"extra": "forbid"}
    kind: FaultKind
    subject: Annotated[ShortText, Field(description="An input's key, an attribute, a path")] = ""
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
                    "kind": "input_missing",
                    "subject": "town",
                    "detail": "the input “town” is not on this page: looked for name “ship_town”.",
                    "count": 12,
                    "first_at": "2027-03-01T10:42:00Z",
                    "last_at": "2027-03-02T08:15:00Z",
                    "browser": "Mozilla/5.0 (X11; Linux x86_64) Gecko/20100101 Firefox/130.0",
                }
            ]
        }
    )
    faults: list[TargetFaultSchema]


class TargetRestoreRequest(RequestSchema):
    """Which version is to hold again; 0 for none."""

    model_config = example({"version": 1}) | {"extra": "forbid"}
    version: Annotated[int, Field(ge=0, le=1_000_000)]
