"""Formulas: trying one, what there is to write them with, and those of a form."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from .base import ComponentMap, Key, RequestSchema, Schema, Text, example

# Longer ones are refused with a place, as everything that is wrong with a formula.
_LONGEST = 500_000
FormulaText = Annotated[
    str, Field(max_length=_LONGEST, description="OpenFormula, with or without = before it")
]
PlainValue = Text | bool | float | None
ValueKind = Literal["number", "text", "yes_no", "date", "empty", "problem"]


class TriedFacts(RequestSchema):
    """Where an address is, and what else is known of it."""

    latitude: float | None = Field(default=None, ge=-90, le=90)
    longitude: float | None = Field(default=None, ge=-180, le=180)
    use: Annotated[str, Field(max_length=40)] = ""
    languages: Annotated[list[Annotated[str, Field(max_length=35)]], Field(max_length=20)] = []


class TriedSlot(RequestSchema):
    """The address of a slot while a formula is tried."""

    components: ComponentMap = {}
    facts: TriedFacts = TriedFacts()
    address_id: Annotated[str, Field(max_length=160)] = ""
    picked: bool | None = Field(
        default=None, description="Whether it was picked; left out: whether it has a place"
    )


class TryFormulaRequest(RequestSchema):
    """A formula, and what it speaks of."""

    model_config = example(
        {
            "formula": "=ROUNDUP(distance) * 0.45",
            "values": {"distance": 11.6, "visit_day": "2026-03-01"},
            "slots": {"piano": {"components": {"country_code": "GB", "town": "Brackwater"}}},
        }
    ) | {"extra": "forbid"}
    formula: FormulaText
    values: Annotated[
        dict[Key, PlainValue],
        Field(
            max_length=500, description="By name; a text in ISO 8601 is a date, null was not given"
        ),
    ] = {}
    slots: Annotated[
        dict[Key, TriedSlot], Field(max_length=50, description="Addresses, by name")
    ] = {}


class TryFormulaAnswer(Schema):
    """What it comes to."""

    model_config = example({"value": 5.4, "type": "number", "problems": []})
    value: str | bool | float | int | None = Field(description="A date in ISO 8601")
    type: ValueKind
    problems: list[str] = Field(description="What fails on these values alone: a division by zero")


class FunctionExample(Schema):
    """A formula and what it comes to."""

    formula: str
    value: str


class FormulaFunction(Schema):
    """A function."""

    name: str
    usage: str = Field(description="How it is written; what may be left out is in brackets")
    says: str
    of_addresses: bool = Field(description="Whether it is about the address of a slot")
    example: FunctionExample | None


class FormulaFunctions(Schema):
    """All functions, by name."""

    model_config = example(
        {
            "functions": [
                {
                    "name": "ROUND",
                    "usage": "ROUND(number; [places])",
                    "says": "A number to so many places after the point; halves away from zero.",
                    "of_addresses": False,
                    "example": {"formula": "ROUND(2.345; 2)", "value": "2.35"},
                }
            ]
        }
    )
    functions: list[FormulaFunction]


class FormulaValue(RequestSchema):
    """A value that stands in a formula; null where an argument is left empty."""

    value: str | bool | float | None


class FormulaField(RequestSchema):
    """The value of a field."""

    field: str


class FormulaSlot(RequestSchema):
    """The address of a slot."""

    slot: str


class FormulaCall(RequestSchema):
    """A function, an operator, or a conversion between kinds of values."""

    model_config = example({"call": "number", "of": [{"field": "distance"}]}) | {"extra": "forbid"}
    call: str
    of: list[FormulaTree]


FormulaTree = FormulaValue | FormulaField | FormulaSlot | FormulaCall
FormulaCall.model_rebuild()


class FormLogic(Schema):
    """What the page works out as people fill the form; the service does the same."""

    model_config = example(
        {"order": ["visit", "note"], "formulas": {}, "shown": {}, "required": {}}
    )
    order: list[str] = Field(
        description="Keys of fields and slots, each after those that its formulas speak of"
    )
    formulas: dict[str, FormulaTree] = Field(description="Of formula fields, by key")
    shown: dict[str, FormulaTree] = Field(description="Of what is shown on a condition, by key")
    required: dict[str, FormulaTree] = Field(description="Of what is needed on a condition, by key")
