"""Running a mapping over many addresses."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Literal

from pydantic import Field

from .base import ComponentMap, RequestSchema, Schema, example


class CoverageRequest(RequestSchema):
    """What a draft's mapping is run over."""

    model_config = example({"source": "reference", "per_country": 1000}) | {"extra": "forbid"}
    source: Literal["reference", "records", "rows"] = Field(
        default="reference",
        description="The reference data, addresses that the slot has captured, or `rows`",
    )
    per_country: Annotated[int, Field(ge=1, le=1_000_000)] = Field(
        default=1000, description="Addresses of each country at most"
    )
    rows: Annotated[list[ComponentMap], Field(max_length=5000)] = []
    table: Annotated[str, Field(max_length=1_000_000)] = Field(
        default="", description="Instead of rows: CSV with components as the names of its columns"
    )


class CoverageCell(Schema):
    """What became of a field for the addresses of a country."""

    filled: int = 0
    empty: int = 0
    shortened: int = 0
    lost: int = 0
    wrong: int = 0


class CoverageField(Schema):
    """A field, country by country."""

    key: str
    label: str
    cells: dict[str, CoverageCell]


class CoverageExample(Schema):
    """An address that a field does not hold as it should."""

    field: str
    country_code: str
    state: Literal["shortened", "lost", "wrong"]
    address_id: str = Field(description="Of the reference data; else what names it in its source")
    label: str
    detail: str
    text: str


class CoverageRun(Schema):
    """What a mapping made of a sample."""

    job: str
    form: str
    slot: str
    version: int | None = Field(description="That was run; null for a draft that differs")
    revision: int = Field(description="Of the draft")
    source: str
    made_at: datetime
    made_by: str
    seconds: float
    addresses: dict[str, int] = Field(description="By country")
    left_out: int = Field(default=0, description="Rows of countries that the slot is not there for")
    totals: dict[str, int] = Field(description="Fields of addresses in each state")
    fields: list[CoverageField]
    untaken: dict[str, dict[str, int]] = Field(
        description="Components that no rule takes, by country"
    )
    examples: list[CoverageExample]


class CoverageRuns(Schema):
    """The latest runs, newest first."""

    model_config = example(
        {
            "runs": [
                {
                    "job": "0f1e2d3c4b5a69788796a5b4c3d2e1f0",
                    "form": "supplier",
                    "slot": "office",
                    "version": 2,
                    "revision": 5,
                    "source": "reference",
                    "made_at": "2027-03-01T10:42:00Z",
                    "made_by": "admin@brackwater.example",
                    "seconds": 1.2,
                    "addresses": {"GB": 1000},
                    "totals": {"wrong": 0, "lost": 0, "shortened": 3, "filled": 2997, "empty": 0},
                    "fields": [
                        {
                            "key": "line_1",
                            "label": "Line 1",
                            "cells": {"GB": {"filled": 997, "shortened": 3}},
                        }
                    ],
                    "untaken": {"region": {"GB": 12}},
                    "examples": [
                        {
                            "field": "line_1",
                            "country_code": "GB",
                            "state": "shortened",
                            "address_id": "demo:GB0000012",
                            "label": "12 Abbey Mews, Marl, QV1 4AB",
                            "detail": "abbreviated STREET to ST",
                            "text": "12 ABBEY MEWS",
                        }
                    ],
                }
            ]
        }
    )
    runs: list[CoverageRun]
