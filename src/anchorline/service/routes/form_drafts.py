"""API: drafts of forms, publishing them, their versions, and who else edits."""

from __future__ import annotations

from anchorline.application.mappings import mapping_problems
from anchorline.core.counting import counted
from anchorline.core.errors import DocumentError, Problem
from anchorline.core.forms import (
    changes_between,
    finished,
    read_form,
    read_unfinished,
    with_brought_parts,
)
from anchorline.store.database import InUseError, NotThereError, StaleError
from anchorline.store.drafts import Document
from anchorline.store.forms import FormEntry
from anchorline.wire.base import Schema
from anchorline.wire.form_design import (
    Changes,
    ChangeSchema,
    ChangesRequest,
    DraftQuery,
    EditorRequest,
    Editors,
    EditorSchema,
    FormRestoreRequest,
    FormVersions,
    FormVersionSchema,
)
from anchorline.wire.forms import (
    DraftAnswer,
    FormAnswer,
    FormDocument,
    FormSummary,
    document_as_kept,
)

from ..access import Access
from ..endpoints import ApiRequest, ApiResponse, Router
from ..problems import ProblemError, invalid, places
from .drafts import ETAG, IF_MATCH, changed_meanwhile, etag, keep_draft
from .links import lost_datasets, lost_links
from .open_forms import brought_to, logic_of, summary_of, version_of

router = Router("form_drafts", "forms")
SENTENCES_OF_A_VERSION = 5


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
    return _draft_response(request, *request.services.forms.draft(request.path["form"]))


