"""Formulas: trying one, and what there is to write them with."""

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
    """Where an address is."""

    latitude: float | None = Field(default=None, ge=-90, le=90)
    longitude: float | None = Field(default=None, ge=-180, le=180)


class TriedSlot(RequestSchema):
    """The address of a slot while a formula is tried."""

    components: ComponentMap = {}
    facts: TriedFacts = TriedFacts()
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
