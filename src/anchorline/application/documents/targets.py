"""Targets as documents: pages and programs that are not ours."""

from __future__ import annotations

from collections.abc import Sequence

from anchorline.core.document_changes import Change
from anchorline.core.errors import Problem
from anchorline.core.forms.mapping_lint import lint_mappings
from anchorline.core.formula import today
from anchorline.core.targets import read_target
from anchorline.core.targets.changes import target_changes
from anchorline.core.targets.programs.wording import with_wording
from anchorline.core.targets.receivers import as_form, of_target, refusals_of
from anchorline.core.targets.upgrade import FORMAT, upgraded
from anchorline.store.document_model import TARGET, Document, StoredKind

from ..mappings import AT_PUBLISH, FEWEST_AT_PUBLISH, linked_forms, sample_of
from ..services import Services
from .kind import Checked, DocumentKind


class TargetKind(DocumentKind):
    """Where an address must land outside of our own forms."""

    stored = StoredKind(
        TARGET,
        "target",
        lambda document: {"kind": document.get("kind") or "page"},
        format=FORMAT,
        read=upgraded,
    )
    plural = "targets"

    def readable(
        self,
        services: Services,  # noqa: ARG002
        document: Document,  # noqa: ARG002
    ) -> Sequence[Problem]:
        """Nothing: a target is set up step by step, and kept at each of them."""
        return []

    def checked(self, services: Services, document: Document) -> Checked:
        """What cannot be read, and what is wrong with its mappings."""
        layouts = services.layouts_in_force.current().on_form(None)
        problems = list(read_target(document, layouts)[1])
        form = as_form(with_wording(document))
        if not all(entry.get("countries") is None or entry["countries"] for entry in form["slots"]):
            return Checked(problems)
        sample = sample_of(services, form, AT_PUBLISH, FEWEST_AT_PUBLISH)
        day = today(services.database.now())
        warnings: list[Problem] = []
        forms, refusals = linked_forms(services, form), refusals_of(document)
        for one in lint_mappings(form, layouts, sample, forms, day, refusals):
            if one.check != "document":
                listed = problems if one.severity == "problem" else warnings
                problem = Problem(one.pointer, one.detail, offers=one.offers)
                listed.append(of_target(problem))
        return Checked(problems, warnings)

    def changes(
        self,
        services: Services,  # noqa: ARG002
        old: Document,
        new: Document,
    ) -> Sequence[Change]:
        """By the labels of its fields, its addresses and its screens."""
        return target_changes(old, new)

    def forget(self, services: Services, key: str) -> None:
        """Its runs, the mistakes that pages have reported, and what its mappings were run over."""
        services.coverage_runs.forget("target", key)
        services.target_runs.forget(key)
        services.target_faults.forget(key)
