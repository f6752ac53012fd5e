"""API: the mapping of a form's addresses: checked, tried, run over samples, read back."""

from __future__ import annotations

from anchorline.application import mapping_workbench as workbench
from anchorline.core.address import Facts
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
    MappingFinding,
    MappingSample,
    MappingSamples,
    ProposedRule,
    ProposedRules,
    ReadBackAnswer,
    ReadBackRequest,
    TryMappingRequest,
)
from anchorline.wire.rules import RuleSchema

from ..access import Access
from ..endpoints import ApiRequest, Router
from .filling import fill_answer

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
    found = workbench.lint(request.services, request.path["form"], given)
    return LintAnswer(
        problems=[
            MappingFinding(
                pointer=one.pointer,
                severity=one.severity,
                detail=one.detail,
                addresses=one.addresses,
                check=one.check,
                offers=list(one.offers),
            )
            for one in found.findings
        ],
        looked_at={code: len(listed) for code, listed in found.sample.items()},
    )


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
            for slot, run in workbench.run_examples(request.services, request.path["form"])
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
    return MappingSamples(
        samples=[
            MappingSample(
                which=one.which, country_code=one.country_code, id=one.id, label=one.label
            )
            for one in workbench.samples(request.services, *_place(request))
        ]
    )


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
    return ProposedRules(
        proposals=[
            ProposedRule(rule=RuleSchema.model_validate(one.rule), because=one.because)
            for one in workbench.propose(request.services, *_place(request), given)
        ]
    )


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
    tried = workbench.Tried(body.address_id, body.components, _facts(body), body.country_code)
    return fill_answer(
        workbench.try_out(
            request.services,
            request.caller,
            *_place(request),
            _kept(body.document),
            tried,
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
        request.services, *_place(request), body.values, body.country_code
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


def _facts(body: TryMappingRequest) -> Facts:
    given = body.facts
    if given is None:
        return Facts()
    return Facts(given.latitude, given.longitude, given.use or None, tuple(given.languages))
