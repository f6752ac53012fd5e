"""API: forms, their drafts and versions, and filling a slot."""

from __future__ import annotations

from anchorline.core.errors import Problem
from anchorline.core.forms import Form, Slot, read_form
from anchorline.core.mapping import fill_slot
from anchorline.store.database import NotThereError, StaleError
from anchorline.store.forms import FormEntry
from anchorline.wire.base import Shape
from anchorline.wire.forms import (
    DraftAnswer,
    FillAnswer,
    FillRequest,
    FormAnswer,
    FormDocument,
    FormList,
    FormQuery,
    FormSummary,
    TraceEntry,
    document_as_kept,
)

from .access import Access
from .endpoints import Area, Call, Reply
from .layouts import require_components
from .problems import ProblemError, invalid, not_found

area = Area("forms")
_ETAG = {"ETag": "Names the draft's revision; send it back in If-Match"}


def open_form(call: Call, *, draft: bool = False) -> tuple[Form, int | None]:
    """The form named in the path, published or as a draft, and its version.

    Raises:
        ProblemError: 403 where the caller may not use it, or not see drafts.
        NotThereError: there is no such form, or it is not published.
    """
    key = call.path["form"]
    if not call.caller.may_use_form(key):
        raise ProblemError(403, f"This caller may not use the form {key!r}.")
    if draft:
        if call.caller.kind not in ("server", "person"):
            raise ProblemError(403, f"A draft needs {Access.SERVER.value}.")
        return read_form(call.services.forms.draft(key)[0], call.services.layouts), None
    document, version = call.services.forms.version(key)
    return read_form(document, call.services.layouts), version


@area.endpoint("GET", "/forms", access=Access.SERVER, answer=FormList)
def list_forms(call: Call) -> Shape:
    """All forms."""
    return FormList(forms=[_summary(entry) for entry in call.services.forms.list()])


@area.endpoint(
    "GET",
    "/forms/<form>",
    access=Access.CAPTURE,
    query=FormQuery,
    answer=FormAnswer,
    problems=(404,),
)
def get_form(call: Call) -> Shape:
    """A form to be filled: its published version, or its draft."""
    draft = call.query(FormQuery).draft
    _form, version = open_form(call, draft=draft)
    forms = call.services.forms
    key = call.path["form"]
    document = forms.draft(key)[0] if draft else forms.version(key)[0]
    return FormAnswer(document=FormDocument.model_validate(document), version=version)


@area.endpoint(
    "GET",
    "/forms/<form>/draft",
    access=Access.SERVER,
    answer=DraftAnswer,
    problems=(404,),
    answer_headers=_ETAG,
)
def get_draft(call: Call) -> Reply:
    """A form's draft, to be edited."""
    document, entry = call.services.forms.draft(call.path["form"])
    return _draft_reply(FormDocument.model_validate(document), entry)


@area.endpoint(
    "PUT",
    "/forms/<form>/draft",
    access=Access.SERVER,
    body=FormDocument,
    answer=DraftAnswer,
    problems=(412, 428),
    request_headers={"If-Match": "The draft's ETag; needed where the form exists already"},
    answer_headers=_ETAG,
)
def put_draft(call: Call) -> Reply:
    """Keeps a draft; makes the form where it is new."""
    key, document = call.path["form"], call.body(FormDocument)
    if document.key != key:
        raise invalid([Problem("/key", f"The form's key is {key!r} in the address.")])
    kept = document_as_kept(document)
    read_form(kept, call.services.layouts)
    revision = _revision(call)
    try:
        entry = call.services.forms.put_draft(key, kept, revision)
    except StaleError as error:
        raise ProblemError(
            412,
            "Somebody else has changed this draft in the meantime. Get it anew and "
            "make your change again.",
            headers={"ETag": f'"{error.current}"'},
        ) from None
    return _draft_reply(document, entry)


@area.endpoint(
    "POST",
    "/forms/<form>/publish",
    access=Access.SERVER,
    answer=FormSummary,
    problems=(404,),
)
def publish_form(call: Call) -> Shape:
    """Publishes the draft as the next version; the same version where nothing differs."""
    document, _entry = call.services.forms.draft(call.path["form"])
    read_form(document, call.services.layouts)
    return _summary(call.services.forms.publish(call.path["form"], call.caller.name))


@area.endpoint(
    "POST",
    "/forms/<form>/slots/<slot>/fill",
    access=Access.CAPTURE,
    query=FormQuery,
    body=FillRequest,
    answer=FillAnswer,
    problems=(404,),
)
def fill_form_slot(call: Call) -> Shape:
    """What an address puts into the fields of a slot."""
    form, _version = open_form(call, draft=call.query(FormQuery).draft)
    slot = _require_slot(form, call.path["slot"])
    body = call.body(FillRequest)
    if body.address_id is not None:
        found = call.services.gazetteer.current().address(body.address_id)
        if found is None:
            raise invalid([Problem("/address_id", f"There is no address {body.address_id!r}.")])
        components = found[0].components
    else:
        components = body.components or {}
        require_components(components, "/components")
    filled = fill_slot(form, slot, components, body.values)
    return FillAnswer(
        values=filled.values,
        cleared=filled.cleared,
        warnings=filled.warnings,
        trace=[
            TraceEntry(field=s.field, components=list(s.components), detail=s.detail)
            for s in filled.trace
        ],
    )


def _require_slot(form: Form, key: str) -> Slot:
    slot = form.slot(key)
    if slot is None:
        known = ", ".join(s.key for s in form.slots) or "none"
        raise not_found(f"The form {form.key!r} has no slot {key!r}; it has: {known}.")
    return slot


def _revision(call: Call) -> int | None:
    """The revision that the change was made to; None where the form is new."""
    try:
        call.services.forms.entry(call.path["form"])
    except NotThereError:
        return None
    if_match = call.request.headers.get("If-Match")
    if if_match is None:
        raise ProblemError(
            428, "The form exists: send the draft's ETag in If-Match (get it from this address)."
        )
    tag = if_match.strip().removeprefix("W/").strip('"')
    return int(tag) if tag.isdecimal() and len(tag) < 10 else -1


def _draft_reply(document: FormDocument, entry: FormEntry) -> Reply:
    answer = DraftAnswer(document=document, form=_summary(entry))
    return Reply(answer, headers={"ETag": f'"{entry.revision}"'})


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
