"""Forms as they are opened: which document, which version, with what own layouts bring to it."""

from __future__ import annotations

from datetime import timedelta
from typing import Any, NamedTuple

from anchorline.application.checked_forms import CheckedForm, digest_of
from anchorline.core.errors import DocumentError, Problem
from anchorline.core.forms import (
    Form,
    Slot,
    formulas_of,
    guarded_by,
    read_unfinished,
    with_brought_parts,
)
from anchorline.core.formula import to_data
from anchorline.core.layouts import LayoutLibrary
from anchorline.store.database import DatabaseUnavailableError, NotThereError
from anchorline.store.drafts import Document
from anchorline.store.forms import FormEntry
from anchorline.wire.fields import FieldSchema
from anchorline.wire.forms import BroughtSchema, FormDocument, FormSummary
from anchorline.wire.formulas import FormLogic
from anchorline.wire.rules import RuleSchema
from anchorline.wire.slots import SlotSchema

from ..access import Access
from ..context import Services
from ..endpoints import ApiRequest
from ..problems import ProblemError, invalid, not_found

# A page that was opened before a publish can still be sent.
REPLACED_CAN_BE_SENT = timedelta(days=7)


class OpenForm(NamedTuple):
    """A form with the fields that own layouts bring to its slots.

    Attributes:
        version: None for a draft.
        digest: by which a published document is known; empty for a draft.
    """

    form: Form
    version: int | None
    document: Document
    digest: str = ""


def open_form(request: ApiRequest, *, draft: bool = False, version: int | None = None) -> OpenForm:
    """The form named in the path: published, as a draft, or an earlier version.

    Of an earlier version the fields are its own; what guards it is as the published one has it.

    Args:
        version: one that may have been replaced lately.

    Raises:
        ProblemError: 403 where the caller may not use it, or not see drafts; 422 where the version
            was replaced too long ago.
        NotThereError: there is no such form, or it is not published.
        DocumentError: a draft of which too little can be read.
    """
    return open_form_of(request, request.path["form"], draft=draft, version=version)


def open_form_of(
    request: ApiRequest, key: str, *, draft: bool = False, version: int | None = None
) -> OpenForm:
    """The same for a form that the path does not name."""
    services = request.services
    if not request.caller.may_use_form(key):
        raise ProblemError(403, f"This caller may not use the form {key!r}.")
    if draft:
        if not request.caller.may_see_drafts:
            raise ProblemError(403, f"A draft needs {Access.SERVER.value}, with the scope forms.")
        document, number = services.forms.draft(key)[0], None
        form, digest = read_draft_form(key, document, services.layouts), ""
    else:
        digest, number, (document, form) = _published(services, key)
        if version is not None and version != number:
            document, number = _replaced(request, key, version), version
            form = guarded_by(services.checked_forms.form(document), form)
            digest = ""
    layouts = services.layouts_in_force.current().on_form(key)
    return OpenForm(with_brought_parts(form, layouts), number, document, digest)


def _published(services: Services, key: str) -> tuple[str, int, CheckedForm]:
    """The digest and number of the version in force, and its form; as known while all is away."""
    try:
        digest, number = services.forms.published_digest(key)
    except DatabaseUnavailableError:
        document, number = services.published_forms.version(key)
        form = services.checked_forms.form(document)
        return digest_of(document), number, CheckedForm(document, form)

    def load() -> Document:
        return services.published_forms.version(key)[0]

    return digest, number, services.checked_forms.known(digest, load)


def read_draft_form(key: str, document: Document, layouts: LayoutLibrary) -> Form:
    """A form as far as its document can be read.

    Raises:
        DocumentError: an address of it is there for no country.
    """
    form, problems = read_unfinished(document, layouts)
    if not all(slot.countries for slot in form.slots):
        raise DocumentError(f"form {key}", problems)
    return form


def _replaced(request: ApiRequest, key: str, version: int) -> Document:
    """A version that was opened before another was published."""
    services = request.services
    versions = services.forms.versions(key)
    found = next((one for one in versions if one.number == version), None)
    later = [one.published_at for one in versions if one.number > version]
    is_recent = not later or min(later) > services.database.now() - REPLACED_CAN_BE_SENT
    if found is None or not is_recent:
        detail = "The form has changed since this page was opened. Open it anew, and send it again."
        raise invalid([Problem("/version", detail)])
    return found.document


def as_filled(opened: OpenForm) -> FormDocument:
    """The document of a form as people fill it, with what own layouts have brought to it."""
    document = FormDocument.model_validate(opened.document)
    slots = []
    for schema in document.slots:
        more = brought_to(schema, opened.form)
        update = {
            "parts": [*schema.parts, *more.parts],
            "mapping": [*schema.mapping, *more.mapping],
            "examples": [],  # for those who made them
            "countries": list(require_slot(opened.form, schema.key).countries),
        }
        slots.append(schema.model_copy(update=update))
    return document.model_copy(update={"slots": slots})


def brought_to(schema: SlotSchema, form: Form) -> BroughtSchema:
    """What own layouts have brought to a slot."""
    slot = require_slot(form, schema.key)
    brought = slot.parts[len(schema.parts) :]
    parts = [
        FieldSchema(key=part.key, component=part.component, max_length=part.max_length)
        for part in brought
    ]
    keys = {part.key for part in brought}
    rules = [
        RuleSchema(components=list(rule.source.takes), into=rule.into[0])
        for rule in slot.mapping
        if rule.into[0] in keys
    ]
    return BroughtSchema(parts=parts, mapping=rules)


def require_slot(form: Form, key: str) -> Slot:
    """A slot of a form; 404 where it has no such slot."""
    slot = form.slot(key)
    if slot is None:
        known = ", ".join(s.key for s in form.slots) or "none"
        raise not_found(f"The form {form.key!r} has no slot {key!r}; it has: {known}.")
    return slot


def version_of(request: ApiRequest, key: str, number: int) -> Document:
    """The document of a version; NotThereError where there is none."""
    found = next((v for v in request.services.forms.versions(key) if v.number == number), None)
    if found is None:
        raise NotThereError(f"The form {key!r} has no version {number}.")
    return found.document


def logic_of(form: Form) -> FormLogic:
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


def summary_of(entry: FormEntry) -> FormSummary:
    """What lists show of a form."""
    return FormSummary(
        key=entry.key,
        kind=entry.kind,
        title=entry.title,
        published_version=entry.published_version,
        draft_differs=entry.draft_differs,
        record_count=entry.record_count,
        changed_at=entry.changed_at,
    )
