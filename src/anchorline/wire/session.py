"""Signing in, and the overview."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from .base import RequestSchema, Schema, example


class SignIn(RequestSchema):
    """E-mail address and password."""

    model_config = example(
        {"email": "admin@brackwater.example", "password": "correct horse battery"}
    )
    email: Annotated[str, Field(min_length=3, max_length=254)]
    password: Annotated[str, Field(min_length=1, max_length=200)]


class SessionAnswer(Schema):
    """Who is signed in; `csrf_token` goes into the header X-CSRF-Token of every change."""

    model_config = example(
        {
            "email": "admin@brackwater.example",
            "name": "Robin Arkley",
            "csrf_token": "Zk3m0v8c",
        }
    )
    email: str
    name: str
    csrf_token: str


class EditionState(Schema):
    """The active edition of a dataset."""

    dataset: str
    number: int
    addresses: int
    countries: list[str]


class AllowanceState(Schema):
    """A key or a public page that is near what it may fetch, or can fetch no more."""

    subject: str
    name: str
    state: Literal["near", "used_up"]


class OverviewAnswer(Schema):
    """The overview: what the console's first page shows."""

    model_config = example(
        {
            "editions": [
                {"dataset": "demo", "number": 1, "addresses": 30000, "countries": ["GB", "JP"]}
            ],
            "forms": 4,
            "forms_published": 4,
            "drafts_waiting": 0,
            "records": 22,
            "records_last_week": 22,
            "picked": 20,
            "picked_unchanged": 19,
            "captured": 22,
            "allowances": [
                {"subject": "page visit", "name": "public page of visit", "state": "near"}
            ],
        }
    )
    editions: list[EditionState]
    forms: int
    forms_published: int
    drafts_waiting: int
    records: int
    records_last_week: int
    picked: int = Field(description="Of the last 500 captured addresses: picked in the finder")
    picked_unchanged: int = Field(description="… and not changed by hand")
    captured: int
    allowances: list[AllowanceState] = Field(
        description="Keys and public pages that are near what they may fetch this month or today"
    )
