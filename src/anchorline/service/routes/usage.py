"""API: how many addresses were fetched, and how many a key may fetch."""

from __future__ import annotations

from datetime import date

from anchorline.core.allowance import PEOPLE, Allowance
from anchorline.wire.base import Schema
from anchorline.wire.keys import KeySchema
from anchorline.wire.usage import (
    AllowanceRequest,
    DayCount,
    SubjectUsage,
    UsageAnswer,
    UsageQuery,
)

from ..access import Access
from ..endpoints import ApiRequest, Router
from .keys import shown_key

router = Router("usage", "administer")


@router.endpoint("GET", "/usage", access=Access.SERVER, query=UsageQuery, answer=UsageAnswer)
def get_usage(request: ApiRequest) -> Schema:
    """Addresses fetched in a month, by key and day; keys in use that fetched none are there, too.

    Practice addresses are not counted; an address counts once within one capture.
    """
    services, wanted = request.services, request.query(UsageQuery).month
    today = services.database.now().date()
    month = date.fromisoformat(f"{wanted}-01") if wanted else today.replace(day=1)
    keys = {key.id: key for key in services.keys.list()}
    days: dict[str, list[DayCount]] = {key.id: [] for key in keys.values() if not key.ended}
    for one in services.address_uses.list(month):
        days.setdefault(one.subject, []).append(DayCount(day=one.day, count=one.count))
    subjects = []
    for subject, counted in days.items():
        allowance = keys[subject].allowance if subject in keys else Allowance()
        count = sum(day.count for day in counted)
        subjects.append(
            SubjectUsage(
                subject=subject,
                name=keys[subject].name if subject in keys else subject_name(subject),
                count=count,
                limit=allowance.limit,
                warn_share=allowance.warn_share,
                state=allowance.state(count),
                days=counted,
            )
        )
    subjects.sort(key=lambda one: (-one.count, one.name))
    return UsageAnswer(
        month=f"{month:%Y-%m}", count=sum(one.count for one in subjects), subjects=subjects
    )


@router.endpoint(
    "PUT", "/keys/<key>/allowance", access=Access.SERVER, body=AllowanceRequest, answer=KeySchema
)
def set_allowance(request: ApiRequest) -> Schema:
    """Says how many addresses a key may fetch in a month; it holds within seconds."""
    body = request.body(AllowanceRequest)
    allowance = Allowance(body.monthly_limit, body.warn_share)
    return shown_key(request, request.services.keys.allow(request.path["key"], allowance))


def subject_name(subject: str) -> str:
    """What is called or counted for somebody who has no key."""
    if subject == PEOPLE:
        return "people who are signed in"
    form = subject.removeprefix("page ")
    return f"public page of {form}" if form != subject else subject
