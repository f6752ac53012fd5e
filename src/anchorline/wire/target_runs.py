"""Program targets as a desktop agent has them, and what it tells of its runs."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Literal

from pydantic import Field

from .base import Key, PageSchema, RequestSchema, Schema, ShortText, Text, example
from .program_targets import EXAMPLE_PROGRAM, ProgramTargetDocument

Outcome = Literal["verified", "unverified", "differs", "stopped"]
Stop = Literal[
    "", "left", "box", "field", "screen", "frozen", "gone", "escape", "keys", "layout",
    "undone", "refused",
]  # fmt: skip
FieldState = Literal[
    "verified", "written", "shown", "differs", "partly", "missing", "no_field", "empty"
]


class PublishedProgram(Schema):
    """A published program target."""

    document: ProgramTargetDocument
    version: int


class ProgramTargetList(Schema):
    """All published program targets, for an agent that keeps them at hand."""

    model_config = example({"targets": [{"document": EXAMPLE_PROGRAM, "version": 1}]})
    targets: list[PublishedProgram]


class RunStep(RequestSchema):
    """A step of a run: when it was begun, in milliseconds, and in words."""

    at_ms: Annotated[int, Field(ge=0, le=86_400_000)]
    says: ShortText
    failed: bool = False


class RunField(RequestSchema):
    """What became of a field, without its text."""

    field: Key
    label: ShortText = ""
    state: FieldState


_RUN = {
    "address": "home",
    "version": 1,
    "outcome": "verified",
    "by": "keys",
    "ms": 412,
    "fields": [{"field": "street", "label": "Street", "state": "verified"}],
    "log": [{"at_ms": 0, "says": "Empty the field", "failed": False}],
}


class TargetRunReport(RequestSchema):
    """What came of a run: never what was written."""

    model_config = example(_RUN) | {"extra": "forbid"}
    address: Key
    version: Annotated[int, Field(ge=0, le=1_000_000)] = Field(description="0 for a draft")
    outcome: Outcome
    stop: Stop = ""
    detail: Annotated[Text, Field(max_length=600)] = ""
    by: Literal["keys", "paste", "accessible"] = "keys"
    ms: Annotated[int, Field(ge=0, le=86_400_000)]
    fields: Annotated[list[RunField], Field(max_length=100)] = []
    log: Annotated[list[RunStep], Field(max_length=400)] = []
    machine: ShortText = ""
    practice: bool = False


class TargetRunSchema(Schema):
    """A run that an agent has told of."""

    id: int
    address: str
    version: int
    outcome: Outcome
    stop: Stop
    detail: str
    by: str
    ms: int
    fields: list[RunField]
    log: list[RunStep]
    machine: str
    practice: bool
    key: str = Field(description="The name of the key that it was told with")
    at: datetime


class TargetRunList(PageSchema):
    """Runs of a target, the latest first."""

    model_config = example(
        {
            "runs": [
                {
                    **_RUN,
                    "id": 7,
                    "stop": "",
                    "detail": "",
                    "machine": "desk-7",
                    "practice": False,
                    "key": "Desk of the office",
                    "at": "2027-03-01T10:42:00Z",
                }
            ]
        }
    )
    runs: list[TargetRunSchema]
