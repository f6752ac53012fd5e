"""What is answered of mappings while they are made, of forms and targets alike."""

from __future__ import annotations

from collections.abc import Sequence

from anchorline.application.mapping_samples import Sample
from anchorline.application.mapping_workbench import Linted, Tried
from anchorline.core.address import Facts
from anchorline.core.forms.mapping_proposals import RuleProposal
from anchorline.core.mapping.examples import ExampleRun
from anchorline.store.coverage_runs import CoverageRun as StoredRun
from anchorline.wire.coverage import CoverageRun, CoverageRuns
from anchorline.wire.mapping import (
    ExampleOutcome,
    ExampleOutcomes,
    LintAnswer,
    MappingFinding,
    MappingSample,
    MappingSamples,
    ProposedRule,
    ProposedRules,
    TriedAddress,
)
from anchorline.wire.rules import RuleSchema


def lint_answer(found: Linted) -> LintAnswer:
    """What is wrong with the mappings of a document, and what was looked at."""
    return LintAnswer(
        problems=[
            MappingFinding(
                pointer=one.pointer,
                severity=one.severity,
                detail=one.detail,
                addresses=one.addresses,
                check=one.check,
                offers=list(one.offers),
            )
            for one in found.findings
        ],
        looked_at={code: len(listed) for code, listed in found.sample.items()},
    )


def samples_answer(samples: Sequence[Sample]) -> MappingSamples:
    """Addresses to try a mapping with."""
    return MappingSamples(
        samples=[
            MappingSample(
                which=one.which, country_code=one.country_code, id=one.id, label=one.label
            )
            for one in samples
        ]
    )


def proposals_answer(proposals: Sequence[RuleProposal]) -> ProposedRules:
    """Rules that may be meant, each with its reason."""
    return ProposedRules(
        proposals=[
            ProposedRule(rule=RuleSchema.model_validate(one.rule), because=one.because)
            for one in proposals
        ]
    )


def tried_of(body: TriedAddress) -> Tried:
    """The address that a mapping is tried with."""
    given = body.facts
    facts = (
        Facts(given.latitude, given.longitude, given.use or None, tuple(given.languages))
        if given is not None
        else Facts()
    )
    return Tried(body.address_id, body.components, facts, body.country_code)


def examples_answer(runs: Sequence[tuple[str, ExampleRun]]) -> ExampleOutcomes:
    """Examples with what came of each."""
    return ExampleOutcomes(
        examples=[
            ExampleOutcome(
                slot=slot,
                name=run.example.name,
                passed=not run.differences,
                differences={one.field: [one.expected, one.found] for one in run.differences},
            )
            for slot, run in runs
        ]
    )


def coverage_answer(runs: Sequence[StoredRun]) -> CoverageRuns:
    """Runs over many addresses."""
    return CoverageRuns(
        runs=[
            CoverageRun(
                job=run.job,
                form=run.form,
                slot=run.slot,
                version=run.version,
                revision=run.revision,
                source=run.source,
                made_at=run.made_at,
                made_by=run.made_by,
                seconds=run.seconds,
                **run.result,
            )
            for run in runs
        ]
    )
