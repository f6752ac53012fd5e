"""Administrators' own layouts as documents: differences that are laid over the shipped ones."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from typing import Any

from anchorline.core.document_changes import Change, settings_changed
from anchorline.core.errors import DocumentError, Problem
from anchorline.core.forms import Form, fit_problems
from anchorline.core.layouts.own import (
    Conflict,
    Difference,
    OwnLayout,
    base_layout_of,
    base_of,
    conflicts,
    differences,
    effective,
    read_own_layout,
    review,
)
from anchorline.store.document_model import FORM, Document, StoredKind, Version

from ..services import Services
from .kind import Checked, DocumentKind, Reference

OWN_LAYOUT = "own_layout"
_SETTINGS = {"title": "The title", "countries": "Where it holds", "forms": "The forms it is for"}


def _about(document: Document) -> dict[str, Any]:
    return {"countries": document.get("countries") or [], "forms": document.get("forms") or []}


class OwnLayoutKind(DocumentKind):
    """How countries are asked for and written, otherwise than it is shipped."""

    stored = StoredKind(OWN_LAYOUT, "own layout", _about)
    plural = "own_layouts"
    keeps_versions = True  # what was captured names the versions that it was captured with

    def readable(self, services: Services, document: Document) -> Sequence[Problem]:
        """What cannot be read."""
        return read_own_layout(document, services.layouts)[1]

    def checked(self, services: Services, document: Document) -> Checked:
        """The same, what it cannot change, and what forms would lack.

        To be known is what newer shipped layouts say otherwise than its published version.
        """
        problems = reviewed(services, document)[1]
        published = next(iter(services.own_layouts.published([document["key"]])), None)
        newer = [Problem(one.pointer, one.detail) for one in conflicts_of(services, published)]
        return Checked(problems, newer, unreadable=len(self.readable(services, document)))

    def changes(self, services: Services, old: Document, new: Document) -> Sequence[Change]:
        """By what is asked for and written in each country."""
        before, _problems = read_own_layout(old, services.layouts)
        now, _problems = read_own_layout(new, services.layouts)
        in_force = services.layouts_in_force.current()
        found = list(settings_changed(old, new, _SETTINGS))
        for code in dict.fromkeys([*before.countries, *now.countries]):
            was, is_now = _holding(before, in_force, code), _holding(now, in_force, code)
            found += [_change(services, one) for one in differences(was, is_now)]
        return found

    def changes_when_new(self, services: Services, new: Document) -> Sequence[Change]:
        """By what the layouts that it is laid over ask for and write."""
        own, _problems = read_own_layout(new, services.layouts)
        return [_change(services, one) for one in differences_from_base(services, own)]

    def base(self, services: Services, document: Document) -> Mapping[str, Any]:
        """What the shipped layouts say today of what it changes."""
        own, _problems = read_own_layout(document, services.layouts)
        return base_of(own, services.layouts)

    def refers_to(self, document: Document) -> Iterable[Reference]:
        """The forms that it is for."""
        return [Reference(FORM, key) for key in document.get("forms") or ()]


def reviewed(services: Services, document: Document) -> tuple[OwnLayout, list[Problem]]:
    """The own layout of a document, and everything that stands against publishing it."""
    own, problems = read_own_layout(document, services.layouts)
    in_force = services.layouts_in_force.current()
    if not problems:
        problems = review(own, in_force)
        problems += fit_problems(own, in_force.with_draft(own), _published_forms(services))
    return own, problems


def conflicts_of(services: Services, published: Version | None) -> Sequence[Conflict]:
    """What of a published version newer shipped layouts say otherwise."""
    if published is None:
        return []
    own, _problems = read_own_layout(published.document, services.layouts)
    return conflicts(own, dict(published.base), services.layouts)


def differences_from_base(services: Services, own: OwnLayout) -> list[Difference]:
    """What an own layout says otherwise than what it is laid over, country by country."""
    in_force = services.layouts_in_force.current()
    return [
        difference
        for code in own.countries
        for difference in differences(
            base_layout_of(own, in_force, code), effective(own, in_force, code)
        )
    ]


def _holding(own: OwnLayout, in_force: Any, code: str) -> Any:
    """What holds in a country with an own layout: it, or what it is laid over."""
    return (effective if code in own.countries else base_layout_of)(own, in_force, code)


def _change(services: Services, one: Difference) -> Change:
    place = "lines" if one.about == "lines" else "ask"
    layout = services.layouts.get(one.country_code)
    country = layout.name if layout else one.country_code
    return Change("changed", f"/{place}", f"{country}: {one.detail}")


def _published_forms(services: Services) -> Iterable[Form]:
    for version in services.forms.published():
        try:
            yield services.checked_forms.form(version.document)
        except DocumentError:
            continue  # one that an older release kept, and that nobody can open now
