"""Drafts whose addresses have mappings: forms as they are, targets read as forms."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import Protocol

from anchorline.core.forms import read_unfinished
from anchorline.core.layouts import LayoutLibrary
from anchorline.core.targets.programs.wording import with_wording
from anchorline.core.targets.receivers import as_form, document_pointer, refusals_of
from anchorline.store.document_model import Document, Entry

from .open_forms import OpenForm, draft_of
from .services import Services

Refusals = Mapping[str, Callable[[str], str]]


class MappedKind(Protocol):
    """A kind of document with mappings."""

    @property
    def name(self) -> str:
        """`form` or `target`."""
        ...

    def written(self, services: Services, key: str, document: Document | None) -> Document:
        """A draft, or a document in its place, as a form is written down; it may not be readable.

        Raises:
            NotThereError: there is none.
        """
        ...

    def open(self, services: Services, key: str, document: Document | None = None) -> OpenForm:
        """The same, as far as it can be read."""
        ...

    def layouts(self, services: Services, key: str) -> LayoutLibrary:
        """The layouts that hold on it."""
        ...

    def entry(self, services: Services, key: str) -> Entry:
        """What is kept about it beside its draft."""
        ...

    def refusals(self, services: Services, key: str, document: Document | None) -> Refusals:
        """By the keys of fields, why one cannot hold a text, where its type does not say it."""
        ...

    def pointer(self, pointer: str) -> str:
        """A place in the form as a place in the document."""
        ...


@dataclass(frozen=True, slots=True)
class _Forms:
    name: str = "form"

    def written(self, services: Services, key: str, document: Document | None) -> Document:
        return services.forms.draft(key)[0] if document is None else document

    def layouts(self, services: Services, key: str) -> LayoutLibrary:
        return services.layouts_in_force.current().on_form(key)

    def open(self, services: Services, key: str, document: Document | None = None) -> OpenForm:
        return draft_of(services, key, document)

    def entry(self, services: Services, key: str) -> Entry:
        return services.forms.draft(key)[1]

    def refusals(self, services: Services, key: str, document: Document | None) -> Refusals:  # noqa: ARG002
        return {}

    def pointer(self, pointer: str) -> str:
        return pointer


@dataclass(frozen=True, slots=True)
class _Targets:
    name: str = "target"

    def written(self, services: Services, key: str, document: Document | None) -> Document:
        given = services.targets.draft(key)[0] if document is None else document
        return as_form(with_wording(given))

    def layouts(self, services: Services, key: str) -> LayoutLibrary:  # noqa: ARG002
        return services.layouts_in_force.current().on_form(None)

    def open(self, services: Services, key: str, document: Document | None = None) -> OpenForm:
        form_document, layouts = self.written(services, key, document), self.layouts(services, key)
        form, _problems = read_unfinished(form_document, layouts)
        return OpenForm(form, None, form_document, layouts)

    def entry(self, services: Services, key: str) -> Entry:
        return services.targets.draft(key)[1]

    def refusals(self, services: Services, key: str, document: Document | None) -> Refusals:
        return refusals_of(services.targets.draft(key)[0] if document is None else document)

    def pointer(self, pointer: str) -> str:
        return document_pointer(pointer)


FORMS_MAPPED: MappedKind = _Forms()
TARGETS_MAPPED: MappedKind = _Targets()
MAPPED: Mapping[str, MappedKind] = {one.name: one for one in (FORMS_MAPPED, TARGETS_MAPPED)}