@router.endpoint(
    "PUT",
    "/forms/<form>/draft",
    access=Access.SERVER,
    query=DraftQuery,
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
    if not request.query(DraftQuery).unfinished:
        _require_finished(request, kept)
    entry = keep_draft(request, request.services.forms, key, kept)
    return _draft_response(request, kept, entry)


@router.endpoint(
    "DELETE",
    "/forms/<form>",
    access=Access.SERVER,
    answer=None,
    status=204,
    problems=(404, 409),
)
def delete_form(request: ApiRequest) -> ApiResponse:
    """Deletes a form that has no records, with all its versions."""
    key = request.path["form"]
    try:
        request.services.forms.remove(key)
    except InUseError as error:
        records = counted(int(str(error)), "record")
        detail = (
            f"The form {key!r} has {records}, for which it is needed. To keep people from filling "
            "it, restore version 0: then none is published."
        )
        raise ProblemError(409, detail) from None
    return ApiResponse(None, status=204)


@router.endpoint(
    "POST",
    "/forms/<form>/changes",
    access=Access.SERVER,
    body=ChangesRequest,
    answer=Changes,
    problems=(404,),
)
def compare_form(request: ApiRequest) -> Schema:
    """What publishing would change, in sentences, and what stands against it; keeps nothing."""
    key, body = request.path["form"], request.body(ChangesRequest)
    if body.document is not None and body.until is not None:
        raise invalid([Problem("/until", "Give a document or a version to compare, not both.")])
    new = _compared(request, key, body)
    if new["key"] != key:
        raise invalid([Problem("/document/key", f"The key is {key!r} in the address.")])
    unreadable = _problems(request, new)
    problems = places([*unreadable, *mapping_problems(request.services, key, new)])
    old = _compared_with(request, key, body)
    if old is None:
        return Changes(changes=[], problems=problems, unreadable=len(unreadable), is_new=True)
    changes = changes_between(old, new)
    keys = [change.keeps for change in changes if change.keeps]
    counts = request.services.record_lookups.keeping(key, keys)
    return Changes(
        changes=[
            ChangeSchema(
                kind=change.kind,
                pointer=change.pointer,
                detail=finished(change, counts.get(change.keeps or "")),
                records=counts.get(change.keeps or ""),
            )
            for change in changes
        ],
        problems=problems,
        unreadable=len(unreadable),
        is_new=False,
    )


@router.endpoint(
    "POST",
    "/forms/<form>/publish",
    access=Access.SERVER,
    answer=FormSummary,
    problems=(404, 412),
)
def publish_form(request: ApiRequest) -> Schema:
    """Publishes the draft as the next version; the same version where nothing differs."""
    key, forms = request.path["form"], request.services.forms
    document, entry = forms.draft(key)
    _require_finished(request, document)
    problems = mapping_problems(request.services, key, document)
    if problems:
        raise DocumentError(f"form {key}", problems)
    try:
        return summary_of(forms.publish(key, entry.revision, request.caller.name))
    except StaleError as error:  # kept anew since it was checked
        raise changed_meanwhile(error) from None


@router.endpoint(
    "GET",
    "/forms/<form>/versions",
    access=Access.SERVER,
    answer=FormVersions,
    problems=(404,),
)
def list_form_versions(request: ApiRequest) -> Schema:
    """All published versions of a form: who, when, what."""
    key, services = request.path["form"], request.services
    in_force = services.forms.entry(key).published_version
    counts = services.record_lookups.by_version(key)
    versions = services.forms.versions(key)
    answers = []
    for version, earlier in zip(versions, [*versions[1:], None], strict=False):
        changes = changes_between(earlier.document, version.document) if earlier else []
        sentences = [finished(change, None) for change in changes]
        answers.append(
            FormVersionSchema(
                number=version.number,
                published_at=version.published_at,
                published_by=version.published_by,
                in_force=version.number == in_force,
                records=counts.get(version.number, 0),
                changes=sentences[:SENTENCES_OF_A_VERSION],
                more_changes=max(0, len(sentences) - SENTENCES_OF_A_VERSION),
            )
        )
    return FormVersions(versions=answers)


@router.endpoint(
    "GET",
    "/forms/<form>/versions/<version>",
    access=Access.SERVER,
    answer=FormAnswer,
    problems=(404,),
)
def get_form_version(request: ApiRequest) -> Schema:
    """A published version as it was."""
    key, given = request.path["form"], request.path["version"]
    number = int(given) if given.isdecimal() and len(given) < 10 else 0
    document = version_of(request, key, number)
    form, _problems = read_unfinished(document, request.services.layouts)
    return FormAnswer(
        document=FormDocument.model_validate(document), version=number, logic=logic_of(form)
    )


@router.endpoint(
    "POST",
    "/forms/<form>/restore",
    access=Access.SERVER,
    body=FormRestoreRequest,
    answer=FormSummary,
    problems=(404,),
)
def restore_form(request: ApiRequest) -> Schema:
    """Publishes an earlier version again, or none; a draft that did not differ follows."""
    key, number = request.path["form"], request.body(FormRestoreRequest).version or None
    if number is not None:
        read_form(version_of(request, key, number), request.services.layouts)
    return summary_of(request.services.forms.restore(key, number))


@router.endpoint(
    "POST",
    "/forms/<form>/editors",
    access=Access.SERVER,
    body=EditorRequest,
    answer=Editors,
    problems=(404,),
)
def note_editor(request: ApiRequest) -> Schema:
    """Notes that a page has the draft open; who else has, and whether it has changed."""
    key, services = request.path["form"], request.services
    entry = services.forms.entry(key)
    body, name = request.body(EditorRequest), request.caller.name
    if body.leaves:
        services.form_editors.left(key, body.page)
        return Editors(editors=[], revision=entry.revision)
    others = services.form_editors.seen(key, body.page, name)
    return Editors(
        editors=[EditorSchema(name=other.name, since=other.since) for other in others],
        revision=entry.revision,
    )


def _compared(request: ApiRequest, key: str, body: ChangesRequest) -> Document:
    if body.document is not None:
        return document_as_kept(body.document)
    if body.until is not None:
        return version_of(request, key, body.until)
    return request.services.forms.draft(key)[0]


def _compared_with(request: ApiRequest, key: str, body: ChangesRequest) -> Document | None:
    """What was before; None where nothing is published, or there is no such form yet."""
    if body.since is not None:
        return version_of(request, key, body.since)
    try:
        return request.services.forms.version(key)[0]
    except NotThereError:
        return None


def _problems(request: ApiRequest, document: Document) -> list[Problem]:
    """Everything that stands against publishing a document."""
    return [
        *read_unfinished(document, request.services.layouts)[1],
        *_lost(request, document),
    ]


def _lost(request: ApiRequest, document: Document) -> list[Problem]:
    """What a document names outside of it and that there is not."""
    return [*lost_links(request, document), *lost_datasets(request, document)]


def _require_finished(request: ApiRequest, document: Document) -> None:
    """422 where something stands against publishing a document."""
    problems = _problems(request, document)
    if problems:
        raise DocumentError(f"form {document['key']}", problems)


def _draft_response(request: ApiRequest, document: Document, entry: FormEntry) -> ApiResponse:
    form, problems = read_unfinished(document, request.services.layouts)
    if all(slot.countries for slot in form.slots):
        layouts = request.services.layouts_in_force.current().on_form(entry.key)
        form = with_brought_parts(form, layouts)
    whole = FormDocument.model_validate(document)
    brought = {slot.key: brought_to(slot, form) for slot in whole.slots}
    answer = DraftAnswer(
        document=whole,
        form=summary_of(entry),
        problems=places([*problems, *_lost(request, document)]),
        logic=logic_of(form),
        brought={key: more for key, more in brought.items() if more.parts},
    )
    return ApiResponse(answer, headers=etag(entry.revision))
