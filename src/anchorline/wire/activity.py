"""Activity: the calls of the last days, and for which of them question and answer are kept."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Literal

from pydantic import Field

from .base import RequestSchema, Schema, Time, example

Outcome = Literal["answered", "refused", "failed"]
_CALL = {
    "id": 81_422,
    "at": "2027-03-01T10:42:00.125Z",
    "subject": "5f0c2a9be417",
    "name": "Checkout of the shop",
    "origin": "https://shop.example",
    "endpoint": "targets.fill_target",
    "of": "checkout",
    "status": 200,
    "outcome": "answered",
    "ms": 3.2,
    "question": None,
    "answer": None,
}
_Filter = Annotated[str, Field(max_length=200)] | None
_Id = Annotated[int, Field(ge=0, le=2**62)] | None


class ActivityFilter(RequestSchema):
    """Which calls; what is left out is not looked at."""

    subject: _Filter = Field(
        default=None, description="A key's id, `page` and a form's key, or `people`; `-` for none"
    )
    endpoint: _Filter = Field(default=None, description="Such as finding.suggest")
    of: _Filter = Field(default=None, description="Key of the form or target that it was about")
    origin: _Filter = Field(default=None, description="Of the page that called")
    outcome: Outcome | None = Field(
        default=None, description="answered: below 400; refused: 4xx; failed: 5xx"
    )
    since: Time | None = Field(default=None, description="The first time")
    until: Time | None = Field(default=None, description="The time after the last one")


class ActivityQuery(ActivityFilter):
    """Which calls, and how many."""

    after: _Id = Field(default=None, description="Id of a call: those after it, the oldest first")
    before: _Id = Field(default=None, description="Id of a call: those before it")
    limit: Annotated[int, Field(ge=1, le=500)] = 100


class CallSchema(Schema):
    """One call."""

    id: int = Field(description="Its place in the order in which calls were kept")
    at: datetime = Field(description="When it came")
    subject: str = Field(description="Who called; empty for nobody who was recognised")
    name: str = Field(description="What the key is for")
    origin: str = Field(description="Of the page that called; empty where none was told")
    endpoint: str
    of: str = Field(description="Key of the form or target that it was about")
    status: int = Field(description="Of HTTP")
    outcome: Outcome
    ms: float = Field(description="Milliseconds from its arrival to its answer")
    question: str | None = Field(description="Whole, where it was observed")
    answer: str | None = Field(description="Whole, where it was observed")


class ActivityAnswer(Schema):
    """Calls, the latest first."""

    model_config = example({"calls": [_CALL], "kept_days": 14, "endpoints": ["finding.suggest"]})
    calls: list[CallSchema]
    kept_days: int = Field(description="Days that calls are kept")
    endpoints: list[str] = Field(description="All that a call can be for")


class ObservationSchema(Schema):
    """A key, target or form of which question and answer are kept until some time."""

    kind: Literal["key", "target", "form"]
    name: str = Field(description="A key's id, or the key of a target or form")
    until: datetime
    by: str = Field(description="Who switched it on")


class ObservationList(Schema):
    """What is observed now."""

    model_config = example(
        {
            "observations": [
                {
                    "kind": "key",
                    "name": "5f0c2a9be417",
                    "until": "2027-03-01T12:42:00Z",
                    "by": "steward@example.org",
                }
            ]
        }
    )
    observations: list[ObservationSchema]


class ObserveRequest(RequestSchema):
    """Keep question and answer of a key's, target's or form's calls for some hours; 0 ends that."""

    model_config = example({"kind": "key", "name": "5f0c2a9be417", "hours": 2}) | {
        "extra": "forbid"
    }
    kind: Literal["key", "target", "form"]
    name: Annotated[str, Field(min_length=1, max_length=80)]
    hours: Annotated[int, Field(ge=0, le=24)] = 2
