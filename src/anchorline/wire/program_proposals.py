"""A program target proposed from what is seen, and the ready-made plans."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from .base import CountryCode, Key, RequestSchema, Schema, ShortText, example
from .looks import ConditionProposalSchema, Facts
from .program_targets import (
    EXAMPLE_PROGRAM,
    EntryPlanSchema,
    ProgramPartSchema,
    ProgramTargetDocument,
)
from .rules import RuleSchema


class SeenFieldSchema(RequestSchema):
    """A field of a screen, in the order of the Tab key."""

    label: ShortText = ""
    is_named: bool = Field(default=False, description="The label is the screen's own")
    max_length: Annotated[int, Field(ge=1, le=10_000)] | None = None
    holds: Literal["part", "lines", "commas"] = Field(
        default="part", description="What it takes: a part, all in lines, all with commas"
    )


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
    like: ShortText | None = Field(default=None, description="The name of a ready-made plan")
    countries: Annotated[list[CountryCode], Field(min_length=1, max_length=300)] | None = None


class ProgramProposalAnswer(Schema):
    """A target that may be meant; nothing is kept."""

    model_config = example(
        {
            "document": EXAMPLE_PROGRAM,
            "conditions": [],
            "because": {"street": "Its label says “Street”."},
            "left": ["Telephone"],
        }
    )
    document: ProgramTargetDocument
    conditions: list[ConditionProposalSchema]
    because: dict[str, str] = Field(description="By the parts' keys, why each is what it is")
    left: list[str] = Field(description="Fields that nothing is written into")


class ReadyMadePlanSchema(Schema):
    """A plan to copy and change."""

    name: str
    title: str
    says: str
    parts: list[ProgramPartSchema]
    mapping: list[RuleSchema]
    plan: EntryPlanSchema


class ReadyMadePlanList(Schema):
    """All ready-made plans."""

    model_config = example({"plans": []})
    plans: list[ReadyMadePlanSchema]
