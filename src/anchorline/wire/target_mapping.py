"""Checking and trying the mapping of a target while it is made."""

from __future__ import annotations

from pydantic import Field

from .base import RequestSchema, example
from .mapping import TriedAddress
from .targets import AnyTarget


class LintTargetRequest(RequestSchema):
    """Which document: left out, the draft."""

    model_config = example({}) | {"extra": "forbid"}
    document: AnyTarget | None = Field(default=None, description="Instead of the draft")


class TryTargetMappingRequest(TriedAddress):
    """An address to fill an address of a target from."""

    model_config = example({"address_id": "demo:GB0000012"}) | {"extra": "forbid"}
    document: AnyTarget | None = Field(default=None, description="Instead of the draft")
