"""What is seen of programs' screens, and which target a screen is of."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated

from pydantic import Field

from .base import RequestSchema, Schema, ShortText, example
from .program_targets import ConditionSchema, FactKindName

_FACTS = [
    {"kind": "program", "text": "ledger"},
    {"kind": "title", "text": "Contact 1042 - Ada Byrne"},
]


class FactSchema(RequestSchema):
    """One thing seen on a screen."""

    kind: FactKindName
    text: Annotated[ShortText, Field(min_length=1)]


Facts = Annotated[list[FactSchema], Field(min_length=1, max_length=300)]


class LookReport(RequestSchema):
    """A look at a screen, for whoever sets targets up."""

    model_config = example({"facts": _FACTS, "machine": "desk-7"}) | {"extra": "forbid"}
    facts: Facts
    machine: ShortText = Field(default="", description="Where it was taken, as it names itself")


class PieceSchema(Schema):
    """A part of a fact's text, and whether it is the same as in the look before at this program."""

    text: str
    steady: bool


class SeenFactSchema(Schema):
    """A fact of a look, cut into what stays the same and what does not."""

    kind: str
    text: str
    pieces: list[PieceSchema]


_LOOK = {
    "id": "8f0c2a9be4175f0c",
    "facts": [{**fact, "pieces": []} for fact in _FACTS],
    "machine": "desk-7",
    "by": "Desk of the office",
    "at": "2027-03-01T10:42:00Z",
}


class LookSchema(Schema):
    """A look that was kept."""

    model_config = example(_LOOK)
    id: str
    facts: list[SeenFactSchema]
    machine: str
    by: str = Field(description="The key that it was sent with")
    at: datetime


class LookList(Schema):
    """Looks of the last days, the latest first."""

    model_config = example({"looks": [_LOOK]})
    looks: list[LookSchema]


class RecognitionRequest(RequestSchema):
    """Facts of a screen of which the target is sought."""

    model_config = example({"facts": _FACTS}) | {"extra": "forbid"}
    facts: Facts
    drafts: bool = Field(default=False, description="Drafts instead of what is published")


class ConditionTraceSchema(Schema):
    """A condition in words, whether it held, and what was seen of its kind."""

    says: str
    held: bool
    seen: list[str]


class ScreenTraceSchema(Schema):
    """What came of one screen of one target."""

    target: str
    title: str
    screen: str
    label: str
    matched: bool
    place: int = Field(description="1 for the most exact that matched; 0 for none")
    because: str
    conditions: list[ConditionTraceSchema]


class RecognitionAnswer(Schema):
    """Which target a screen is of, and why not the others."""

    model_config = example(
        {
            "targets": ["old-ledger"],
            "trace": [
                {
                    "target": "old-ledger",
                    "title": "Contacts of the old ledger",
                    "screen": "contact",
                    "label": "A contact",
                    "matched": True,
                    "place": 1,
                    "because": "2 of 2 conditions hold, and none tells it more exactly.",
                    "conditions": [],
                }
            ],
        }
    )
    targets: list[str] = Field(description="The most exact; several are a tie, none is unknown")
    trace: list[ScreenTraceSchema]


class SignatureProposalRequest(RequestSchema):
    """Looks at one screen, and at others that must not match."""

    model_config = example({"looks": [_FACTS], "others": []}) | {"extra": "forbid"}
    looks: Annotated[list[Facts], Field(min_length=1, max_length=20)]
    others: Annotated[list[Facts], Field(max_length=50)] = []


class ConditionProposalSchema(Schema):
    """A condition, and why it is proposed."""

    condition: ConditionSchema
    because: str


class SignatureProposalAnswer(Schema):
    """Conditions that may be meant; nothing is kept."""

    model_config = example(
        {
            "conditions": [
                {
                    "condition": {"kind": "program", "test": "is", "text": "ledger"},
                    "because": "It is so in the look.",
                }
            ],
            "also_matched": [],
        }
    )
    conditions: list[ConditionProposalSchema]
    also_matched: list[int] = Field(description="Places of the others that match nevertheless")
