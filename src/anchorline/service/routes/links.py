"""API: links to records of other forms: what can be chosen."""

from __future__ import annotations

from anchorline.application.records import link_choices
from anchorline.wire.base import Schema
from anchorline.wire.form_design import LinkChoice, LinkChoices, LinkQuery

from ..access import Access
from ..endpoints import ApiRequest, Router

router = Router("links", "records", "forms")


@router.endpoint(
    "GET",
    "/forms/<form>/links/<field>",
    access=Access.CAPTURE,
    query=LinkQuery,
    answer=LinkChoices,
    problems=(404,),
)
def list_link_choices(request: ApiRequest) -> Schema:
    """Records of another form that a link can be set to; of each what the form shows, no more."""
    query = request.query(LinkQuery)
    found = link_choices(
        request.services,
        request.caller,
        request.path["form"],
        request.path["field"],
        text=query.q,
        record=query.id,
        draft=query.draft,
    )
    return LinkChoices(records=[LinkChoice(id=key, label=label) for key, label in found])
