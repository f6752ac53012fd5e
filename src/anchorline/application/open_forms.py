"""Forms as they are opened: which document, which version, with what own layouts bring to it."""

from __future__ import annotations

from datetime import timedelta
from typing import NamedTuple

from anchorline.core.errors import DocumentError, Problem
from anchorline.core.forms import Form, Slot, guarded_by, read_unfinished, with_brought_parts
from anchorline.core.layouts import LayoutLibrary
from anchorline.store.database import DatabaseUnavailableError, NotThereError
from anchorline.store.document_model import Document

from .caller import Caller
from .checked_forms import CheckedForm, digest_of
from .errors import ForbiddenError, InvalidError
from .services import Services

# A page that was opened before a publish can still be sent.
REPLACED_CAN_BE_SENT = timedelta(days=7)


class OpenForm(NamedTuple):
    """A form with the fields that own layouts bring to its slots.

    Attributes:
        version: None for a draft.
        layouts: those that hold on it.
        digest: by which a published document is known; empty for others.
    """

    form: Form
    version: int | None
    document: Document
    layouts: LayoutLibrary
    digest: str = ""


def open_form(
    services: Services,
    caller: Caller,
    key: str,
    *,
    draft: bool = False,
    version: int | None = None,
) -> OpenForm:
    """A form: published, as a draft, or an earlier version.

    Of an earlier version the fields are its own; what guards it is as the published one has it.

    Args:
        version: one that may have been replaced lately.

    Raises:
        ForbiddenError: the caller may not use it, or not see drafts.
        InvalidError: the version was replaced too long ago.
        NotThereError: there is no such form, or it is not published.
        DocumentError: a draft of which too little can be read.
    """
    if not caller.may_use_form(key):
        raise ForbiddenError(f"This caller may not use the form {key!r}.")
    number: int | None
    if draft:
        if not caller.may_see_drafts:
            detail = "A draft needs a server key or a signed-in person, with the scope forms."
            raise ForbiddenError(detail)
        document, number = services.forms.draft(key)[0], None
        form, digest = read_draft(key, document, services.layouts), ""
    else:
        digest, number, (document, form) = _published(services, key)
        if version is not None and version != number:
            document, number = _replaced(services, key, version), version
            form = guarded_by(services.checked_forms.form(document), form)
            digest = ""
    layouts = services.layouts_in_force.current().on_form(key)
    return OpenForm(with_brought_parts(form, layouts), number, document, layouts, digest)


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


def _replaced(services: Services, key: str, version: int) -> Document:
    """A version that was opened before another was published."""
    replaced_at = services.forms.replaced_at(key, version)
    is_recent = replaced_at is None or replaced_at > services.database.now() - REPLACED_CAN_BE_SENT
    try:
        found = services.forms.version(key, version) if is_recent else None
    except NotThereError:
        found = None
    if found is None:
        detail = "The form has changed since this page was opened. Open it anew, and send it again."
        raise InvalidError([Problem("/version", detail)])
    return found.document


def read_draft(key: str, document: Document, layouts: LayoutLibrary) -> Form:
    """A form as far as its document can be read.

    Raises:
        DocumentError: an address of it is there for no country.
    """
    form, problems = read_unfinished(document, layouts)
    if not all(slot.countries for slot in form.slots):
        raise DocumentError(f"form {key}", problems)
    return form


def draft_of(services: Services, key: str, document: Document | None = None) -> OpenForm:
    """A form's draft, or a document in its place, as far as it can be read, with its layouts.

    What own layouts bring to it is not in it.

    Raises:
        NotThereError: there is no such form.
        DocumentError: an address of it is there for no country.
    """
    document = services.forms.draft(key)[0] if document is None else document
    layouts = services.layouts_in_force.current().on_form(key)
    return OpenForm(read_draft(key, document, layouts), None, document, layouts)


def require_slot(form: Form, key: str) -> Slot:
    """A slot of a form; NotThereError where it has no such slot."""
    slot = form.slot(key)
    if slot is None:
        known = ", ".join(s.key for s in form.slots) or "none"
        raise NotThereError(f"{form.key!r} has no address {key!r}; it has: {known}.")
    return slot
