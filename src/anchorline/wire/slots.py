"""The addresses of a form, as they are written down."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from .base import CountryCode, Key, RequestSchema, ShortText, Text
from .fields import REQUIRED, SHOWN, FieldSchema, LanguageTag
from .formulas import FormulaText
from .rules import ExampleSchema, RuleSchema


class NearSchema(RequestSchema):
    """What suggestions are preferred near to: a point, an address of the form, or the person."""

    latitude: Annotated[float, Field(ge=-90, le=90)] | None = None
    longitude: Annotated[float, Field(ge=-180, le=180)] | None = None
    slot: Key | None = None
    person: bool = False


class MapSchema(RequestSchema):
    """A map of an address."""

    place: Literal["below", "beside"] = "below"
    follows: Key | None = Field(
        default=None,
        description="A field for text, or another slot, that it follows instead of the address",
    )


class SlotSchema(RequestSchema):
    """One address captured on the form."""

    key: Key
    label: Annotated[ShortText, Field(min_length=1)]
    countries: Annotated[list[CountryCode], Field(min_length=1, max_length=300)] | None = Field(
        default=None, description="Left out: all that there are"
    )
    country: CountryCode | None = None
    kinds: Annotated[list[ShortText], Field(max_length=20)] = []
    required: bool = True
    help: Text | None = None
    shown_when: FormulaText | None = Field(default=None, description=SHOWN)
    required_when: FormulaText | None = Field(default=None, description=REQUIRED)
    appearance: Literal["box_and_parts", "one_box", "parts_only"] | None = Field(
        default=None,
        description="A box with the parts below it (so where it is left out), a box with them "
        "behind it, or parts alone",
    )
    shown_as: Literal["parts", "lines"] | None = Field(
        default=None,
        description="How a filled address is shown; left out: lines of one box, else parts",
    )
    shows_empty: bool = Field(
        default=False, description="Whether optional parts that a pick left empty stay in sight"
    )
    keeps_order: bool = Field(
        default=False, description="Whether parts stand as they do here, in every country"
    )
    locked: bool = Field(
        default=False, description="Whether parts are locked after a pick until that is asked for"
    )
    same_as: Key | None = Field(
        default=None, description="The slot before it that it can be the same as"
    )
    location: bool = Field(
        default=False, description="Whether the place where the person is can be used"
    )
    keeps_position: bool = Field(
        default=False, description="Whether that place is kept with the record"
    )
    near: NearSchema | None = None
    language: LanguageTag | None = Field(default=None, description="Of what is found")
    practice_word: Annotated[ShortText, Field(max_length=30)] | None = Field(
        default=None,
        description="What is typed behind this word is looked for among the practice addresses",
    )
    datasets: Annotated[list[ShortText], Field(max_length=20)] = Field(
        default=[], description="Those that are searched; left out: all"
    )
    map: MapSchema | None = None
    parts: Annotated[list[FieldSchema], Field(max_length=40)] = []
    mapping: Annotated[list[RuleSchema], Field(max_length=100)] = []
    examples: Annotated[list[ExampleSchema], Field(max_length=100)] = Field(
        default=[], description="Addresses with what the mapping must make of them"
    )
