"""API: links to records of other forms: what can be chosen, and whether what is named is there."""

from __future__ import annotations

from collections.abc import Iterator, Mapping

from anchorline.core.address import escape_pointer
from anchorline.core.errors import Problem, nearest_names, unknown_name_detail
from anchorline.core.forms import Field, Form
from anchorline.core.said import said
from anchorline.store.drafts import Document
from anchorline.wire.base import Schema
from anchorline.wire.form_design import LinkChoice, LinkChoices, LinkQuery

from ..access import Access
from ..endpoints import ApiRequest, Router
from ..problems import ProblemError, not_found
from .open_forms import open_form

router = Router("links", "records", "forms")
MOST_OFFERED = 20


@router.endpoint(
    "GET",
    "/forms/<form>/links/<field>",
    access=Access.CAPTURE,
    query=LinkQuery,
    answer=LinkChoices,
    problems=(404,),
)
def list_link_choices(request: ApiRequest) -> Schema:
    """Records of another form that a link can be set to; of each what the form shows, no more."""
    query = request.query(LinkQuery)
    field = _link(open_form(request, draft=query.draft).form, request.path["field"])
    if request.caller.kind in ("browser", "page") and not field.open_to_all:
        raise ProblemError(403, f"The records of the link {field.key!r} are not open to everybody.")
    records, form = request.services.record_lookups, field.form or ""
    if query.id is not None:
        shown = records.shown(query.id, form, field.shows, field.searches)
        found = [] if shown is None else [(query.id, shown)]
    else:
        found = records.choices(form, field.shows, query.q, MOST_OFFERED, field.searches)
    return LinkChoices(records=[LinkChoice(id=key, label=label) for key, label in found])


def _link(form: Form, key: str) -> Field:
    field = next((one for one in links_of(form) if one.key == key), None)
    if field is None:
        raise not_found(f"The form {form.key!r} has no link {key!r}.")
    return field


def links_of(form: Form) -> Iterator[Field]:
    """The fields of a form that are links."""
    return (field for field in form.all_fields() if field.type == "link")


def lost_links(request: ApiRequest, document: Document) -> list[Problem]:
    """Links of a document to forms that there are not, or that nobody who fills it could set."""
    links = [
        (at, entry["form"])
        for at, entry in enumerate(document.get("fields") or ())
        if entry.get("type") == "link" and entry.get("form")
    ]
    if not links:
        return []
    closed = [
        Problem(
            f"/fields/{at}/open_to_all",
            "Say that anyone who fills this form may look these records up, or take the link out.",
        )
        for at, entry in enumerate(document.get("fields") or ())
        if document["kind"] == "web" and entry.get("type") == "link"
        if not entry.get("open_to_all")
    ]
    known = [entry.key for entry in request.services.forms.list()]
    return closed + [
        Problem(f"/fields/{at}/form", unknown_name_detail("form", key, nearest_names(key, known)))
        for at, key in links
        if key not in known
    ]


def lost_datasets(request: ApiRequest, document: Document) -> list[Problem]:
    """Datasets that a document's addresses are to be found in and that there are not."""
    named = [
        (at, n, name)
        for at, slot in enumerate(document.get("slots") or ())
        for n, name in enumerate(slot.get("datasets") or ())
    ]
    if not named:
        return []
    known = request.services.gazetteer.current().datasets
    return [
        Problem(
            f"/slots/{at}/datasets/{n}",
            unknown_name_detail("active dataset", name, nearest_names(name, known)),
        )
        for at, n, name in named
        if name not in known
    ]


def link_problems(request: ApiRequest, form: Form, values: Mapping[str, object]) -> list[Problem]:
    """Links that lead nowhere: to a record that is not there, or of another form."""
    return [
        Problem(
            f"/values/{escape_pointer(field.key)}",
            said("not_there", "This record is not there any more; choose another one."),
        )
        for field in links_of(form)
        if field.key in values and linked(request, field, values[field.key]) is None
    ]


def linked(request: ApiRequest, field: Field, value: object) -> str | None:
    """What is shown of the record that a link leads to; None where there is none."""
    lookups = request.services.record_lookups
    return lookups.shown(str(value), field.form or "", field.shows, field.searches)
