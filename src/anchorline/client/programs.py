"""The calls on programs: looks, recognition, proposals, runs."""

from __future__ import annotations

import builtins
from collections.abc import Mapping, Sequence

from anchorline.wire.looks import (
    LookList,
    LookReport,
    LookSchema,
    RecognitionAnswer,
    RecognitionRequest,
    SignatureProposalAnswer,
    SignatureProposalRequest,
)
from anchorline.wire.program_proposals import (
    ProgramProposalAnswer,
    ProgramProposalRequest,
    ReadyMadeTargetList,
    ReadyMadeTargetSchema,
)
from anchorline.wire.target_runs import (
    ProgramTargetList,
    PublishedProgram,
    TargetRunList,
    TargetRunReport,
    TargetRunSchema,
)

from .calls import MOST_A_PAGE, Calls, part, request_body

# A look's facts: `kind` and `text` each.
Facts = Sequence[Mapping[str, str]]


class Programs(Calls):
    """Programs on the desktop, as `Client.programs`. All methods raise the errors of `errors`."""

    def published(self) -> builtins.list[PublishedProgram]:
        """All published program targets."""
        return self._get("program-targets", ProgramTargetList).targets

    def send_look(self, facts: Facts, machine: str = "") -> LookSchema:
        """Keeps a look at a screen for some days."""
        body = request_body(LookReport, facts=list(facts), machine=machine)
        return self._post("looks", LookSchema, body)

    def looks(self) -> builtins.list[LookSchema]:
        """Looks of the last days, the latest first."""
        return self._get("looks", LookList).looks

    def remove_look(self, look: str) -> None:
        """Deletes a look."""
        self._transport.send("DELETE", f"looks/{part(look)}", repeatable=True)

    def recognise(self, facts: Facts, *, drafts: bool = False) -> RecognitionAnswer:
        """Which target a screen is of, and why not the others."""
        body = request_body(RecognitionRequest, facts=list(facts), drafts=drafts)
        return self._post("recognitions", RecognitionAnswer, body)

    def propose_signature(
        self, looks: Sequence[Facts], others: Sequence[Facts] = ()
    ) -> SignatureProposalAnswer:
        """Conditions that looks at one screen meet, and others do not."""
        body = request_body(
            SignatureProposalRequest,
            looks=[list(facts) for facts in looks],
            others=[list(facts) for facts in others],
        )
        return self._post("signature-proposals", SignatureProposalAnswer, body)

    def ready_made(self) -> builtins.list[ReadyMadeTargetSchema]:
        """Ready-made targets to copy and change."""
        return self._get("ready-made-targets", ReadyMadeTargetList).targets

    def propose(
        self,
        key: str,
        title: str,
        looks: Sequence[Facts],
        *,
        others: Sequence[Facts] = (),
        fields: Sequence[Mapping[str, object]] = (),
        like: str | None = None,
        countries: Sequence[str] | None = None,
    ) -> ProgramProposalAnswer:
        """A target for a program's screen, which is not kept.

        Args:
            looks: at the screen, the latest last.
            others: at screens that are not to match.
            fields: in the order of the Tab key, as `SeenFieldSchema` has them: label, type …
            like: the name of a ready-made target, in place of one made from the fields.
        """
        body = request_body(
            ProgramProposalRequest,
            key=key,
            title=title,
            looks=[list(facts) for facts in looks],
            others=[list(facts) for facts in others],
            fields=list(fields),
            like=like,
            countries=list(countries) if countries else None,
        )
        return self._post("program-proposals", ProgramProposalAnswer, body)

    def report_run(self, target: str, report: TargetRunReport) -> None:
        """Tells what came of a run."""
        self._transport.send("POST", f"targets/{part(target)}/runs", body=report)

    def runs(self, target: str) -> builtins.list[TargetRunSchema]:
        """The latest runs of a target, the latest first; 500 at most."""
        query = {"limit": MOST_A_PAGE}
        return self._get(f"targets/{part(target)}/runs", TargetRunList, query).runs
