"""API: activity: calls found, exported, and observed."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from datetime import timedelta
from typing import Any

from anchorline.application import observing
from anchorline.store.activity import OUTCOMES, Call, WantedCalls
from anchorline.wire.activity import (
    ActivityAnswer,
    ActivityFilter,
    ActivityQuery,
    CallSchema,
    ObservationList,
    ObservationSchema,
    ObserveRequest,
)
from anchorline.wire.base import Schema

from ..access import Access
from ..endpoints import ApiRequest, ApiResponse, Router
from .usage import subject_name

router = Router("activity", "administer")
_NOBODY = "-"


@router.endpoint(
    "GET", "/activity", access=Access.SERVER, query=ActivityQuery, answer=ActivityAnswer
)
def list_activity(request: ApiRequest) -> Schema:
    """The latest calls, or those after one of them; a call is there within a second."""
    query, services = request.query(ActivityQuery), request.services
    found = services.calls.find(_wanted(query), query.limit)
    names = _names(request)
    observes = request.caller.may_observe
    calls = sorted((_shown(one, names, observes) for one in found), key=lambda one: -one.id)
    return ActivityAnswer(
        calls=calls,
        kept_days=services.settings.activity_days,
        endpoints=services.activity.endpoints,
    )


@router.endpoint(
    "GET",
    "/activity-lines",
    access=Access.SERVER,
    query=ActivityFilter,
    answer=None,
    download="application/x-ndjson",
)
def export_activity(request: ApiRequest) -> ApiResponse:
    """All calls that are wanted as JSON Lines, the oldest first."""
    wanted, names = _wanted(request.query(ActivityFilter)), _names(request)
    calls, observes = request.services.calls.each(wanted), request.caller.may_observe

    def content() -> Iterator[bytes]:
        for one in calls:
            yield _shown(one, names, observes).model_dump_json().encode() + b"\n"

    headers = {
        "Content-Type": "application/x-ndjson",
        "Content-Disposition": 'attachment; filename="activity.jsonl"',
    }
    return ApiResponse(None, headers=headers, stream=content())


@router.endpoint("GET", "/observations", access=Access.SERVER, answer=ObservationList)
def list_observations(request: ApiRequest) -> Schema:
    """Keys, targets and forms of which question and answer are kept at present."""
    return _observations(request)


@router.endpoint(
    "PUT",
    "/observations",
    access=Access.SERVER,
    scopes=("observe",),
    body=ObserveRequest,
    answer=ObservationList,
)
def observe(request: ApiRequest) -> Schema:
    """Keeps question and answer of a key's, target's or form's calls for some hours, 24 at most.

    What people type stands in them: it is for finding an error, and ends by itself. A key needs a
    scope of its own for it, which no other one includes.
    """
    body, services = request.body(ObserveRequest), request.services
    observing.observe(services, request.caller, body.kind, body.name, timedelta(hours=body.hours))
    services.activity.learn()
    return _observations(request)


def _observations(request: ApiRequest) -> ObservationList:
    return ObservationList(
        observations=[
            ObservationSchema.model_validate(one, from_attributes=True)
            for one in request.services.calls.observations()
        ]
    )


def _names(request: ApiRequest) -> Mapping[str, str]:
    return request.services.keys.names()


def _wanted(query: ActivityFilter) -> WantedCalls:
    given: dict[str, Any] = query.model_dump(exclude={"limit"})
    if given["subject"] == _NOBODY:
        given["subject"] = ""
    return WantedCalls(**given)


def _shown(call: Call, names: Mapping[str, str], observes: bool) -> CallSchema:
    outcome = next(
        (name for name, (low, high) in OUTCOMES.items() if low <= call.status < high), "failed"
    )
    return CallSchema(
        id=call.id,
        at=call.at,
        subject=call.subject,
        name=names.get(call.subject) or subject_name(call.subject),
        origin=call.origin,
        endpoint=call.endpoint,
        of=call.of,
        status=call.status,
        outcome=outcome,
        ms=call.ms,
        question=call.question if observes else None,
        answer=call.answer if observes else None,
    )
