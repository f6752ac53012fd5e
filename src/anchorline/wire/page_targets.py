"""Page targets as they are written down: fields, and where the finder sits."""

from __future__ import annotations

from typing import Annotated, Any, Literal

from pydantic import Field, model_validator

from anchorline.core.targets.upgrade import upgraded

from .base import Key, RequestSchema, ShortText, Text, example
from .target_addresses import TargetAddressSchema
from .target_fields import Length, TargetFieldSchema

EXAMPLE_TARGET: dict[str, Any] = {
    "key": "checkout",
    "kind": "page",
    "title": "Checkout of the shop",
    "origins": ["https://shop.example"],
    "paths": ["/checkout*"],
    "fields": [
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


class WaySchema(RequestSchema):
    """One way to find a field on its page: by one of the first six."""

    css: ShortText | None = None
    name: ShortText | None = None
    id: ShortText | None = None
    autocomplete: ShortText | None = None
    label: ShortText | None = None
    class_name: ShortText | None = None
    block: ShortText | None = Field(
        default=None, description="Only in the part of the page that has this heading"
    )
    position: Annotated[int, Field(ge=1, le=500)] | None = Field(
        default=None, description="Which of those that are found, counted from 1"
    )


Ways = Annotated[list[WaySchema], Field(max_length=20)]


class PagePieceSchema(RequestSchema):
    """One input of a field that is split over several."""

    find: Ways = []
    max_length: Length | None = None


class PageFieldSchema(TargetFieldSchema):
    """A field of a page."""

    find: Ways = Field(default=[], description="Ways to find it; the first that finds one counts")
    writes: Literal["any", "value", "text"] = Field(
        default="any", description="Of a list: by what an option is chosen"
    )
    pieces: Annotated[list[PagePieceSchema], Field(max_length=4)] = Field(
        default=[], description="Of a field that is split over several inputs"
    )


class FinderPlace(RequestSchema):
    """Where the finder sits."""

    sits: Literal["before", "after", "instead"] = "before"
    at: Key | None = Field(default=None, description="Seen from this field")
    label: ShortText | None = None


class PageAddressSchema(TargetAddressSchema):
    """One address that is captured on the page."""

    finder: FinderPlace | None = None


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
    fields: Annotated[list[PageFieldSchema], Field(max_length=200)] = []
    addresses: Annotated[list[PageAddressSchema], Field(max_length=20)] = []
    style: Annotated[Text, Field(max_length=4000)] | None = Field(
        default=None, description="CSS for the finder, kept inside its shadow tree"
    )

    @model_validator(mode="before")
    @classmethod
    def _of_today(cls, given: Any) -> Any:
        """Documents of earlier releases are read as today's."""
        return upgraded(given) if isinstance(given, dict) else given
