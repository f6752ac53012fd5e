"""A program target proposed from what is seen, and the ready-made targets."""

from __future__ import annotations

from typing import Annotated

from pydantic import Field

from .base import CountryCode, Key, RequestSchema, Schema, ShortText, example
from .looks import ConditionProposalSchema, Facts
from .program_targets import (
    EXAMPLE_PROGRAM,
    ProgramAddressSchema,
    ProgramFieldSchema,
    ProgramTargetDocument,
)
from .target_fields import SeenFieldSchema


class ProgramProposalRequest(RequestSchema):
    """A screen of a program, of which a target is to be proposed."""

    model_config = example(
        {
            "key": "old-ledger",
            "title": "Contacts of the old ledger",
            "looks": [[{"kind": "program", "text": "ledger"}]],
            "fields": [{"label": "Street"}, {"label": "Town"}],
        }
    ) | {"extra": "forbid"}
    key: Key
    title: Annotated[ShortText, Field(min_length=1)]
    looks: Annotated[list[Facts], Field(min_length=1, max_length=20)]
    others: Annotated[list[Facts], Field(max_length=50)] = []
    fields: Annotated[list[SeenFieldSchema], Field(max_length=100)] = []
    like: ShortText | None = Field(default=None, description="The name of a ready-made target")
    countries: Annotated[list[CountryCode], Field(min_length=1, max_length=300)] | None = None


class ProgramProposalAnswer(Schema):
    """A target that may be meant; nothing is kept."""

    model_config = example(
        {
            "document": EXAMPLE_PROGRAM,
            "conditions": [],
            "because": {"street": "Its label says “Street”."},
            "unsure": [],
            "left": ["Telephone"],
        }
    )
    document: ProgramTargetDocument
    conditions: list[ConditionProposalSchema]
    because: dict[str, str] = Field(description="By the fields' keys, why each is what it is")
    unsure: list[str] = Field(description="Keys of fields that a person should look at")
    left: list[str] = Field(description="Fields that nothing is written into")


class ReadyMadeTargetSchema(Schema):
    """A target to copy and change."""

    name: str
    title: str
    says: str
    fields: list[ProgramFieldSchema]
    addresses: list[ProgramAddressSchema]


class ReadyMadeTargetList(Schema):
    """All ready-made targets."""

    model_config = example({"targets": []})
    targets: list[ReadyMadeTargetSchema]
