"""The calls on mappings of targets: checked, tried, run over samples."""

from __future__ import annotations

from collections.abc import Mapping

from anchorline.wire.coverage import CoverageRequest, CoverageRun, CoverageRuns
from anchorline.wire.datasets import JobAnswer
from anchorline.wire.filling import FillAnswer
from anchorline.wire.mapping import (
    ExampleOutcome,
    ExampleOutcomes,
    LintAnswer,
    MappingSample,
    MappingSamples,
    ProposedRule,
    ProposedRules,
    ReadBackAnswer,
    ReadBackRequest,
)
from anchorline.wire.page_targets import PageTargetDocument
from anchorline.wire.program_targets import ProgramTargetDocument
from anchorline.wire.target_mapping import LintTargetRequest, TryTargetMappingRequest

from .calls import Calls, part, request_body


class TargetMappings(Calls):
    """Mappings of targets, as `Client.target_mappings`; all of them on drafts."""

    def lint(
        self, target: str, document: PageTargetDocument | ProgramTargetDocument | None = None
    ) -> LintAnswer:
        """What is wrong with a target's mappings, problems first.

        Args:
            document: instead of the draft that is kept.
        """
        body = request_body(LintTargetRequest, document=document)
        return self._post(f"targets/{part(target)}/lint", LintAnswer, body)

    def samples(self, target: str, address: str) -> list[MappingSample]:
        """Addresses to try the mapping of one of its addresses with."""
        return self._get(f"{_place(target, address)}/samples", MappingSamples).samples

    def proposals(self, target: str, address: str) -> list[ProposedRule]:
        """Rules for the fields that no rule of an address writes yet, each with its reason."""
        path = f"{_place(target, address)}/proposals"
        return self._post(path, ProposedRules, LintTargetRequest()).proposals

    def try_out(
        self,
        target: str,
        address: str,
        *,
        address_id: str | None = None,
        components: Mapping[str, str] | None = None,
        country: str | None = None,
    ) -> FillAnswer:
        """What the mapping makes of an address, step by step.

        Args:
            country: of components that do not say it.
        """
        body = request_body(
            TryTargetMappingRequest,
            address_id=address_id,
            components=dict(components) if components else None,
            country_code=country,
        )
        return self._post(f"{_place(target, address)}/try", FillAnswer, body)

    def start_coverage(
        self, target: str, address: str, *, per_country: int = 1000, table: str = ""
    ) -> JobAnswer:
        """Runs a mapping over the reference data, or over a table: a job.

        Args:
            table: CSV with components as the names of its columns.
        """
        source = "rows" if table else "reference"
        body = request_body(CoverageRequest, source=source, per_country=per_country, table=table)
        return self._post(f"{_place(target, address)}/coverage", JobAnswer, body)

    def examples(self, target: str) -> list[ExampleOutcome]:
        """The examples of a target, each with what came of it."""
        return self._get(f"targets/{part(target)}/examples", ExampleOutcomes).examples

    def components_of(
        self, target: str, address: str, values: Mapping[str, str], country: str | None = None
    ) -> ReadBackAnswer:
        """The address that stands in the fields of a mapping."""
        body = request_body(ReadBackRequest, values=dict(values), country_code=country)
        return self._post(f"{_place(target, address)}/components", ReadBackAnswer, body)

    def coverage(self, target: str, address: str) -> list[CoverageRun]:
        """The latest runs, newest first."""
        return self._get(f"{_place(target, address)}/coverage", CoverageRuns).runs


def _place(target: str, address: str) -> str:
    return f"targets/{part(target)}/addresses/{part(address)}"
