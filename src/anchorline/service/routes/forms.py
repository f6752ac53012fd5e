"""API: forms, their drafts and versions, and filling a slot."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any, NamedTuple

from anchorline.core.address import Address, Components
from anchorline.core.checking import components_from_text, number_left_over
from anchorline.core.errors import Problem, unknown_name_detail
from anchorline.core.forms import Form, Slot, formulas_of, read_form, with_brought_parts
from anchorline.core.forms.address_values import address_value
from anchorline.core.formula import to_data
from anchorline.core.layouts import Layout, complete_region
from anchorline.core.mapping import fill_slot
from anchorline.store.forms import FormEntry
from anchorline.wire.base import Schema
from anchorline.wire.forms import (
    DraftAnswer,
    FieldSchema,
    FillAnswer,
    FilledAddress,
    FillRequest,
    FormAnswer,
    FormDocument,
    FormList,
    FormQuery,
    FormSummary,
    RuleSchema,
    TraceEntry,
    document_as_kept,
)
from anchorline.wire.formulas import FormLogic

from ..access import Access
from ..endpoints import ApiRequest, ApiResponse, Router
from ..problems import ProblemError, invalid, not_found
from .drafts import ETAG, IF_MATCH, etag, keep_draft
from .layouts import reference_notes, require_components

router = Router("forms")


def open_form(request: ApiRequest, *, draft: bool = False) -> tuple[Form, int | None]:
    """The form named in the path, published or as a draft, and its version.

    It has the fields that own layouts bring to its slots.

    Raises:
        ProblemError: 403 where the caller may not use it, or not see drafts.
        NotThereError: there is no such form, or it is not published.
    """
    key = request.path["form"]
    if not request.caller.may_use_form(key):
        raise ProblemError(403, f"This caller may not use the form {key!r}.")
    if draft:
        if request.caller.kind not in ("server", "person"):
            raise ProblemError(403, f"A draft needs {Access.SERVER.value}.")
        document, version = request.services.forms.draft(key)[0], None
    else:
        document, version = request.services.published_forms.version(key)
    form = read_form(document, request.services.layouts)
    return with_brought_parts(
        form, request.services.layouts_in_force.current().on_form(key)
    ), version


@router.endpoint("GET", "/forms", access=Access.SERVER, answer=FormList)
def list_forms(request: ApiRequest) -> Schema:
    """All forms."""
    return FormList(forms=[_summary(entry) for entry in request.services.forms.list()])


@router.endpoint(
    "GET",
    "/forms/<form>",
    access=Access.CAPTURE,
    query=FormQuery,
    answer=FormAnswer,
    problems=(404,),
)
def get_form(request: ApiRequest) -> Schema:
    """A form to be filled: its published version, or its draft."""
    draft = request.query(FormQuery).draft
    form, version = open_form(request, draft=draft)
    services, key = request.services, request.path["form"]
    document = services.forms.draft(key)[0] if draft else services.published_forms.version(key)[0]
    whole = _with_parts(FormDocument.model_validate(document), form)
    return FormAnswer(document=whole, version=version, logic=_logic(form))


@router.endpoint(
    "GET",
    "/forms/<form>/draft",
    access=Access.SERVER,
    answer=DraftAnswer,
    problems=(404,),
    answer_headers=ETAG,
)
def get_draft(request: ApiRequest) -> ApiResponse:
    """A form's draft, to be edited."""
    document, entry = request.services.forms.draft(request.path["form"])
    return _draft_response(FormDocument.model_validate(document), entry)


@router.endpoint(
    "PUT",
    "/forms/<form>/draft",
    access=Access.SERVER,
    body=FormDocument,
    answer=DraftAnswer,
    problems=(412, 428),
    request_headers=IF_MATCH,
    answer_headers=ETAG,
)
def put_draft(request: ApiRequest) -> ApiResponse:
    """Keeps a draft; makes the form where it is new."""
    key, document = request.path["form"], request.body(FormDocument)
    kept = document_as_kept(document)
    read_form(kept, request.services.layouts)
    entry = keep_draft(request, request.services.forms, key, kept)
    return _draft_response(document, entry)


@router.endpoint(
    "POST",
    "/forms/<form>/publish",
    access=Access.SERVER,
    answer=FormSummary,
    problems=(404,),
)
def publish_form(request: ApiRequest) -> Schema:
    """Publishes the draft as the next version; the same version where nothing differs."""
    document, _entry = request.services.forms.draft(request.path["form"])
    read_form(document, request.services.layouts)
    return _summary(request.services.forms.publish(request.path["form"], request.caller.name))


