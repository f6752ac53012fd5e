"""The fields of a form, as they are written down."""

from __future__ import annotations

from typing import Annotated

from pydantic import Field

from .base import CountryCode, Key, RequestSchema, ShortText, Text
from .formulas import FormulaText

Value = str | int | float | bool | Annotated[list[ShortText], Field(max_length=500)] | None
Values = Annotated[
    dict[Annotated[str, Field(max_length=64)], Value],
    Field(max_length=500, description="Values by the fields' keys"),
]


LanguageTag = Annotated[
    str,
    Field(
        max_length=35,
        pattern=r"^[a-z]{2,3}(-[A-Za-z0-9]{2,8})*$",
        description="BCP 47: de, pt-BR",
    ),
]
SHOWN = "Shown only while this formula is yes"
REQUIRED = "Must be filled while this formula is yes"


class FieldOption(RequestSchema):
    """One choice: what is kept and what is shown."""

    value: Annotated[ShortText, Field(min_length=1)]
    label: ShortText | None = None


class PhoneSettings(RequestSchema):
    """Of which countries numbers are, and how they are shown."""

    country: CountryCode | None = Field(
        default=None, description="Chosen at first; left out: that of an address, or the browser's"
    )
    slot: Key | None = Field(
        default=None, description="The address whose country is chosen at first"
    )
    only: Annotated[list[CountryCode], Field(max_length=300)] = Field(
        default=[], description="These countries alone"
    )
    without: Annotated[list[CountryCode], Field(max_length=300)] = Field(
        default=[], description="All countries but these"
    )
    first: Annotated[list[CountryCode], Field(max_length=20)] = Field(
        default=[], description="These countries before the others in the list"
    )
    national: bool = Field(
        default=False, description="Whether numbers are shown as inside their country"
    )


class FieldSchema(RequestSchema):
    """One input of the form, or of a slot (then it may stand for a component)."""

    key: Key
    type: ShortText | None = None
    label: ShortText | None = None
    required: bool = False
    help: Text | None = None
    placeholder: ShortText | None = Field(
        default=None, description="An example that stands in it while it is empty"
    )
    options: Annotated[list[FieldOption], Field(max_length=500)] | None = None
    max_length: Annotated[int, Field(ge=1, le=100_000)] | None = None
    least: int | float | ShortText | None = Field(
        default=None, description="The least number, or the first date"
    )
    most: int | float | ShortText | None = Field(
        default=None, description="The greatest number, or the last date"
    )
    decimals: Annotated[int, Field(ge=0, le=10)] | None = Field(
        default=None, description="Digits behind the point, at most; 0 for whole numbers"
    )
    unit: Annotated[ShortText, Field(max_length=20)] | None = Field(
        default=None, description="What stands behind a number: km"
    )
    shown_when: FormulaText | None = Field(default=None, description=SHOWN)
    required_when: FormulaText | None = Field(default=None, description=REQUIRED)
    formula: FormulaText | None = Field(
        default=None, description="Of the type formula: what the field comes to"
    )
    hidden: bool = Field(
        default=False, description="Of the type formula: worked out without being seen"
    )
    default: Value = Field(default=None, description="What stands in it at first, as it is kept")
    form: Key | None = Field(
        default=None, description="Of a link: the form whose records can be chosen"
    )
    shows: Key | None = Field(
        default=None,
        description="Of a link: the field by which they are found; left out: their labels",
    )
    searches: Annotated[list[Key], Field(max_length=5)] | None = Field(
        default=None,
        description="Of a link: other fields that are searched as well, and shown behind it",
    )
    open_to_all: bool = Field(
        default=False,
        description="Of a link on a web form: whether anyone who fills it may look records up",
    )
    makes_new: bool = Field(
        default=False, description="Of a link: whether a new record can be made where none is found"
    )
    phone: PhoneSettings | None = Field(
        default=None, description="Of a phone: countries and how numbers are shown"
    )
    columns: Annotated[int, Field(ge=1, le=2)] | None = Field(
        default=None, description="Of a page or section: how many it has beside each other"
    )
    foldable: bool = Field(default=False, description="Of a section: whether it can be folded")
    folded: bool = Field(default=False, description="Of a foldable section: whether it is at first")
    component: ShortText | None = None
