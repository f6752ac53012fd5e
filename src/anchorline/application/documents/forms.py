"""Forms as documents."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence

from anchorline.core.counting import counted
from anchorline.core.document_changes import Change
from anchorline.core.errors import Problem, nearest_names, unknown_name_detail
from anchorline.core.forms import FORMAT, changes_between, read_unfinished, upgraded
from anchorline.store.document_model import FORM, Document, StoredKind

from ..mappings import mapping_problems
from ..services import Services
from .kind import Checked, DocumentKind, Reference


class FormKind(DocumentKind):
    """What is filled: by staff, or by anyone at its public page."""

    stored = StoredKind(
        FORM, "form", lambda document: {"kind": document["kind"]}, format=FORMAT, read=upgraded
    )
    plural = "forms"

    def readable(self, services: Services, document: Document) -> Sequence[Problem]:
        """What cannot be read, and what it names and there is not."""
        return [*read_unfinished(document, services.layouts)[1], *lost(services, document)]

    def checked(self, services: Services, document: Document) -> Checked:
        """The same, and what is wrong with its mappings."""
        unreadable = self.readable(services, document)
        mapping = mapping_problems(services, document["key"], document)
        return Checked([*unreadable, *mapping], unreadable=len(unreadable))

    def noticed(self, services: Services, document: Document) -> Checked:
        """Without its mappings, which are run over addresses."""
        unreadable = self.readable(services, document)
        return Checked(unreadable, unreadable=len(unreadable))

    def changes(
        self,
        services: Services,  # noqa: ARG002
        old: Document,
        new: Document,
    ) -> Sequence[Change]:
        """By the labels of its fields and addresses."""
        return changes_between(old, new)

    def refers_to(self, document: Document) -> Iterable[Reference]:
        """The forms of its links."""
        return [Reference(FORM, key) for _at, key in _links(document)]

    def in_use(self, services: Services, key: str) -> str | None:
        """Records need the versions that they were made with to be read."""
        count = services.record_lookups.count_of(key)
        if not count:
            return None
        return (
            f"The form {key!r} has {counted(count, 'record')}, for which it is needed. To keep "
            "people from filling it, restore version 0: then none is published."
        )

    def uses(self, services: Services, key: str) -> Mapping[int, int]:
        """The records of each version."""
        return services.record_lookups.by_version(key)

    def keeping(self, services: Services, key: str, parts: Sequence[str]) -> Mapping[str, int]:
        """The records that keep something in a field or an address."""
        return services.record_lookups.keeping(key, parts)

    def forget(self, services: Services, key: str) -> None:
        """The runs of its mappings."""
        services.coverage_runs.forget("form", key)


def lost(services: Services, document: Document) -> list[Problem]:
    """What a document names outside of it and that there is not."""
    return [*_lost_links(services, document), *_lost_datasets(services, document)]


def _links(document: Document) -> list[tuple[int, str]]:
    return [
        (at, entry["form"])
        for at, entry in enumerate(document.get("fields") or ())
        if entry.get("type") == "link" and entry.get("form")
    ]


def _lost_links(services: Services, document: Document) -> list[Problem]:
    """Links to forms that there are not, or that nobody who fills it could set."""
    links = _links(document)
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
    known = services.forms.keys()
    return closed + [
        Problem(f"/fields/{at}/form", unknown_name_detail("form", key, nearest_names(key, known)))
        for at, key in links
        if key not in known
    ]


def _lost_datasets(services: Services, document: Document) -> list[Problem]:
    """Datasets that its addresses are to be found in and that there are not."""
    named = [
        (at, n, name)
        for at, slot in enumerate(document.get("slots") or ())
        for n, name in enumerate(slot.get("datasets") or ())
    ]
    if not named:
        return []
    known = services.gazetteer.current().datasets
    return [
        Problem(
            f"/slots/{at}/datasets/{n}",
            unknown_name_detail("active dataset", name, nearest_names(name, known)),
        )
        for at, n, name in named
        if name not in known
    ]
