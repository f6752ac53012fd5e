"""How well capture goes: what is counted per form and target and day."""

from __future__ import annotations

from datetime import date, datetime
from typing import Annotated, Any, Literal

from pydantic import Field

from anchorline.core.capture_counts import COUNTED, MOST_COUNTED

from .base import Day, Key, RequestSchema, Schema, Text, example

Captured = Literal["form", "target"]
_DAY = {
    "shown": 120,
    "begun": 84,
    "picked": 70,
    "partly": 4,
    "by_hand": 6,
    "changed": 5,
    "left": 4,
    "keys": 512,
    "characters": 3_150,
}


def _count(name: str) -> Any:
    return Field(default=0, ge=0, le=MOST_COUNTED[name], description=COUNTED[name])


class CaptureCounts(RequestSchema):
    """What was counted of one page since it told last; what is left out is 0."""

    shown: int = _count("shown")
    begun: int = _count("begun")
    picked: int = _count("picked")
    partly: int = _count("partly")
    by_hand: int = _count("by_hand")
    changed: int = _count("changed")
    left: int = _count("left")
    keys: int = _count("keys")
    characters: int = _count("characters")


class DayCounts(Schema):
    """What was counted on a day."""

    shown: int
    begun: int
    picked: int
    partly: int
    by_hand: int
    changed: int
    left: int
    keys: int
    characters: int


class CaptureReport(RequestSchema):
    """What a page has counted while it was open; of what was typed only what was not found."""

    model_config = example({"counts": {"shown": 1, "begun": 1, "picked": 1, "keys": 9}}) | {
        "extra": "forbid"
    }
    counts: CaptureCounts
    not_found: Annotated[
        list[Annotated[Text, Field(min_length=1, max_length=120)]], Field(max_length=20)
    ] = Field(
        default=[],
        description="What was searched and not found; kept as a digest, or whole while the form "
        "or target is observed",
    )


class QualityQuery(RequestSchema):
    """Of what, and of which days."""

    kind: Captured | None = Field(default=None, description="Forms or targets; both if left out")
    name: Annotated[str, Field(max_length=64)] | None = Field(default=None, description="Its key")
    since: Day | None = Field(default=None, description="The first day; 30 days ago if left out")
    until: Day | None = Field(default=None, description="The last day; today if left out")


class QualityDay(Schema):
    """A day (UTC) of a form or target."""

    kind: Captured
    name: Key
    title: str
    day: date
    counts: DayCounts


class NotFound(Schema):
    """Something that was searched and not found."""

    kind: Captured
    name: Key
    text: str | None = Field(description="Null where only a digest is kept")
    digest: str
    count: int
    last_at: datetime


class QualityAnswer(Schema):
    """How capture went, day by day, the oldest first."""

    model_config = example(
        {
            "days": [
                {
                    "kind": "form",
                    "name": "tuning-visit",
                    "title": "Book a piano visit",
                    "day": "2027-03-01",
                    "counts": _DAY,
                }
            ],
            "not_found": [
                {
                    "kind": "form",
                    "name": "tuning-visit",
                    "text": None,
                    "digest": "9f2c1d0a4b7e6f35",
                    "count": 3,
                    "last_at": "2027-03-01T10:42:00Z",
                }
            ],
        }
    )
    days: list[QualityDay]
    not_found: list[NotFound] = Field(description="The most frequent ones, 50 at most")
