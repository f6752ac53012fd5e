"""The calls on forms: filling them, their drafts and versions, what one can begin from."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

from anchorline.wire.filling import FillAnswer, FillRequest
from anchorline.wire.form_design import (
    Changes,
    ChangesRequest,
    EditorRequest,
    Editors,
    FieldTypes,
    FieldTypeSchema,
    FormRestoreRequest,
    FormVersions,
    FormVersionSchema,
    LinkChoice,
    LinkChoices,
    ReadyMadeForm,
    ReadyMadeForms,
    TableAnswer,
    TableRequest,
)
from anchorline.wire.forms import DraftAnswer, FormAnswer, FormDocument, FormList, FormSummary

from .calls import Calls, part, read_answer, request_body

Value = str | int | float | bool | list[str] | None


class FormCalls(Calls):
    """Forms, as methods of `Client`."""

    def forms(self) -> list[FormSummary]:
        """All forms."""
        return self._get("forms", FormList).forms

    def form(self, key: str, *, draft: bool = False) -> FormAnswer:
        """A form to be filled: its published version, or its draft."""
        return self._get(f"forms/{part(key)}", FormAnswer, {"draft": draft or None})

    def draft(self, key: str) -> tuple[DraftAnswer, str]:
        """A form's draft and its ETag."""
        answer = self._transport.send("GET", f"forms/{part(key)}/draft")
        return read_answer(DraftAnswer, answer), answer.headers["ETag"]

    def put_draft(
        self, document: FormDocument, *, etag: str | None = None, unfinished: bool = False
    ) -> DraftAnswer:
        """Keeps a draft.

        Args:
            etag: that of the draft it was made from; None for a new form.
            unfinished: keep it although something in it is wrong, which the answer names.
        """
        headers = {"If-Match": etag} if etag else {}
        answer = self._transport.send(
            "PUT",
            f"forms/{part(document.key)}/draft",
            body=document,
            headers=headers,
            query={"unfinished": "true" if unfinished else None},
        )
        return read_answer(DraftAnswer, answer)

    def publish(self, key: str) -> FormSummary:
        """Publishes the draft as the next version."""
        answer = self._transport.send("POST", f"forms/{part(key)}/publish", repeatable=True)
        return read_answer(FormSummary, answer)

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

    # Making them

    def form_changes(
        self,
        key: str,
        document: FormDocument | None = None,
        *,
        since: int | None = None,
        until: int | None = None,
    ) -> Changes:
        """What publishing would change, and what stands against it.

        Args:
            document: instead of the draft.
            since: a version, instead of the published one.
            until: a version, instead of the draft.
        """
        body = request_body(ChangesRequest, document=document, since=since, until=until)
        return self._post(f"forms/{part(key)}/changes", Changes, body)

    def form_versions(self, key: str) -> list[FormVersionSchema]:
        """Published versions of a form, the newest first."""
        return self._get(f"forms/{part(key)}/versions", FormVersions).versions

    def form_version(self, key: str, number: int) -> FormAnswer:
        """A published version as it was."""
        return self._get(f"forms/{part(key)}/versions/{number}", FormAnswer)

    def restore_form(self, key: str, version: int) -> FormSummary:
        """Publishes an earlier version again; with 0, nobody can fill the form any more."""
        body = request_body(FormRestoreRequest, version=version)
        return self._post(f"forms/{part(key)}/restore", FormSummary, body)

    def delete_form(self, key: str) -> None:
        """Deletes a form that has no records."""
        self._transport.send("DELETE", f"forms/{part(key)}")

    def note_editor(self, key: str, page: str) -> Editors:
        """Notes that a page has the draft open; who else has."""
        body = request_body(EditorRequest, page=page)
        return self._post(f"forms/{part(key)}/editors", Editors, body)

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
