"""API: where things stand, for the console's first page."""

from __future__ import annotations

from datetime import timedelta

from anchorline.wire.base import Shape
from anchorline.wire.session import EditionState, StandAnswer

from ..access import Access
from ..endpoints import Area, Call

area = Area("stand")
_WEEK = timedelta(days=7)


@area.endpoint("GET", "/stand", access=Access.SERVER, answer=StandAnswer)
def get_stand(call: Call) -> Shape:
    """Where things stand: reference data, forms, records, and how well capture goes."""
    forms = call.services.forms.list()
    capture = call.services.records.capture_counts(_WEEK)
    return StandAnswer(
        editions=[
            EditionState(
                dataset=edition.dataset,
                number=edition.number,
                addresses=edition.address_count,
                countries=list(edition.countries),
            )
            for edition in call.services.gazetteer.current().editions
        ],
        forms=len(forms),
        forms_published=sum(form.published_version is not None for form in forms),
        drafts_waiting=sum(form.draft_differs for form in forms),
        records=capture.records,
        records_last_week=capture.recent,
        captured=capture.captured,
        picked=capture.picked,
        picked_unchanged=capture.unchanged,
    )
