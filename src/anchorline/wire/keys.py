"""Keys: what programs and pages present to the API."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Literal

from pydantic import Field

from .base import Key, PageSchema, RequestSchema, Schema, ShortText, Time, example

_SHOWN = {
    "id": "5f0c2a9be417",
    "kind": "browser",
    "name": "Checkout of the shop",
    "state": "in_use",
    "scopes": [],
    "origins": ["https://shop.example"],
    "forms": ["tuning-visit"],
    "targets": [],
    "created_at": "2027-03-01T10:42:00Z",
    "expires_at": None,
    "used_at": "2027-03-02T08:15:00Z",
    "rotated_at": None,
    "earlier_until": None,
    "monthly_limit": 1000,
    "warn_share": 0.8,
}


class KeySchema(Schema):
    """A key, without its secret."""

    model_config = example(_SHOWN)
    id: str = Field(description="What stands between its kind and its secret")
    kind: Literal["server", "browser"]
    name: str = Field(description="What it is for")
    state: Literal["in_use", "expired", "ended"]
    scopes: list[str] = Field(description="Of a server key: what it may do")
    origins: list[str] = Field(description="Of a browser key: where its pages are")
    forms: list[str] = Field(description="Of a browser key: the forms it may be used for")
    targets: list[str] = Field(description="Of a browser key: the targets it may be used for")
    created_at: datetime | None
    expires_at: datetime | None = Field(description="Nobody can use it from then on")
    used_at: datetime | None = Field(description="Its latest use, to a minute")
    rotated_at: datetime | None = Field(description="When it got the secret it has now")
    earlier_until: datetime | None = Field(
        description="Until when the secret before that goes on, where it does"
    )
    monthly_limit: int | None = Field(
        description="How many addresses it may fetch in a month; null for any number"
    )
    warn_share: float = Field(description="From which part of that on it counts as near it")


class ScopeSchema(Schema):
    """What a server key can be for."""

    name: str
    says: str


class KeyList(PageSchema):
    """All keys, the oldest first; ended ones stay."""

    model_config = example(
        {
            "keys": [_SHOWN],
            "scopes": [{"name": "find", "says": "find addresses, look them up, read layouts"}],
        }
    )
    keys: list[KeySchema]
    scopes: list[ScopeSchema]


class NewKeyRequest(RequestSchema):
    """A key that is to be made."""

    model_config = example(
        {
            "kind": "browser",
            "name": "Checkout of the shop",
            "origins": ["https://shop.example"],
            "forms": ["tuning-visit"],
        }
    ) | {"extra": "forbid"}
    kind: Literal["server", "browser"]
    name: Annotated[ShortText, Field(max_length=120, description="What it is for")]
    scopes: Annotated[list[Key], Field(max_length=20)] = []
    origins: Annotated[list[ShortText], Field(max_length=50)] = []
    forms: Annotated[list[Key], Field(max_length=200)] = []
    targets: Annotated[list[Key], Field(max_length=200)] = []
    expires_at: Time | None = None


class RotateKeyRequest(RequestSchema):
    """How long the secret that is in use now goes on beside the new one."""

    model_config = example({"overlap_hours": 24}) | {"extra": "forbid"}
    overlap_hours: Annotated[int, Field(ge=0, le=720)] = 24


class NewSecretAnswer(Schema):
    """A key with its secret, which is told this once."""

    model_config = example(
        {"key": _SHOWN, "secret": "anl_browser_5f0c2a9be417_made-up-not-a-secret-000000000000"}
    )
    key: KeySchema
    secret: str = Field(description="What is presented: Authorization: Bearer …")
