"""API: forms as they are filled, and filling a slot."""

from __future__ import annotations

from anchorline.core.forms.receiving import fill_slot
from anchorline.wire.base import Schema
from anchorline.wire.filling import FillAnswer, FillRequest
from anchorline.wire.forms import FormAnswer, FormList, FormQuery, MapTiles

from ..access import Access
from ..endpoints import ApiRequest, ApiResponse, Router, as_json
from .filling import fill_answer, what_to_fill
from .link_rules import finder_of_records
from .open_forms import OpenForm, as_filled, logic_of, open_form, require_slot, summary_of
from .record_answers import layouts_of

router = Router("forms", "forms", "records")


@router.endpoint("GET", "/forms", access=Access.SERVER, answer=FormList)
def list_forms(request: ApiRequest) -> Schema:
    """All forms."""
    return FormList(forms=[summary_of(entry) for entry in request.services.forms.list()])


@router.endpoint(
    "GET",
    "/forms/<form>",
    access=Access.CAPTURE,
    query=FormQuery,
    answer=FormAnswer,
    problems=(404,),
)
def get_form(request: ApiRequest) -> Schema | ApiResponse:
    """A form to be filled: its published version, or its draft."""
    opened = open_form(request, draft=request.query(FormQuery).draft)
    if opened.version is None:
        return _form_answer(request, opened)
    body = request.services.checked_forms.answer(
        opened.digest,
        opened.version,
        layouts_of(request, opened.form.key),
        lambda: as_json(_form_answer(request, opened)),
    )
    return ApiResponse(None, body=body)


def _form_answer(request: ApiRequest, opened: OpenForm) -> FormAnswer:
    settings = request.services.settings
    tiles = MapTiles(address=settings.map_tiles, attribution=settings.map_attribution)
    return FormAnswer(
        document=as_filled(opened),
        version=opened.version,
        logic=logic_of(opened.form),
        tiles=tiles if settings.map_tiles else None,
    )


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
    form = open_form(request, draft=request.query(FormQuery).draft).form
    slot = require_slot(form, request.path["slot"])
    body = request.body(FillRequest)
    layouts = request.services.layouts_in_force.current().on_form(request.path["form"])
    source = what_to_fill(request, slot, body, layouts)
    filled = fill_slot(form, slot, source.known, body.values, finder_of_records(request, form))
    return fill_answer(filled, source.notes, source.address)
