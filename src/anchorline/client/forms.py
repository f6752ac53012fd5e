"""The calls on forms: as documents, filling them, what one can begin from."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

from anchorline.wire.filling import FillAnswer, FillRequest
from anchorline.wire.form_design import (
    FieldTypes,
    FieldTypeSchema,
    LinkChoice,
    LinkChoices,
    ReadyMadeForm,
    ReadyMadeForms,
    TableAnswer,
    TableRequest,
)
from anchorline.wire.forms import (
    FormAnswer,
    FormDifferenceRequest,
    FormDocument,
    FormDraft,
    FormList,
    FormSummary,
    FormVersion,
)

from .calls import Calls, part, request_body
from .documents import Documents
from .transport import Transport

Value = str | int | float | bool | list[str] | None


class Forms(Documents[FormDocument, FormSummary, FormDraft, FormVersion]):
    """Forms as documents, as `Client.forms`. All methods raise the errors of `errors`."""

    def __init__(self, transport: Transport) -> None:
        super().__init__(
            transport,
            "forms",
            "forms",
            listed=FormList,
            summary=FormSummary,
            draft=FormDraft,
            version=FormVersion,
            difference=FormDifferenceRequest,
        )


class FormCalls(Calls):
    """Forms that are filled, and what one can begin from, as methods of `Client`."""

    def form(self, key: str, *, draft: bool = False) -> FormAnswer:
        """A form to be filled: its published version, or its draft."""
        return self._get(f"forms/{part(key)}", FormAnswer, {"draft": draft or None})

    def fill(
        self,
        form: str,
        slot: str,
        *,
        address_id: str | None = None,
        group_id: str | None = None,
        components: Mapping[str, str] | None = None,
        typed: str | None = None,
        country_code: str | None = None,
        values: Mapping[str, Value] | None = None,
        capture: str | None = None,
    ) -> FillAnswer:
        """What one source puts into the fields of a slot.

        Args:
            address_id: an address.
            group_id: a suggestion that stands for several addresses: what they share is filled.
            components: any components.
            typed: beside a group, what was typed to find it; alone, a text to take apart.
            country_code: of what was typed alone.
            values: the form's values so far.
            capture: names one capture, within which an address counts once.
        """
        body = request_body(
            FillRequest,
            capture=capture,
            address_id=address_id,
            group_id=group_id,
            typed=typed,
            country_code=country_code,
            components=dict(components) if components is not None else None,
            values=dict(values or {}),
        )
        return self._post(f"forms/{part(form)}/slots/{part(slot)}/fill", FillAnswer, body)

    def link_choices(self, form: str, field: str, text: str = "") -> list[LinkChoice]:
        """Records of another form that a link can be set to."""
        path = f"forms/{part(form)}/links/{part(field)}"
        return self._get(path, LinkChoices, {"q": text or None}).records

    def field_types(self) -> list[FieldTypeSchema]:
        """Types of fields, with what can be set of each."""
        return self._get("field-types", FieldTypes).types

    def ready_made_forms(self) -> list[ReadyMadeForm]:
        """Forms to begin from."""
        return self._get("ready-made-forms", ReadyMadeForms).forms

    def propose_form(
        self,
        text: str,
        title: str = "",
        *,
        plain: Sequence[int] = (),
        left_out: Sequence[int] = (),
    ) -> TableAnswer:
        """A form for the rows of a table.

        Args:
            text: the row with the columns' names, perhaps with rows below it.
            plain: columns that stay fields of their own, by place.
            left_out: columns that the form does not take.
        """
        body = request_body(
            TableRequest, text=text, title=title, plain=list(plain), left_out=list(left_out)
        )
        return self._post("form-proposals", TableAnswer, body)