@router.endpoint(
    "POST",
    "/forms/<form>/slots/<slot>/fill",
    access=Access.CAPTURE,
    query=FormQuery,
    body=FillRequest,
    answer=FillAnswer,
    problems=(404,),
)
def fill_form_slot(request: ApiRequest) -> Schema:
    """What an address, or what is known of one, puts into the fields of a slot."""
    form, _version = open_form(request, draft=request.query(FormQuery).draft)
    slot = _require_slot(form, request.path["slot"])
    body = request.body(FillRequest)
    source = _what_to_fill(request, slot, body)
    filled = fill_slot(form, slot, source.components, body.values)
    return FillAnswer(
        values=filled.values,
        cleared=filled.cleared,
        warnings=[*filled.warnings, *source.notes],
        trace=[
            TraceEntry(field=s.field, components=list(s.components), detail=s.detail)
            for s in filled.trace
        ],
        address=source.address,
    )


class _Source(NamedTuple):
    """What a slot is filled from.

    Attributes:
        notes: what in the components does not fit their country's layout.
        address: of one address that was picked.
    """

    components: Mapping[str, str]
    notes: list[str]
    address: FilledAddress | None = None


def _filled_address(address: Address, layout: Layout, components: Components) -> FilledAddress:
    value = address_value(layout, components)
    return FilledAddress(
        components=dict(value.components),
        line=value.line,
        lines=list(value.lines),
        latitude=address.facts.latitude,
        longitude=address.facts.longitude,
    )


def _what_to_fill(request: ApiRequest, slot: Slot, body: FillRequest) -> _Source:
    """What the one source of a request comes to; 422 where it names what there is not."""
    gazetteer = request.services.gazetteer.current()
    layouts = request.services.layouts_in_force.current().on_form(request.path["form"])
    if body.address_id is not None:
        found = gazetteer.address(body.address_id)
        if found is None:
            raise invalid([Problem("/address_id", f"There is no address {body.address_id!r}.")])
        address = found[0]
        layout = layouts.require(address.country_code)
        components = complete_region(layout, address.components)
        picked = _filled_address(address, layout, components)
        return _Source(components, reference_notes(layout, components), picked)
    if body.group_id is not None:
        known = gazetteer.group(body.group_id)
        if known is None:
            raise invalid([Problem("/group_id", f"There is no group {body.group_id!r}.")])
        layout = layouts.require(known["country_code"])
        if body.typed and "number" not in known:
            known["number"] = number_left_over(layout, body.typed, known)
        return _Source(complete_region(layout, known), [])
    if body.components is not None:
        require_components(body.components, "/components", _extras(request, slot))
        return _Source(body.components, [])
    country = (body.country_code or slot.only_country or "").upper()
    if not country:
        detail = f"Say of which country this is: one of {', '.join(slot.countries)}."
        raise invalid([Problem("/country_code", detail)])
    if country not in slot.countries:
        detail = unknown_name_detail("country of this slot", country, slot.countries)
        raise invalid([Problem("/country_code", detail)])
    return _Source(components_from_text(layouts.require(country), body.typed or ""), [])


def _logic(form: Form) -> FormLogic:
    """The checked formulas of a form."""
    found: dict[str, dict[str, Any]] = {}
    for key in form.order:
        for setting, formula in formulas_of(form.item(key)):
            found.setdefault(setting, {})[key] = to_data(formula.tree)
    return FormLogic.model_validate(
        {
            "order": form.order,
            "formulas": found.get("formula", {}),
            "shown": found.get("shown_when", {}),
            "required": found.get("required_when", {}),
        }
    )


def _extras(request: ApiRequest, slot: Slot) -> set[str]:
    """Names that layouts ask for beside the components in any country of a slot."""
    layouts = request.services.layouts_in_force.current().on_form(request.path["form"])
    return {name for code in slot.countries for name in layouts.require(code).extras}


def _with_parts(document: FormDocument, form: Form) -> FormDocument:
    """A document with the fields and rules that own layouts have brought to its form."""
    slots = []
    for schema in document.slots:
        slot = _require_slot(form, schema.key)
        parts = [
            FieldSchema(key=part.key, component=part.component, max_length=part.max_length)
            for part in slot.parts[len(schema.parts) :]
        ]
        rules = [
            RuleSchema(components=list(rule.components), into=rule.into)
            for rule in slot.mapping[len(schema.mapping) :]
        ]
        update = {"parts": [*schema.parts, *parts], "mapping": [*schema.mapping, *rules]}
        slots.append(schema.model_copy(update=update))
    return document.model_copy(update={"slots": slots})


def _require_slot(form: Form, key: str) -> Slot:
    slot = form.slot(key)
    if slot is None:
        known = ", ".join(s.key for s in form.slots) or "none"
        raise not_found(f"The form {form.key!r} has no slot {key!r}; it has: {known}.")
    return slot


def _draft_response(document: FormDocument, entry: FormEntry) -> ApiResponse:
    answer = DraftAnswer(document=document, form=_summary(entry))
    return ApiResponse(answer, headers=etag(entry.revision))


def _summary(entry: FormEntry) -> FormSummary:
    return FormSummary(
        key=entry.key,
        kind=entry.kind,
        title=entry.title,
        published_version=entry.published_version,
        draft_differs=entry.draft_differs,
        record_count=entry.record_count,
        changed_at=entry.changed_at,
    )
