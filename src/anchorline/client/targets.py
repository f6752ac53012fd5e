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
    TargetDifferenceRequest,
    TargetDraft,
    TargetFaultList,
    TargetFaultReport,
    TargetFaultSchema,
    TargetList,
    TargetSummary,
    TargetVersion,
)

from .calls import part, request_body
from .documents import Documents
from .transport import Transport

AnyTargetDocument = PageTargetDocument | ProgramTargetDocument


class Targets(Documents[AnyTargetDocument, TargetSummary, TargetDraft, TargetVersion]):
    """Targets, as `Client.targets`. All methods raise the errors of `errors`."""

    def __init__(self, transport: Transport) -> None:
        super().__init__(
            transport,
            "targets",
            "targets",
            listed=TargetList,
            summary=TargetSummary,
            draft=TargetDraft,
            version=TargetVersion,
            difference=TargetDifferenceRequest,
        )

    def propose(
        self,
        key: str,
        title: str,
        fields: Sequence[Mapping[str, object]],
        *,
        origins: Sequence[str] = (),
    ) -> TargetProposalAnswer:
        """A target for a page, which is not kept.

        Args:
            fields: as `SeenFieldSchema` has them: name, label, autocomplete …
        """
        body = request_body(
            TargetProposalRequest, key=key, title=title, fields=list(fields), origins=list(origins)
        )
        return self._post("target-proposals", TargetProposalAnswer, body)

    def trial(
        self,
        document: AnyTargetDocument,
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
        """What an address puts into the fields of a page or a program.

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
