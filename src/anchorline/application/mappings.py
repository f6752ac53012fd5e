"""Mappings of drafts, checked against the reference data and the other forms."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

from anchorline.core.address import Address
from anchorline.core.errors import Problem
from anchorline.core.forms.mapping_lint import lint_mappings
from anchorline.core.formula import today
from anchorline.core.mapping.lint import Finding
from anchorline.store.document_model import Document

from .services import Services

# Addresses of the reference data that are looked at while somebody edits. A publish, which asks for
# what is wrong with every address, does with fewer.
LOOKED_AT = 300
FEWEST = 20
AT_PUBLISH = 40
FEWEST_AT_PUBLISH = 4


def sample_of(
    services: Services, document: Document, most: int = LOOKED_AT, fewest: int = FEWEST
) -> dict[str, list[Address]]:
    """Addresses of the countries of a document's slots, by country.

    Args:
        most: of all countries together, unless that leaves less than `fewest` of each.
    """
    gazetteer = services.gazetteer.current()
    wanted: set[str] = set()
    for slot in document.get("slots") or ():
        codes = slot.get("countries") or gazetteer.countries
        wanted |= {code for code in codes if code in gazetteer.countries}
    limit = max(fewest, most // max(1, len(wanted)))
    return {code: list(gazetteer.spread(code, limit)) for code in sorted(wanted)}


def lint_document(
    services: Services,
    form: str,
    document: Document,
    sample: Mapping[str, Sequence[Address]],
) -> list[Finding]:
    """What is wrong with the mappings of a document; see `lint_mappings`."""
    layouts = services.layouts_in_force.current().on_form(form)
    day = today(services.database.now())
    return lint_mappings(document, layouts, sample, linked_forms(services, document), day)


def mapping_problems(services: Services, form: str, document: Document) -> list[Problem]:
    """What of it stands against publishing, beside what cannot be read."""
    sample = sample_of(services, document, AT_PUBLISH, FEWEST_AT_PUBLISH)
    return [
        Problem(one.pointer, one.detail, offers=one.offers)
        for one in lint_document(services, form, document, sample)
        if one.severity == "problem" and one.check != "document"
    ]


def linked_forms(services: Services, document: Document) -> dict[str, list[str]]:
    """The published forms that rules link to, with the keys of their fields."""
    wanted = {
        rule["link"]["form"]
        for slot in document.get("slots") or ()
        for rule in slot.get("mapping") or ()
        if rule.get("link")
    }
    if not wanted:
        return {}
    return {one.key: _keys(one.document) for one in services.forms.published(wanted)}


def _keys(document: Document) -> list[str]:
    fields = [entry["key"] for entry in document.get("fields") or () if "key" in entry]
    parts = [p["key"] for slot in document.get("slots") or () for p in slot.get("parts") or ()]
    return [*fields, *parts]
