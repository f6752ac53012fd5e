"""Page targets as they are written down: inputs, and where the finder sits."""

from __future__ import annotations

from typing import Annotated, Any, Literal

from pydantic import Field

from .base import Key, RequestSchema, ShortText, Text, example
from .target_addresses import TargetAddressSchema

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
    inputs: Annotated[list[PageInputSchema], Field(max_length=200)] = []
    addresses: Annotated[list[PageAddressSchema], Field(max_length=20)] = []
    style: Annotated[Text, Field(max_length=4000)] | None = Field(
        default=None, description="CSS for the finder, kept inside its shadow tree"
    )
