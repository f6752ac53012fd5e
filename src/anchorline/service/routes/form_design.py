"""API: what forms are made of, and what one can begin from."""

from __future__ import annotations

from anchorline.core.errors import Problem
from anchorline.core.forms import FIELD_TYPES
from anchorline.core.forms.ready_made import ready_made_forms
from anchorline.core.forms.table import TableError, propose
from anchorline.wire.base import Schema
from anchorline.wire.form_design import (
    ColumnGuess,
    FieldTypes,
    FieldTypeSchema,
    ReadyMadeForm,
    ReadyMadeForms,
    TableAnswer,
    TableRequest,
)
from anchorline.wire.forms import FormDocument

from ..access import Access
from ..endpoints import ApiRequest, Router
from ..problems import invalid

router = Router("form_design", "forms")
# Where nothing can be searched yet, addresses are typed in as this country's.
_FIRST_COUNTRY = "GB"


@router.endpoint("GET", "/field-types", access=Access.SERVER, answer=FieldTypes)
def list_field_types(_request: ApiRequest) -> Schema:
    """Types of fields, with what can be set of each."""
    return FieldTypes(
        types=[
            FieldTypeSchema(
                name=one.name,
                title=one.title,
                says=one.says,
                holds_value=one.holds_value,
                is_filled=one.is_filled,
                always_needed=one.always_needed,
                needs_label=one.needs_label,
                settings=list(one.settings),
            )
            for one in FIELD_TYPES.values()
        ]
    )


@router.endpoint("GET", "/ready-made-forms", access=Access.SERVER, answer=ReadyMadeForms)
def list_ready_made_forms(_request: ApiRequest) -> Schema:
    """Forms to begin from."""
    return ReadyMadeForms(
        forms=[
            ReadyMadeForm(
                name=one.name,
                title=one.document["title"],
                says=one.says,
                document=FormDocument.model_validate(one.document),
            )
            for one in ready_made_forms()
        ]
    )


@router.endpoint(
    "POST", "/form-proposals", access=Access.SERVER, body=TableRequest, answer=TableAnswer
)
def propose_form(request: ApiRequest) -> Schema:
    """A form for the rows of a table; keeps nothing."""
    body = request.body(TableRequest)
    there = request.services.gazetteer.current().countries
    countries = sorted(there) or [_FIRST_COUNTRY]
    layouts = request.services.layouts
    try:
        made = propose(body.text, body.title, countries, layouts, body.plain, body.left_out)
    except TableError as error:
        raise invalid([Problem("/text", str(error))]) from None
    return TableAnswer(
        document=FormDocument.model_validate(made.document),
        guesses=[
            ColumnGuess(
                column=guess.column,
                becomes=guess.becomes,
                key=guess.key,
                type=guess.type,
                component=guess.component,
                slot=guess.slot,
                because=guess.because,
            )
            for guess in made.guesses
        ],
    )
