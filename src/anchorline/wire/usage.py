"""Addresses that were fetched, and how many a key may fetch in a month."""

from __future__ import annotations

from datetime import date
from typing import Annotated, Literal

from pydantic import Field

from anchorline.core.allowance import USUAL_WARN_SHARE as USUAL_WARN_SHARE

from .base import RequestSchema, Schema, example

CaptureName = Annotated[
    str,
    Field(
        min_length=8,
        max_length=64,
        pattern=r"^[A-Za-z0-9_-]+$",
        description="Names one capture, such as a page that is open: within it an address counts "
        "once, however often it is fetched. Without it each time counts.",
        examples=["c0f3a9c52e17b4d0e"],
    ),
]
Month = Annotated[
    str, Field(pattern=r"^2\d{3}-(0[1-9]|1[0-2])$", description="Year and month (UTC)")
]


class UsageQuery(RequestSchema):
    """Of which month; this one where it is left out."""

    month: Month | None = None


class DayCount(Schema):
    """How many addresses were fetched on a day (UTC)."""

    day: date
    count: int


class SubjectUsage(Schema):
    """What one key, the pages of one form, or people who are signed in have fetched."""

    subject: str = Field(description="A key's id, `page` and a form's key, or `people`")
    name: str = Field(description="What it is for")
    count: int = Field(description="Addresses in the month")
    limit: int | None = Field(description="How many it may fetch in a month; null for any number")
    day_limit: int | None = Field(
        description="How many it may fetch on a day (UTC): of public pages, as their form says"
    )
    warn_share: float = Field(description="From which part of that on it counts as near it")
    state: Literal["within", "near", "used_up"]
    days: list[DayCount] = Field(description="Those on which something was fetched")


class UsageAnswer(Schema):
    """What was fetched in a month; practice addresses are not in it."""

    model_config = example(
        {
            "month": "2027-03",
            "count": 512,
            "subjects": [
                {
                    "subject": "5f0c2a9be417",
                    "name": "Checkout of the shop",
                    "count": 512,
                    "limit": 1000,
                    "day_limit": None,
                    "warn_share": 0.8,
                    "state": "within",
                    "days": [{"day": "2027-03-01", "count": 512}],
                }
            ],
        }
    )
    month: Month
    count: int
    subjects: list[SubjectUsage]


class AllowanceRequest(RequestSchema):
    """How many addresses a key may fetch in a calendar month (UTC)."""

    model_config = example({"monthly_limit": 1000, "warn_share": 0.8}) | {"extra": "forbid"}
    monthly_limit: Annotated[int, Field(ge=0, le=1_000_000_000)] | None = Field(
        default=None, description="Null for any number"
    )
    warn_share: Annotated[float, Field(gt=0, le=1)] = Field(
        default=USUAL_WARN_SHARE, description="From which part of it on the key counts as near it"
    )
