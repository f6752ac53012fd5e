"""The calls on mappings: checked, tried, run over samples, read back."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

from anchorline.wire.coverage import CoverageRequest, CoverageRun, CoverageRuns
from anchorline.wire.datasets import JobAnswer
from anchorline.wire.filling import FillAnswer
from anchorline.wire.forms import FormDocument
from anchorline.wire.mapping import (
    ChangeKindSchema,
    ExampleOutcome,
    ExampleOutcomes,
    LintAnswer,
    LintRequest,
    MappingChanges,
    MappingSample,
    MappingSamples,
    ProposedRule,
    ProposedRules,
    ReadBackAnswer,
    ReadBackRequest,
    TryMappingRequest,
)

from .calls import Calls, part, read_answer, request_body


class MappingCalls(Calls):
    """Mappings, as methods of `Client`; all of them on drafts."""

    def mapping_changes(self) -> list[ChangeKindSchema]:
        """The changes that a rule can make to its text."""
        return self._get("mapping-changes", MappingChanges).changes

    def lint(self, form: str, document: FormDocument | None = None) -> LintAnswer:
        """What is wrong with a form's mappings, problems first.

        Args:
            document: instead of the draft that is kept.
        """
        body = request_body(LintRequest, document=document)
        return self._post(f"forms/{part(form)}/lint", LintAnswer, body)

    def mapping_examples(self, form: str) -> list[ExampleOutcome]:
        """The examples of a form, each with what came of it."""
        return self._get(f"forms/{part(form)}/examples", ExampleOutcomes).examples

    def mapping_samples(self, form: str, slot: str) -> list[MappingSample]:
        """Addresses to try a slot's mapping with."""
        path = f"forms/{part(form)}/slots/{part(slot)}/samples"
        return self._get(path, MappingSamples).samples

    def mapping_proposals(self, form: str, slot: str) -> list[ProposedRule]:
        """Rules for the fields that no rule of a slot writes yet, each with its reason."""
        path = f"forms/{part(form)}/slots/{part(slot)}/proposals"
        return self._post(path, ProposedRules, LintRequest()).proposals

    def try_mapping(
        self,
        form: str,
        slot: str,
        *,
        address_id: str | None = None,
        components: Mapping[str, str] | None = None,
        country: str | None = None,
        values: Mapping[str, str] | None = None,
    ) -> FillAnswer:
        """What a mapping makes of an address, step by step.

        Args:
            address_id: of the reference data; or else components.
            country: ISO 3166-1 alpha-2, of components.
            values: what stands in the fields before.
        """
        body = request_body(
            TryMappingRequest,
            address_id=address_id,
            components=components,
            country_code=country,
            values=dict(values or {}),
        )
        return self._post(f"forms/{part(form)}/slots/{part(slot)}/try", FillAnswer, body)

    def components_of(
        self, form: str, slot: str, values: Mapping[str, str], *, country: str | None = None
    ) -> ReadBackAnswer:
        """The address that stands in the fields of a slot's mapping."""
        body = request_body(ReadBackRequest, values=dict(values), country_code=country)
        path = f"forms/{part(form)}/slots/{part(slot)}/components"
        return self._post(path, ReadBackAnswer, body)

    def start_coverage(
        self,
        form: str,
        slot: str,
        *,
        source: str = "reference",
        per_country: int = 1000,
        rows: Sequence[Mapping[str, str]] = (),
        table: str = "",
    ) -> JobAnswer:
        """Runs a mapping over many addresses: a job.

        Args:
            source: `reference`, `records` or `rows`.
            rows: components, at most 5,000 addresses.
            table: instead of rows, CSV whose columns are recognised by their names.
        """
        body = request_body(
            CoverageRequest,
            source=source,
            per_country=per_country,
            rows=[dict(row) for row in rows],
            table=table,
        )
        path = f"forms/{part(form)}/slots/{part(slot)}/coverage"
        return read_answer(JobAnswer, self._transport.send("POST", path, body=body))

    def coverage(self, form: str, slot: str) -> list[CoverageRun]:
        """The latest runs, newest first."""
        path = f"forms/{part(form)}/slots/{part(slot)}/coverage"
        return self._get(path, CoverageRuns).runs
