"""API: how many addresses were fetched, and how many a key may fetch."""

from __future__ import annotations

from datetime import date

from anchorline.application.caller import Caller
from anchorline.application.filling import allowance_of_page
from anchorline.core.allowance import PEOPLE, Allowance
from anchorline.store.database import NotThereError
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
from ..context import Services
from ..endpoints import ApiRequest, Router
from ..problems import ProblemError
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
    subjects = usage_of(services, month)
    return UsageAnswer(
        month=f"{month:%Y-%m}", count=sum(one.count for one in subjects), subjects=subjects
    )


def usage_of(services: Services, month: date) -> list[SubjectUsage]:
    """What was fetched in a month, for whom most first; keys in use that fetched none too."""
    today = services.database.now().date()
    keys = {key.id: key for key in services.keys.list()}
    days: dict[str, list[DayCount]] = {key.id: [] for key in keys.values() if not key.ended}
    for one in services.address_uses.list(month):
        days.setdefault(one.subject, []).append(DayCount(day=one.day, count=one.count))
    subjects = []
    for subject, counted in days.items():
        key = keys.get(subject)
        allowance = key.allowance if key is not None else _allowance_of(services, subject)
        count = sum(day.count for day in counted)
        today_count = sum(day.count for day in counted if day.day == today)
        subjects.append(
            SubjectUsage(
                subject=subject,
                name=key.name if key is not None else subject_name(subject),
                count=count,
                limit=allowance.limit,
                day_limit=allowance.day_limit,
                warn_share=allowance.warn_share,
                state=allowance.state(count, today_count),
                days=counted,
            )
        )
    return sorted(subjects, key=lambda one: (-one.count, one.name))


def _allowance_of(services: Services, subject: str) -> Allowance:
    """That of a public page; any number where nobody opens it any more, and for people."""
    form = subject.removeprefix("page ")
    if form == subject:
        return Allowance()
    try:
        return allowance_of_page(services, form)
    except NotThereError:
        return Allowance()


@router.endpoint(
    "PUT", "/keys/<key>/allowance", access=Access.SERVER, body=AllowanceRequest, answer=KeySchema
)
def set_allowance(request: ApiRequest) -> Schema:
    """Says how many addresses a key may fetch in a month; it holds within seconds."""
    body = request.body(AllowanceRequest)
    _require_more(request.caller, request.path["key"], body.monthly_limit)
    allowance = Allowance(body.monthly_limit, body.warn_share)
    return shown_key(request, request.services.keys.allow(request.path["key"], allowance))


def _require_more(caller: Caller, key: str, wanted: int | None) -> None:
    """403 where a key would allow itself more, or others more than it may itself."""
    if caller.kind == "server" and caller.key_id == key:
        detail = "A key cannot change its own allowance: use another key, or the console."
        raise ProblemError(403, detail)
    own = caller.allowance.limit
    if own is not None and (wanted is None or wanted > own):
        raise ProblemError(403, f"This key may fetch {own:,} a month itself, and allow no more.")


def subject_name(subject: str) -> str:
    """What is called or counted for somebody who has no key."""
    if subject == PEOPLE:
        return "people who are signed in"
    form = subject.removeprefix("page ")
    return f"public page of {form}" if form != subject else subject
