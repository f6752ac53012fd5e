"""The calls on targets: pages and programs that are not ours."""

from __future__ import annotations

import builtins
from collections.abc import Mapping, Sequence

from anchorline.wire.filling import FillAnswer, FillRequest
from anchorline.wire.page_targets import PageTargetDocument
from anchorline.wire.program_targets import ProgramTargetDocument
from anchorline.wire.target_proposals import (
    TargetProposalAnswer,
    TargetProposalRequest,
    TargetTrialAnswer,
    TargetTrialRequest,
)
from anchorline.wire.targets import (
    AttachedTarget,
    TargetDraft,
    TargetFaultList,
    TargetFaultReport,
    TargetFaultSchema,
    TargetList,
    TargetRestoreRequest,
    TargetSummary,
)

from .calls import Calls, part, read_answer, request_body


class Targets(Calls):
    """Targets, as `Client.targets`. All methods raise the errors of `errors`."""

    def list(self) -> builtins.list[TargetSummary]:
        """All targets."""
        return self._get("targets", TargetList).targets

    def propose(
        self,
        key: str,
        title: str,
        inputs: Sequence[Mapping[str, object]],
        *,
        origins: Sequence[str] = (),
    ) -> TargetProposalAnswer:
        """A target for a page, which is not kept.

        Args:
            inputs: as `TargetProposalRequest` has them: name, label, autocomplete …
        """
        body = request_body(
            TargetProposalRequest, key=key, title=title, inputs=list(inputs), origins=list(origins)
        )
        return self._post("target-proposals", TargetProposalAnswer, body)

    def trial(
        self,
        document: PageTargetDocument | ProgramTargetDocument,
        address: str | None = None,
        *,
        address_id: str | None = None,
    ) -> TargetTrialAnswer:
        """What an address would put into a page or a program; a practice address by default.

        Args:
            address: the key of the target's address; the first one by default.
        """
        body = request_body(
            TargetTrialRequest, document=document, address=address, address_id=address_id
        )
        return self._post("target-trials", TargetTrialAnswer, body)

    def draft(self, key: str) -> tuple[TargetDraft, str]:
        """A target's draft and its ETag."""
        answer = self._transport.send("GET", f"{_target(key)}/draft")
        return read_answer(TargetDraft, answer), answer.headers.get("ETag", "")

    def put_draft(
        self, document: PageTargetDocument | ProgramTargetDocument, etag: str | None = None
    ) -> tuple[TargetDraft, str]:
        """Keeps a draft; returns it with its new ETag.

        Args:
            etag: of the draft that the change was made to; None for a new target.
        """
        answer = self._transport.send(
            "PUT",
            f"{_target(document.key)}/draft",
            body=document,
            headers={"If-Match": etag} if etag else None,
        )
        return read_answer(TargetDraft, answer), answer.headers.get("ETag", "")

    def publish(self, key: str) -> TargetSummary:
        """Publishes the draft as the next version."""
        return self._post(f"{_target(key)}/publish", TargetSummary)

    def restore(self, key: str, version: int) -> TargetSummary:
        """Publishes an earlier version again; with 0, no page can attach any more."""
        body = request_body(TargetRestoreRequest, version=version)
        return self._post(f"{_target(key)}/restore", TargetSummary, body)

    def take_back(self, key: str) -> TargetSummary:
        """Makes the draft what is published."""
        return self._post(f"{_target(key)}/take-back", TargetSummary)

    def remove(self, key: str) -> None:
        """Deletes a target with all its versions."""
        self._transport.send("DELETE", _target(key), repeatable=True)

    def attached(self, key: str) -> AttachedTarget:
        """A published target, as a page attaches to it."""
        return self._get(_target(key), AttachedTarget)

    def report_fault(self, key: str, kind: str, subject: str, detail: str) -> None:
        """Counts a mistake of set-up that a page has found."""
        body = request_body(TargetFaultReport, kind=kind, subject=subject, detail=detail)
        self._transport.send("POST", f"{_target(key)}/faults", body=body)

    def faults(self, key: str) -> builtins.list[TargetFaultSchema]:
        """Mistakes of set-up that pages have reported, the latest first."""
        return self._get(f"{_target(key)}/faults", TargetFaultList).faults

    def fill(
        self,
        key: str,
        address: str,
        *,
        address_id: str | None = None,
        components: dict[str, str] | None = None,
        capture: str | None = None,
    ) -> FillAnswer:
        """What an address puts into a page, or into the parts of a program.

        Args:
            address: the key of the target's address.
            capture: names one capture, within which an address counts once.
        """
        body = request_body(
            FillRequest, address_id=address_id, components=components, capture=capture
        )
        return self._post(f"{_target(key)}/addresses/{part(address)}/fill", FillAnswer, body)


def _target(key: str) -> str:
    return f"targets/{part(key)}"
