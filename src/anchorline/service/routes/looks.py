"""API: looks at programs' screens, whose screen it is, and signatures proposed from looks."""

from __future__ import annotations

from collections.abc import Sequence

from anchorline.application.looks import ComparedLook, compared_looks, keep_look, recognised
from anchorline.core.targets.programs import Look
from anchorline.core.targets.programs.facts import look_of
from anchorline.core.targets.programs.signature_proposal import (
    ConditionProposal,
    propose_signature,
)
from anchorline.wire.base import Schema
from anchorline.wire.looks import (
    ConditionProposalSchema,
    FactSchema,
    LookList,
    LookReport,
    LookSchema,
    PieceSchema,
    RecognitionAnswer,
    RecognitionRequest,
    ScreenTraceSchema,
    SeenFactSchema,
    SignatureProposalAnswer,
    SignatureProposalRequest,
)
from anchorline.wire.program_targets import ConditionSchema

from ..access import Access
from ..endpoints import ApiRequest, ApiResponse, Router
from ..idempotency_header import IDEMPOTENCY, idempotency_key

router = Router("looks", "forms")
_EITHER = ("desk", "forms")


@router.endpoint(
    "POST",
    "/looks",
    access=Access.SERVER,
    body=LookReport,
    answer=LookSchema,
    status=201,
    problems=(404, 409),
    request_headers=IDEMPOTENCY,
    scopes=_EITHER,
    largest_body=262_144,
)
def send_look(request: ApiRequest) -> ApiResponse:
    """Keeps a look at a screen for some days, for whoever sets targets up."""
    body = request.body(LookReport)
    facts = [fact.model_dump() for fact in body.facts]
    once_by = idempotency_key(request, "looks/", request.http.get_data())
    kept = keep_look(request.services, facts, body.machine, request.caller.name, once_by)
    return ApiResponse(_shown(kept), status=201)


@router.endpoint("GET", "/looks", access=Access.SERVER, answer=LookList)
def list_looks(request: ApiRequest) -> Schema:
    """Looks of the last days, the latest first, with what stays the same in each program."""
    return LookList(looks=[_shown(one) for one in compared_looks(request.services)])


@router.endpoint(
    "DELETE", "/looks/<look>", access=Access.SERVER, answer=None, status=204, problems=(404,)
)
def delete_look(request: ApiRequest) -> ApiResponse:
    """Deletes a look."""
    request.services.looks.remove(request.path["look"])
    return ApiResponse(None, status=204)


@router.endpoint(
    "POST",
    "/recognitions",
    access=Access.SERVER,
    body=RecognitionRequest,
    answer=RecognitionAnswer,
    scopes=_EITHER,
)
def recognise_screen(request: ApiRequest) -> Schema:
    """Which target a screen is of, and why not the others."""
    body = request.body(RecognitionRequest)
    found = recognised(request.services, look_from(body.facts), drafts=body.drafts)
    return RecognitionAnswer(
        targets=list(dict.fromkeys(one.target for one in found.chosen)),
        trace=[ScreenTraceSchema.model_validate(one, from_attributes=True) for one in found.trace],
    )


@router.endpoint(
    "POST",
    "/signature-proposals",
    access=Access.SERVER,
    body=SignatureProposalRequest,
    answer=SignatureProposalAnswer,
)
def propose_screen_signature(request: ApiRequest) -> Schema:
    """Conditions that looks at one screen meet and others do not; nothing is kept."""
    body = request.body(SignatureProposalRequest)
    made = propose_signature(
        [look_from(facts) for facts in body.looks], [look_from(facts) for facts in body.others]
    )
    return SignatureProposalAnswer(
        conditions=conditions_shown(made.conditions), also_matched=list(made.also_matched)
    )


def look_from(facts: Sequence[FactSchema]) -> Look:
    """A look from what was sent."""
    return look_of([fact.model_dump() for fact in facts])


def conditions_shown(proposed: Sequence[ConditionProposal]) -> list[ConditionProposalSchema]:
    """Proposed conditions as they are answered."""
    return [
        ConditionProposalSchema(
            condition=ConditionSchema.model_validate(
                {"kind": p.condition.kind, "test": p.condition.test, "text": p.condition.text}
            ),
            because=p.because,
        )
        for p in proposed
    ]


def _shown(compared: ComparedLook) -> LookSchema:
    look = compared.look
    facts = [
        SeenFactSchema(
            kind=one.fact.kind,
            text=one.fact.text,
            pieces=[PieceSchema(text=piece.text, steady=piece.steady) for piece in one.pieces],
        )
        for one in compared.facts
    ]
    return LookSchema(id=look.id, facts=facts, machine=look.machine, by=look.by, at=look.at)
