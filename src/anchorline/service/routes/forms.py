"""API: forms as they are filled, and filling a slot."""

from __future__ import annotations

from anchorline.application import filling
from anchorline.application.open_forms import OpenForm, open_form, require_slot
from anchorline.wire.base import Schema
from anchorline.wire.filling import FillAnswer, FillRequest
from anchorline.wire.forms import FormAnswer, FormQuery, MapTiles

from ..access import Access
from ..endpoints import ApiRequest, ApiResponse, Router, as_json
from ..form_answers import as_filled, logic_of
from .filling import fill_answer, wanted_fill

router = Router("forms", "forms", "records")


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
    opened = _opened(request)
    if opened.version is None:
        return _form_answer(request, opened)
    body = request.services.checked_forms.answer(
        opened.digest,
        opened.version,
        opened.layouts,
        lambda: as_json(_form_answer(request, opened)),
    )
    return ApiResponse(None, body=body)


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
    opened, body = _opened(request), request.body(FillRequest)
    slot = require_slot(opened.form, request.path["slot"])
    return fill_answer(
        filling.fill(
            request.services,
            request.caller,
            opened.form,
            slot,
            wanted_fill(body),
            body.values,
            opened.layouts,
        )
    )


def _opened(request: ApiRequest) -> OpenForm:
    draft = request.query(FormQuery).draft
    return open_form(request.services, request.caller, request.path["form"], draft=draft)


def _form_answer(request: ApiRequest, opened: OpenForm) -> FormAnswer:
    settings = request.services.settings
    tiles = MapTiles(address=settings.map_tiles, attribution=settings.map_attribution)
    return FormAnswer(
        document=as_filled(opened),
        version=opened.version,
        logic=logic_of(opened.form),
        tiles=tiles if settings.map_tiles else None,
    )
