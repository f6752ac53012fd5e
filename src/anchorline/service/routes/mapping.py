"""API: the mapping of a form's addresses: checked, tried, run over samples, read back."""

from __future__ import annotations

from anchorline.application import mapping_workbench as workbench
from anchorline.application.mapped_drafts import FORMS_MAPPED
from anchorline.core.layouts import write_lines
from anchorline.core.mapping import CHANGES
from anchorline.store.document_model import Document
from anchorline.wire.base import Schema
from anchorline.wire.filling import FillAnswer
from anchorline.wire.forms import FormDocument, document_as_kept
from anchorline.wire.mapping import (
    ChangeKindSchema,
    ChangeSettingSchema,
    ExampleOutcome,
    ExampleOutcomes,
    LintAnswer,
    LintRequest,
    MappingChanges,
    MappingSamples,
    ProposedRules,
    ReadBackAnswer,
    ReadBackRequest,
    TryMappingRequest,
)

from ..access import Access
from ..endpoints import ApiRequest, Router
from .filling import fill_answer
from .mapping_answers import lint_answer, proposals_answer, samples_answer, tried_of

router = Router("mapping", "forms")


@router.endpoint("GET", "/mapping-changes", access=Access.SERVER, answer=MappingChanges)
def list_mapping_changes(_request: ApiRequest) -> Schema:
    """Changes that a rule can make to its text, with their settings."""
    kinds = sorted(CHANGES.values(), key=lambda kind: kind.title)
    return MappingChanges(
        changes=[
            ChangeKindSchema(
                name=kind.name,
                title=kind.title,
                help=kind.help,
                settings=[
                    ChangeSettingSchema(
                        name=one.name,
                        title=one.title,
                        type=one.type,
                        options=dict(one.options),
                        default=one.default,
                        least=one.least,
                        most=one.most,
                    )
                    for one in kind.settings
                ],
            )
            for kind in kinds
        ]
    )


@router.endpoint(
    "POST",
    "/forms/<form>/lint",
    access=Access.SERVER,
    body=LintRequest,
    answer=LintAnswer,
    problems=(404,),
)
def lint_form(request: ApiRequest) -> Schema:
    """What is wrong with the mappings of a draft, and what should be known; keeps nothing."""
    given = _kept(request.body(LintRequest).document)
    return lint_answer(workbench.lint(request.services, FORMS_MAPPED, request.path["form"], given))


@router.endpoint(
    "GET",
    "/forms/<form>/examples",
    access=Access.SERVER,
    answer=ExampleOutcomes,
    problems=(404,),
)
def run_form_examples(request: ApiRequest) -> Schema:
    """The examples of a draft, each with what came of it."""
    return ExampleOutcomes(
        examples=[
            ExampleOutcome(
                slot=slot,
                name=run.example.name,
                passed=not run.differences,
                differences={one.field: [one.expected, one.found] for one in run.differences},
            )
            for slot, run in workbench.run_examples(
                request.services, FORMS_MAPPED, request.path["form"]
            )
        ]
    )


@router.endpoint(
    "GET",
    "/forms/<form>/slots/<slot>/samples",
    access=Access.SERVER,
    answer=MappingSamples,
    problems=(404,),
)
def list_mapping_samples(request: ApiRequest) -> Schema:
    """Addresses to try a slot's mapping with: usual ones and odd ones of each country."""
    return samples_answer(workbench.samples(request.services, FORMS_MAPPED, *_place(request)))


@router.endpoint(
    "POST",
    "/forms/<form>/slots/<slot>/proposals",
    access=Access.SERVER,
    body=LintRequest,
    answer=ProposedRules,
    problems=(404,),
)
def propose_mapping(request: ApiRequest) -> Schema:
    """Rules for the fields of a draft that no rule of a slot writes yet, each with its reason."""
    given = _kept(request.body(LintRequest).document)
    found = workbench.propose(request.services, FORMS_MAPPED, *_place(request), given)
    return proposals_answer(found)


@router.endpoint(
    "POST",
    "/forms/<form>/slots/<slot>/try",
    access=Access.SERVER,
    body=TryMappingRequest,
    answer=FillAnswer,
    problems=(404,),
)
def try_mapping(request: ApiRequest) -> Schema:
    """What a draft's mapping makes of an address, step by step; keeps nothing."""
    body = request.body(TryMappingRequest)
    return fill_answer(
        workbench.try_out(
            request.services,
            request.caller,
            FORMS_MAPPED,
            *_place(request),
            _kept(body.document),
            tried_of(body),
            body.values,
        )
    )


@router.endpoint(
    "POST",
    "/forms/<form>/slots/<slot>/components",
    access=Access.SERVER,
    body=ReadBackRequest,
    answer=ReadBackAnswer,
    problems=(404,),
)
def read_components_back(request: ApiRequest) -> Schema:
    """The address that stands in the fields of a slot's mapping."""
    body = request.body(ReadBackRequest)
    found, layout = workbench.read_back(
        request.services, FORMS_MAPPED, *_place(request), body.values, body.country_code
    )
    return ReadBackAnswer(
        components=found.components,
        lines=write_lines(layout, found.components),
        differing=list(found.differing),
    )


def _kept(given: FormDocument | None) -> Document | None:
    """A document that was given in place of the draft."""
    return None if given is None else document_as_kept(given)


def _place(request: ApiRequest) -> tuple[str, str]:
    """The form and the slot of the path."""
    return request.path["form"], request.path["slot"]
