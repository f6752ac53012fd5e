"""What a page's fields are taken for, and what an address would put into them."""

from __future__ import annotations

from typing import Annotated

from pydantic import Field

from .base import Key, RequestSchema, Schema, ShortText, example
from .filling import FillAnswer
from .page_targets import EXAMPLE_TARGET, PageTargetDocument
from .target_fields import SeenFieldSchema
from .targets import AnyTarget


class TargetProposalRequest(RequestSchema):
    """The fields of a page, of which a target is to be proposed."""

    model_config = example(
        {
            "key": "checkout",
            "title": "Checkout of the shop",
            "origins": ["https://shop.example"],
            "fields": [
                {"name": "ship_street", "label": "Street"},
                {"name": "ship_town", "autocomplete": "shipping address-level2"},
            ],
        }
    ) | {"extra": "forbid"}
    key: Key
    title: Annotated[ShortText, Field(min_length=1)]
    origins: Annotated[list[ShortText], Field(max_length=50)] = []
    fields: Annotated[list[SeenFieldSchema], Field(min_length=1, max_length=200)]


class TargetProposalAnswer(Schema):
    """A target that may be meant; nothing is kept."""

    model_config = example(
        {
            "document": EXAMPLE_TARGET,
            "because": {"street": "Its label says “Street”.", "town": "Its label says “Town”."},
            "unsure": [],
        }
    )
    document: PageTargetDocument
    because: dict[str, str] = Field(description="By the fields' keys, why each is what it is")
    unsure: list[str] = Field(description="Keys of fields that a person should look at")


class TargetTrialRequest(RequestSchema):
    """A draft that is to be tried with an address, a practice address where none is named."""

    model_config = example({"document": EXAMPLE_TARGET, "address": "delivery"}) | {
        "extra": "forbid"
    }
    document: AnyTarget
    address: Key | None = Field(default=None, description="Of the target; left out: the first")
    address_id: Annotated[str, Field(max_length=160)] | None = None


class PlannedStep(Schema):
    """A step in words, and as a plan has it."""

    says: str
    step: dict[str, str | int | bool]


class TargetTrialAnswer(Schema):
    """What an address would put into a page or a program."""

    model_config = example(
        {
            "label": "1 Lantern Row, Practice Town",
            "fill": {
                "values": {"street": "1 Lantern Row"},
                "labels": {"street": "Street"},
                "cleared": [],
                "warnings": [],
                "trace": [],
            },
            "steps": [],
        }
    )
    label: str = Field(description="The address in one line")
    fill: FillAnswer
    steps: list[PlannedStep] = Field(description="Of a program: how it is written")
