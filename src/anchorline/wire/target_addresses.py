"""What the addresses of all kinds of targets say."""

from __future__ import annotations

from typing import Annotated

from pydantic import Field

from .base import CountryCode, Key, RequestSchema, ShortText
from .fields import LanguageTag
from .rules import ExampleSchema, RuleSchema
from .slots import NearSchema


class TargetAddressSchema(RequestSchema):
    """One address that is captured: what is found, and its mapping."""

    key: Key
    label: Annotated[ShortText, Field(min_length=1)]
    countries: Annotated[list[CountryCode], Field(min_length=1, max_length=300)] | None = Field(
        default=None, description="Left out: all that there are"
    )
    country: CountryCode | None = None
    kinds: Annotated[list[ShortText], Field(max_length=20)] = []
    language: LanguageTag | None = None
    datasets: Annotated[list[ShortText], Field(max_length=20)] = []
    practice_word: Annotated[ShortText, Field(max_length=30)] | None = Field(
        default=None,
        description="What is typed behind this word is looked for among the practice addresses",
    )
    near: NearSchema | None = None
    mapping: Annotated[list[RuleSchema], Field(max_length=100)] = []
    examples: Annotated[list[ExampleSchema], Field(max_length=100)] = []
