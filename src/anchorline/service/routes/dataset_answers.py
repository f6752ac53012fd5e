"""Datasets, editions and jobs in the schemas in which they are answered."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import asdict
from datetime import datetime

from anchorline.application.reference.editions import limits_of
from anchorline.core.reference import FINDINGS, Findings
from anchorline.core.reference.comparison import Comparison
from anchorline.core.reference.progress import seconds_left
from anchorline.store.datasets import Dataset, EditionEntry
from anchorline.store.job_model import OPEN_STATES, Job
from anchorline.wire.datasets import (
    ComparisonSchema,
    DatasetAnswer,
    DatasetSummary,
    DifferenceSample,
    EditionAnswer,
    EditionSummary,
    FindingSample,
    FindingSchema,
    JobAnswer,
    RulesSchema,
    TownDifferences,
)

from ..context import Services

_PATIENCE_SECONDS = 10


def dataset_answer(services: Services, name: str) -> DatasetAnswer:
    """A dataset with its editions and jobs; NotThereError where there is none."""
    dataset = services.datasets.get(name)
    return DatasetAnswer(
        name=dataset.name,
        active_edition=dataset.active,
        previous_edition=dataset.previous,
        rules=RulesSchema(**asdict(dataset.rules)),
        editions=[edition_summary(dataset, entry) for entry in services.datasets.editions(name)],
        jobs=job_answers(services, services.jobs.list(name)),
    )


def dataset_summary(services: Services, dataset: Dataset) -> DatasetSummary:
    """A dataset as a list shows it."""
    editions = services.datasets.editions(dataset.name)
    jobs = job_answers(services, services.jobs.list(dataset.name, limit=5))
    running = [job for job in jobs if job.state in OPEN_STATES]
    return DatasetSummary(
        name=dataset.name,
        active_edition=dataset.active,
        addresses=next((e.addresses for e in editions if e.number == dataset.active), 0),
        editions=len(editions),
        disk_bytes=sum(e.index_bytes + e.rows_bytes for e in editions),
        open_job=running[-1] if running else None,
    )


def edition_summary(dataset: Dataset, entry: EditionEntry) -> EditionSummary:
    """An edition as a list shows it."""
    return EditionSummary(
        number=entry.number,
        active=entry.number == dataset.active,
        addresses=entry.addresses,
        rows_used=entry.rows_used,
        rows_bad=entry.rows_bad,
        source_name=entry.source_name,
        built_at=entry.built_at,
        activated_at=entry.activated_at,
        changes_to=entry.changes_to,
        index_bytes=entry.index_bytes,
        rows_bytes=entry.rows_bytes,
        rows_kept=entry.job is not None,
    )


def edition_answer(services: Services, name: str, number: int) -> EditionAnswer:
    """An edition with its findings and comparison; NotThereError where there is none."""
    dataset = services.datasets.get(name)
    entry = services.datasets.edition(name, number)
    comparison = Comparison.from_document(entry.comparison) if entry.comparison else None
    return EditionAnswer(
        **edition_summary(dataset, entry).model_dump(),
        dataset=name,
        job=entry.job,
        findings=_findings(Findings.from_document(entry.report.get("findings", {}))),
        comparison=_comparison(comparison, dataset) if comparison else None,
    )


def job_answers(services: Services, jobs: Sequence[Job]) -> list[JobAnswer]:
    """Jobs as they stand."""
    now = services.database.now()
    busy = {job.dataset for job in jobs if job.state == "running"}
    return [_job(job, now, others_run=job.dataset in busy) for job in jobs]


def job_answer(services: Services, job: Job) -> JobAnswer:
    """A job as it stands."""
    others = services.jobs.list(job.dataset) if job.dataset else ()
    busy = any(other.state == "running" for other in others)
    return _job(job, services.database.now(), others_run=busy)


def _job(job: Job, now: datetime, *, others_run: bool) -> JobAnswer:
    ended = job.ended_at or now
    seconds = (ended - job.started_at).total_seconds() if job.started_at else 0.0
    in_phase = (now - job.phase_at).total_seconds() if job.phase_at else 0.0
    left = None
    reading = job.reading_seconds or in_phase
    if job.state == "running":
        share = job.bytes_done / job.bytes_total if job.bytes_total else 0.0
        left = seconds_left(job.phase, in_phase, share, job.reading_seconds)
    return JobAnswer(
        id=job.id,
        kind=job.kind,
        dataset=job.dataset,
        state=job.state,
        phase=job.phase,
        source_name=job.source_name,
        edition=job.edition,
        rows_done=job.rows_done,
        rows_bad=job.rows_bad,
        rows_per_second=round(job.rows_done / reading) if reading > 0 else 0,
        seconds=round(seconds, 1),
        seconds_left=None if left is None else round(left, 1),
        made_at=job.made_at,
        made_by=job.made_by,
        file_bytes=job.bytes_total if job.file_kept else None,
        message=_message(job, now, others_run=others_run),
    )


def _message(job: Job, now: datetime, *, others_run: bool) -> str:
    """How it ended, or what it waits for."""
    if job.state == "running" and job.cancel_asked:
        return "Being cancelled."
    if job.state != "waiting":
        return job.message
    if others_run:
        return "Waits for the work on this dataset that was asked for before."
    waited = (now - job.made_at).total_seconds()
    if waited < _PATIENCE_SECONDS:
        return "Waits for a worker."
    return f"No worker has taken it for {waited:,.0f} s. Start one: anchorline worker"


def _findings(findings: Findings) -> list[FindingSchema]:
    """Those that cost rows first, then by how often they came."""
    order = sorted(
        findings.tallies.items(), key=lambda pair: (not FINDINGS[pair[0]].left_out, -pair[1].count)
    )
    return [
        FindingSchema(
            name=name,
            title=FINDINGS[name].title,
            advice=FINDINGS[name].advice,
            left_out=FINDINGS[name].left_out,
            count=tally.count,
            samples=[FindingSample(**asdict(sample)) for sample in tally.samples],
        )
        for name, tally in order
    ]


def _comparison(comparison: Comparison, dataset: Dataset) -> ComparisonSchema:
    return ComparisonSchema(
        base=comparison.base,
        before=comparison.before,
        after=comparison.after,
        added=comparison.added,
        gone=comparison.gone,
        changed=comparison.changed,
        moved=comparison.moved,
        moved_m=comparison.moved_m,
        components=dict(sorted(comparison.components.items(), key=lambda pair: -pair[1])),
        towns=[TownDifferences(**asdict(town)) for town in comparison.towns],
        towns_more=comparison.towns_more,
        samples={
            kind: [DifferenceSample(**asdict(sample)) for sample in samples]
            for kind, samples in comparison.samples.items()
        },
        against=limits_of(dataset.rules).exceeded(comparison),
    )
