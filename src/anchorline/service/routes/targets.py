"""API: targets while they are set up: proposed, tried, and what pages have reported."""

from __future__ import annotations

from anchorline.application import targets
from anchorline.core.targets.pages.proposal import propose_page
from anchorline.core.targets.programs.steps import as_entry
from anchorline.wire.base import Schema
from anchorline.wire.page_targets import PageTargetDocument
from anchorline.wire.target_proposals import (
    PlannedStep,
    TargetProposalAnswer,
    TargetProposalRequest,
    TargetTrialAnswer,
    TargetTrialRequest,
)
from anchorline.wire.targets import TargetFaultList, TargetFaultSchema, target_as_kept

from ..access import Access
from ..endpoints import ApiRequest, Router
from .filling import fill_answer
from .seen_fields import reasons_shown, seen_field

router = Router("target_set_up", "forms")


@router.endpoint(
    "POST",
    "/target-proposals",
    access=Access.SERVER,
    body=TargetProposalRequest,
    answer=TargetProposalAnswer,
)
def propose_page_target(request: ApiRequest) -> Schema:
    """A target for a page with these fields, each with what it is taken for and why.

    Nothing is kept.
    """
    body = request.body(TargetProposalRequest)
    seen = [seen_field(one) for one in body.fields]
    layouts = request.services.layouts_in_force.current().on_form(None)
    made = propose_page(seen, body.key, body.title, body.origins, layouts)
    return TargetProposalAnswer(
        document=PageTargetDocument.model_validate(made.document), **reasons_shown(made.reasons)
    )


@router.endpoint(
    "POST",
    "/target-trials",
    access=Access.SERVER,
    body=TargetTrialRequest,
    answer=TargetTrialAnswer,
)
def try_target(request: ApiRequest) -> Schema:
    """What an address would put into a page or a program; nothing is kept.

    Where no address is named, it is a practice address of the first country.
    """
    body = request.body(TargetTrialRequest)
    tried = targets.try_out(
        request.services,
        request.caller,
        target_as_kept(body.document),
        body.address,
        body.address_id,
    )
    return TargetTrialAnswer(
        label=tried.label,
        fill=fill_answer(tried.filled).model_copy(update={"address": None}),
        steps=[PlannedStep(says=says, step=dict(as_entry(step))) for step, says in tried.steps],
    )


@router.endpoint(
    "GET",
    "/targets/<target>/faults",
    access=Access.SERVER,
    answer=TargetFaultList,
    problems=(404,),
)
def list_target_faults(request: ApiRequest) -> Schema:
    """Mistakes of set-up that pages have reported, the latest first."""
    key = request.path["target"]
    request.services.targets.require(key)
    return TargetFaultList(
        faults=[
            TargetFaultSchema.model_validate(one, from_attributes=True)
            for one in request.services.target_faults.list(key)
        ]
    )
