"""Datasets, their editions, loads and what came of them."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Literal

from pydantic import Field

from .base import PageSchema, RequestSchema, Schema, ShortText, example

Share = Annotated[float, Field(ge=0, le=1)]
JobState = Literal["receiving", "waiting", "running", "done", "failed", "cancelled"]

_RULES = {
    "bad_share": 0.05,
    "automatic": True,
    "gone_share": 0.02,
    "changed_share": 0.1,
    "moved_share": 0.05,
    "moved_m": 50.0,
    "keep": 3,
}
_JOB = {
    "id": "0f3a9c52e17b4d0e8a61c2f5d3b49e70",
    "kind": "load",
    "dataset": "demo",
    "state": "running",
    "phase": "reading",
    "source_name": "addresses.csv",
    "edition": None,
    "rows_done": 420000,
    "rows_bad": 12,
    "rows_per_second": 96000,
    "seconds": 4.4,
    "seconds_left": 21.0,
    "made_at": "2026-03-01T09:00:00Z",
    "made_by": "admin@brackwater.example",
    "message": "",
    "file_bytes": 52428800,
}
_EDITION = {
    "number": 2,
    "active": True,
    "addresses": 30000,
    "rows_used": 34463,
    "rows_bad": 12,
    "source_name": "addresses.csv",
    "built_at": "2026-03-01T09:01:00Z",
    "activated_at": "2026-03-01T09:05:00Z",
    "changes_to": None,
    "index_bytes": 2700000,
    "rows_bytes": 390000,
    "rows_kept": True,
}


class RulesSchema(Schema):
    """How a dataset's loads are treated."""

    model_config = example(_RULES)
    bad_share: Share = Field(0.05, description="Share of rows that may be bad")
    automatic: bool = Field(False, description="An edition within the limits becomes active itself")
    gone_share: Share = Field(0.02, description="At most this share of the active one may be gone")
    changed_share: Share = Field(0.1, description="… may be changed")
    moved_share: Share = Field(0.05, description="… may have moved")
    moved_m: float = Field(50, gt=0, le=100_000, description="Metres from which it has moved")
    keep: int = Field(
        3, ge=0, le=50, description="Editions kept beside the active one and the one before"
    )


class RulesRequest(RulesSchema, RequestSchema):
    """The same, to be set; what is left out has its general value."""


class JobAnswer(Schema):
    """Work that takes longer than a request, as it stands."""

    model_config = example(_JOB)
    id: str
    kind: Literal["load", "rebuild", "compare", "coverage"]
    dataset: str = Field(description="That it works on; empty for none")
    state: JobState
    phase: str = Field(description="While it runs: reading, building, comparing or covering")
    source_name: str
    edition: int | None = Field(description="The edition that it makes or works on")
    rows_done: int
    rows_bad: int
    rows_per_second: int
    seconds: float = Field(description="Since it began")
    seconds_left: float | None = Field(description="While it runs, about")
    made_at: datetime
    made_by: str
    message: str = Field(description="How it ended, or what it waits for")
    file_bytes: int | None = Field(description="Size of its file, as long as that is kept")


class EditionSummary(Schema):
    """An edition in a list."""

    model_config = example(_EDITION)
    number: int
    active: bool
    addresses: int = Field(
        description="Fewer than rows where some are one address in another language"
    )
    rows_used: int
    rows_bad: int
    source_name: str
    built_at: datetime | None
    activated_at: datetime | None
    changes_to: int | None = Field(description="The edition that it was made of changes to")
    index_bytes: int
    rows_bytes: int
    rows_kept: bool = Field(description="Whether its index can be built anew")


class FindingSample(Schema):
    """One place where something was found."""

    line: int
    id: str
    column: str
    value: str


class FindingSchema(Schema):
    """Something noticed in a file; `left_out` says whether the rows with it were."""

    name: str
    title: str
    advice: str
    left_out: bool
    count: int
    samples: list[FindingSample]


class DifferenceSample(Schema):
    """One address that differs; each in one line, empty where it is not in that edition."""

    id: str
    before: str
    after: str
    components: list[str]
    moved_m: float | None


class TownDifferences(Schema):
    """What differs in one town."""

    country_code: str
    town: str
    added: int
    gone: int
    changed: int
    moved: int


class ComparisonSchema(Schema):
    """An edition held against another, its base."""

    base: int
    before: int
    after: int
    added: int
    gone: int
    changed: int
    moved: int
    moved_m: float
    components: dict[str, int] = Field(description="Addresses changed in a component")
    towns: list[TownDifferences]
    towns_more: int
    samples: dict[str, list[DifferenceSample]]
    against: list[str] = Field(description="The limits of the rules that it exceeds, as sentences")


class EditionAnswer(EditionSummary):
    """An edition with what was noticed in its rows, and what it changes."""

    model_config = example(
        {
            **_EDITION,
            "dataset": "demo",
            "job": "0f3a9c52e17b4d0e8a61c2f5d3b49e70",
            "findings": [
                {
                    "name": "postcode-form",
                    "title": "The postcode is not of a form that the country has",
                    "advice": "People will not find it.",
                    "left_out": False,
                    "count": 1,
                    "samples": [{"line": 7, "id": "GB7", "column": "postcode", "value": "QV1 1Q"}],
                }
            ],
            "comparison": None,
        }
    )
    dataset: str
    job: str | None
    findings: list[FindingSchema]
    comparison: ComparisonSchema | None


class DatasetSummary(Schema):
    """A dataset in a list."""

    name: str
    active_edition: int | None
    addresses: int
    editions: int
    disk_bytes: int
    open_job: JobAnswer | None


class DatasetList(PageSchema):
    """All datasets."""

    model_config = example(
        {
            "datasets": [
                {
                    "name": "demo",
                    "active_edition": 2,
                    "addresses": 30000,
                    "editions": 2,
                    "disk_bytes": 6180000,
                    "open_job": _JOB,
                }
            ]
        }
    )
    datasets: list[DatasetSummary]


class DatasetAnswer(Schema):
    """A dataset with its rules, its editions (newest first) and its latest jobs."""

    model_config = example(
        {
            "name": "demo",
            "active_edition": 2,
            "previous_edition": 1,
            "rules": _RULES,
            "editions": [_EDITION],
            "jobs": [_JOB],
        }
    )
    name: str
    active_edition: int | None
    previous_edition: int | None
    rules: RulesSchema
    editions: list[EditionSummary]
    jobs: list[JobAnswer]


class LoadQuery(RequestSchema):
    """How a file is to be loaded."""

    name: ShortText = Field("", description="The file's name, where the upload itself has none")
    changes: bool = Field(
        False, description="The file holds changes: rows with an action, put or drop"
    )
    base: int | None = Field(None, ge=1, description="The edition that is changed; else the newest")
    bad_share: Share | None = Field(None, description="Share of rows that may be bad")
    activate: Literal["rule", "always", "never"] = Field(
        "rule", description="Whether it becomes active by itself; rule: as the dataset has it"
    )


class RetryQuery(RequestSchema):
    """What is to be different when a load is tried again."""

    bad_share: Share | None = Field(
        None, description="Share of rows that may be bad; else as before, or as the rules allow now"
    )
