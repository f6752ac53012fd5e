"""API: looks at programs' screens, whose screen it is, and signatures proposed from looks."""

from __future__ import annotations

from collections.abc import Sequence

from anchorline.core.errors import DocumentError
from anchorline.core.targets.programs import Look, ProgramTarget, read_program_target, recognise
from anchorline.core.targets.programs.facts import look_of
from anchorline.core.targets.programs.signature_proposal import (
    ConditionProposal,
    propose_signature,
)
from anchorline.core.targets.programs.steadiness import compared
from anchorline.store.drafts import Document
from anchorline.store.looks import KeptLook
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

router = Router("looks", "forms")
_EITHER = ("desk", "forms")


@router.endpoint(
    "POST",
    "/looks",
    access=Access.SERVER,
    body=LookReport,
    answer=LookSchema,
    status=201,
    scopes=_EITHER,
    largest_body=262_144,
)
def send_look(request: ApiRequest) -> ApiResponse:
    """Keeps a look at a screen for some days, for whoever sets targets up."""
    body = request.body(LookReport)
    facts = [fact.model_dump() for fact in body.facts]
    looks = request.services.looks
    kept = looks.keep(facts, body.machine, request.caller.name)
    return ApiResponse(_shown(kept, looks.list()), status=201)


@router.endpoint("GET", "/looks", access=Access.SERVER, answer=LookList)
def list_looks(request: ApiRequest) -> Schema:
    """Looks of the last days, the latest first, with what stays the same in each program."""
    kept = request.services.looks.list()
    return LookList(looks=[_shown(one, kept) for one in kept])


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
    services = request.services
    documents: list[Document]
    if body.drafts:
        documents = [document for document, _ in services.targets.list()]
    else:
        documents = [document for document, _ in services.published_targets.all()]
    found = recognise(
        look_from(body.facts), [target.candidate() for target in programs_of(request, documents)]
    )
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


def programs_of(request: ApiRequest, documents: Sequence[Document]) -> list[ProgramTarget]:
    """The program targets among documents; one that cannot be read is left out."""
    layouts = request.services.layouts_in_force.current().on_form(None)
    found = []
    for document in documents:
        if document.get("kind") == "program":
            try:
                found.append(read_program_target(document, layouts)[0])
            except DocumentError:
                continue
    return found


def _shown(look: KeptLook, kept: Sequence[KeptLook]) -> LookSchema:
    """A look beside the ones before it at the same program."""
    program = look_of(look.facts).first("program")
    before = [
        look_of(one.facts)
        for one in kept
        if one.at < look.at and look_of(one.facts).first("program") == program
    ]
    facts = [
        SeenFactSchema(
            kind=one.fact.kind,
            text=one.fact.text,
            pieces=[PieceSchema(text=piece.text, steady=piece.steady) for piece in one.pieces],
        )
        for one in compared([*before[:1], look_of(look.facts)])
    ]
    return LookSchema(id=look.id, facts=facts, machine=look.machine, by=look.by, at=look.at)
