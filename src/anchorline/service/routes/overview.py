"""API: the overview, for the console's first page."""

from __future__ import annotations

from datetime import timedelta

from anchorline.wire.base import Schema
from anchorline.wire.session import AllowanceState, EditionState, OverviewAnswer

from ..access import Access
from ..endpoints import ApiRequest, Router
from .usage import usage_of

router = Router("overview", "administer")
_WEEK = timedelta(days=7)


@router.endpoint("GET", "/overview", access=Access.SERVER, answer=OverviewAnswer)
def get_overview(request: ApiRequest) -> Schema:
    """The overview: reference data, forms, records, and how well capture goes."""
    forms, published, waiting = request.services.forms.counts()
    capture = request.services.records.capture_counts(_WEEK)
    return OverviewAnswer(
        editions=[
            EditionState(
                dataset=edition.dataset,
                number=edition.number,
                addresses=edition.address_count,
                countries=list(edition.countries),
            )
            for edition in request.services.gazetteer.current().editions
        ],
        forms=forms,
        forms_published=published,
        drafts_waiting=waiting,
        records=capture.records,
        records_last_week=capture.recent,
        captured=capture.captured,
        picked=capture.picked,
        picked_unchanged=capture.unchanged,
        allowances=[
            AllowanceState(subject=one.subject, name=one.name, state=one.state)
            for one in usage_of(request.services, request.services.database.now().date())
            if one.state != "within"
        ],
    )
