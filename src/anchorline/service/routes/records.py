"""API: submitting a form, and what was kept."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Any

from anchorline.core.address import Address
from anchorline.core.errors import Problem, nearest_names, unknown_name_detail
from anchorline.core.forms import (
    Captured,
    Form,
    SlotInput,
    check_submission,
    languages_of,
    read_form,
    text_of,
)
from anchorline.core.formula import today
from anchorline.core.layouts import LayoutLibrary, component_label, one_line, write_lines
from anchorline.store.database import ReusedKeyError
from anchorline.store.record_order import BadCursorError
from anchorline.store.records import (
    NewRecord,
    Record,
)
from anchorline.store.records import (
    RecordSummary as KeptSummary,
)
from anchorline.wire.base import Schema
from anchorline.wire.records import (
    CapturedSchema,
    DryRunAnswer,
    FormRecordQuery,
    RecordAnswer,
    RecordList,
    RecordQuery,
    RecordRequest,
    RecordSummary,
)

from ..access import Access
from ..endpoints import ApiRequest, ApiResponse, Router
from ..problems import invalid
from .finding import facts_schema
from .idempotency_header import idempotency_key, reused_key
from .layouts import reference_notes
from .links import link_problems, linked, links_of
from .open_forms import open_form

router = Router("records")


@router.endpoint(
    "POST",
    "/forms/<form>/records",
    access=Access.CAPTURE,
    body=RecordRequest,
    answer=RecordAnswer,
    status=201,
    problems=(404, 409),
    request_headers={"Idempotency-Key": "The same key and request make one record only"},
    answer_headers={"Location": "Where the record can be read"},
)
def submit_record(request: ApiRequest) -> ApiResponse:
    """Submits a filled form; makes a record."""
    body = request.body(RecordRequest)
    opened = open_form(request, version=body.version)
    form, version = opened.form, opened.version
    values, addresses = _checked(request, form, body)
    new = NewRecord(
        form=form.key,
        form_version=version or 0,
        label=_label(form, values, addresses, _layouts(request, form.key)),
        values=values,
        addresses=addresses,
        made_by=request.caller.name,
        language=body.language or "",
    )
    try:
        record, _made_now = request.services.records.add(
            new, idempotency_key(request, form.key, request.http.get_data())
        )
    except ReusedKeyError:
        raise reused_key() from None
    return ApiResponse(
        _answer(request, record, form, _layouts(request, form.key), opened.document),
        status=201,
        headers={"Location": f"/api/v1/records/{record.id}"},
    )


@router.endpoint(
    "POST",
    "/forms/<form>/dry-run",
    access=Access.SERVER,
    body=RecordRequest,
    answer=DryRunAnswer,
    problems=(404,),
)
def dry_run_record(request: ApiRequest) -> Schema:
    """What a record would hold, were the draft submitted now; nothing is kept."""
    form = open_form(request, draft=True).form
    values, addresses = _checked(request, form, request.body(RecordRequest))
    layouts = _layouts(request, form.key)
    return DryRunAnswer(
        label=_label(form, values, addresses, layouts),
        values=values,
        texts=_texts(request, form, values),
        labels=_field_labels(form, values, addresses, layouts),
        slots=_slots(form, addresses, layouts),
    )


@router.endpoint(
    "GET",
    "/forms/<form>/records",
    access=Access.SERVER,
    query=FormRecordQuery,
    answer=RecordList,
    problems=(404,),
)
def list_form_records(request: ApiRequest) -> Schema:
    """The records of a form, page by page."""
    request.services.forms.entry(request.path["form"])
    return _page(request, request.query(FormRecordQuery), request.path["form"])


@router.endpoint("GET", "/records", access=Access.SERVER, query=RecordQuery, answer=RecordList)
def list_records(request: ApiRequest) -> Schema:
    """The records of all forms, page by page."""
    query = request.query(RecordQuery)
    if query.form is not None:
        known = [entry.key for entry in request.services.forms.list()]
        if query.form not in known:
            detail = unknown_name_detail("form", query.form, nearest_names(query.form, known))
            raise invalid([Problem("?form", detail)])
    return _page(request, query, query.form)


@router.endpoint(
    "GET",
    "/records/<record>",
    access=Access.SERVER,
    answer=RecordAnswer,
    problems=(404,),
)
def get_record(request: ApiRequest) -> Schema:
    """A whole record with its captured addresses."""
    record = request.services.records.get(request.path["record"])
    document, _number = request.services.forms.version(record.form, record.form_version)
    form = read_form(document, request.services.layouts)
    return _answer(request, record, form, _layouts(request, record.form), document)


def _layouts(request: ApiRequest, form: str) -> LayoutLibrary:
    """The layouts that hold on a form now."""
    return request.services.layouts_in_force.current().on_form(form)


def _checked(
    request: ApiRequest, form: Form, body: RecordRequest
) -> tuple[dict[str, Any], list[Captured]]:
    """The values and addresses to keep; 422 with every problem."""
    gazetteer = request.services.gazetteer.current()

    def find(address_id: str) -> tuple[Address, str] | None:
        found = gazetteer.address(address_id)
        return (found[0], f"{found[1].dataset}@{found[1].number}") if found else None

    inputs = {
        key: SlotInput(slot.country_code, slot.address_id, slot.typed)
        for key, slot in body.slots.items()
    }
    layouts = _layouts(request, form.key)
    day = today(request.services.database.now())
    checked = check_submission(form, body.values, inputs, layouts, find, day)
    problems = [*checked.problems, *link_problems(request, form, checked.values)]
    if problems:
        raise invalid(problems)
    return checked.values, checked.captured


def _label(
    form: Form, values: dict[str, Any], addresses: Sequence[Captured], layouts: LayoutLibrary
) -> str:
    """What lists show: the first text that was given, and the first address in one line."""
    texts = [f.key for f in form.all_fields() if f.type == "text" and f.slot is None]
    parts = [str(values[key]) for key in texts if key in values][:1]
    if addresses:
        first = addresses[0]
        line = one_line(layouts.require(first.country_code), first.components)
        if line not in parts:
            parts.append(line)
    return " · ".join(parts) or form.title


def _page(request: ApiRequest, query: FormRecordQuery, form: str | None) -> RecordList:
    try:
        page = request.services.records.page(
            form=form,
            search=query.search,
            sort=query.sort,
            limit=query.limit,
            after=query.after,
        )
    except BadCursorError as error:
        raise invalid([Problem("?after", str(error))]) from None
    return RecordList(
        records=[RecordSummary(**_summary(row)) for row in page.records],
        total=page.total,
        after=page.after,
    )


def _summary(row: KeptSummary) -> dict[str, Any]:
    return {
        "id": row.id,
        "form": row.form,
        "form_version": row.form_version,
        "label": row.label,
        "made_at": row.made_at,
        "made_by": row.made_by,
    }


def _answer(
    request: ApiRequest,
    record: Record,
    form: Form,
    layouts: LayoutLibrary,
    document: Mapping[str, Any],
) -> RecordAnswer:
    return RecordAnswer(
        **_summary(record),
        values=record.values,
        texts=_texts(request, form, record.values),
        agreed=_agreed(form, record, document),
        language=record.language or languages_of(document)[0],
        labels=_field_labels(form, record.values, record.addresses, layouts),
        slots=_slots(form, record.addresses, layouts),
    )


def _texts(request: ApiRequest, form: Form, values: Mapping[str, object]) -> dict[str, str]:
    """Values as people read them: of a choice its label, of a link what is shown of its record."""
    texts = {
        field.key: text_of(field, values[field.key])
        for field in form.all_fields()
        if field.key in values
    }
    for field in links_of(form):
        if field.key in values:
            texts[field.key] = linked(request, field, values[field.key]) or texts[field.key]
    return texts


def _agreed(form: Form, record: Record, document: Mapping[str, Any]) -> dict[str, str]:
    """What was agreed to, in the language in which it was read."""
    translation = (document.get("translations") or {}).get(record.language) or {}
    items = translation.get("items") or {}
    return {
        field.key: (items.get(field.key) or {}).get("label") or field.label
        for field in form.all_fields()
        if field.type == "consent" and record.values.get(field.key)
    }


def _slots(
    form: Form, addresses: Sequence[Captured], layouts: LayoutLibrary
) -> dict[str, CapturedSchema]:
    return {address.slot: _captured(form, address, layouts) for address in addresses}


def _field_labels(
    form: Form,
    values: Mapping[str, object],
    addresses: Sequence[Captured],
    layouts: LayoutLibrary,
) -> dict[str, str]:
    """What people read on the form above each value; a slot's parts with the slot's name."""
    countries = {address.slot: address.country_code for address in addresses}
    labels: dict[str, str] = {}
    for field in form.all_fields():
        if field.key not in values:
            continue
        label = field.label
        slot = form.slot(field.slot) if field.slot else None
        if not label and field.component:
            country = countries.get(field.slot or "")
            layout = layouts.require(country) if country else None
            label = component_label(layout, field.component)
        labels[field.key] = f"{slot.label}: {label}" if slot is not None else label or field.key
    return labels


def _captured(form: Form, address: Captured, layouts: LayoutLibrary) -> CapturedSchema:
    layout = layouts.require(address.country_code)
    slot = form.slot(address.slot)
    return CapturedSchema(
        label=slot.label if slot is not None else address.slot,
        country_code=address.country_code,
        components=address.components,
        component_labels={name: component_label(layout, name) for name in address.components},
        facts=facts_schema(address.facts),
        lines=write_lines(layout, address.components),
        address_id=address.address_id,
        edition=address.edition,
        typed=address.typed,
        changed=list(address.changed),
        layout=address.layout,
        notes=reference_notes(layout, address.components) if address.address_id else [],
    )
