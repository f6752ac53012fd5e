"""API: the mapping of a form's addresses: checked, tried, run over samples, read back."""

from __future__ import annotations

from anchorline.application.mapping_samples import samples_of
from anchorline.application.mappings import lint_document, sample_of
from anchorline.core.address import Facts
from anchorline.core.errors import Problem
from anchorline.core.forms import Form, Slot
from anchorline.core.forms.mapping_lint import example_runs
from anchorline.core.forms.mapping_proposals import propose_rules
from anchorline.core.forms.receiving import fill_slot, receivers_of
from anchorline.core.formula import today
from anchorline.core.layouts import LayoutLibrary, complete_region, write_lines
from anchorline.core.mapping import CHANGES, KnownAddress
from anchorline.core.mapping.back import back
from anchorline.store.drafts import Document
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
from ..problems import invalid, not_found
from .filling import fill_answer
from .layouts import require_components
from .link_rules import finder_of_records
from .open_forms import read_draft_form, require_slot

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
    document = draft_document(request, request.body(LintRequest).document)
    sample = sample_of(request.services, document)
    found = lint_document(request.services, request.path["form"], document, sample)
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
            for one in found
        ],
        looked_at={code: len(listed) for code, listed in sample.items()},
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
    document = draft_document(request, None)
    form, layouts = read_draft(request, document)
    return ExampleOutcomes(
        examples=[
            ExampleOutcome(
                slot=document["slots"][int(pointer.split("/")[2])]["key"],
                name=run.example.name,
                passed=not run.differences,
                differences={one.field: [one.expected, one.found] for one in run.differences},
            )
            for run, pointer in example_runs(document, form, layouts, _day(request))
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
    form, layouts = read_draft(request, draft_document(request, None))
    slot = require_slot(form, request.path["slot"])
    found = samples_of(request.services.gazetteer.current(), slot.countries, layouts)
    return MappingSamples(
        samples=[
            MappingSample(
                which=one.which, country_code=one.country_code, id=one.id, label=one.label
            )
            for one in found
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
    form, layouts = read_draft(request, draft_document(request, request.body(LintRequest).document))
    slot = require_slot(form, request.path["slot"])
    return ProposedRules(
        proposals=[
            ProposedRule(rule=RuleSchema.model_validate(one.rule), because=one.because)
            for one in propose_rules(form, slot, layouts)
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
    form, layouts = read_draft(request, draft_document(request, body.document))
    slot = require_slot(form, request.path["slot"])
    known = _tried(request, slot, layouts, body)
    find = finder_of_records(request, form)
    return fill_answer(fill_slot(form, slot, known, body.values, find))


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
    form, layouts = read_draft(request, draft_document(request, None))
    slot = require_slot(form, request.path["slot"])
    layout = layouts.require(_country(slot, body.country_code))
    found = back(slot.mapping, receivers_of(form), body.values, layout, layouts)
    return ReadBackAnswer(
        components=found.components,
        lines=write_lines(layout, found.components),
        differing=list(found.differing),
    )


def draft_document(request: ApiRequest, given: FormDocument | None) -> Document:
    """A document that was given, or the draft."""
    if given is not None:
        return document_as_kept(given)
    return request.services.forms.draft(request.path["form"])[0]


def read_draft(request: ApiRequest, document: Document) -> tuple[Form, LayoutLibrary]:
    """A form as far as it can be read, and the layouts that hold on it.

    Raises:
        DocumentError: an address of it is there for no country.
    """
    key = request.path["form"]
    layouts = request.services.layouts_in_force.current().on_form(key)
    return read_draft_form(key, document, layouts), layouts


def _country(slot: Slot, given: str | None) -> str:
    code = (given or slot.only_country or slot.countries[0]).upper()
    if code not in slot.countries:
        raise not_found(f"The address {slot.key!r} is not there for {code!r}.")
    return code


def _tried(
    request: ApiRequest, slot: Slot, layouts: LayoutLibrary, body: TryMappingRequest
) -> KnownAddress:
    """The address that a mapping is tried with."""
    if body.address_id is not None:
        found = request.services.gazetteer.having(body.address_id).address(body.address_id)
        if found is None:
            raise invalid([Problem("/address_id", f"There is no address {body.address_id!r}.")])
        return KnownAddress.of(found[0], layouts, _day(request))
    components = body.components or {}
    code = body.country_code or components.get("country_code")
    layout = layouts.require(_country(slot, code))
    require_components(components, "/components", set(layout.extras))
    return KnownAddress(
        complete_region(layout, components),
        layout,
        _facts(body),
        layouts=layouts,
        current_day=_day(request),
    )


def _day(request: ApiRequest) -> int:
    return today(request.services.database.now())


def _facts(body: TryMappingRequest) -> Facts:
    given = body.facts
    if given is None:
        return Facts()
    return Facts(given.latitude, given.longitude, given.use or None, tuple(given.languages))
