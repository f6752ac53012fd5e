"""Filling a slot of a form."""

from __future__ import annotations

from typing import Annotated

from pydantic import Field, model_validator

from .base import ComponentMap, CountryCode, RequestSchema, Schema, Text, example
from .fields import Values
from .usage import CaptureName


class FillRequest(RequestSchema):
    """Fill a slot: from an address, a group as far as it is known, components, or typed text."""

    model_config = example({"address_id": "demo:GB0000012", "values": {}})
    address_id: Annotated[str, Field(max_length=160)] | None = None
    group_id: Annotated[str, Field(max_length=200)] | None = Field(
        default=None,
        description="A suggestion that stands for several addresses: what they share is filled",
    )
    components: ComponentMap | None = None
    typed: Annotated[Text, Field(max_length=500)] | None = Field(
        default=None,
        description="What was typed in the finder: beside a group a number that it lacks is "
        "taken from it; alone it is laid into the components as the country writes them",
    )
    country_code: CountryCode | None = Field(
        default=None,
        description="Of what was typed; left out: the slot's own country, where it has one",
    )
    values: Values = {}
    capture: CaptureName | None = None

    @model_validator(mode="after")
    def one_source(self) -> FillRequest:
        """Exactly one source is given; what was typed is one where there is no other."""
        given = [self.address_id, self.group_id, self.components]
        count = sum(one is not None for one in given)
        if count > 1 or (count == 0 and self.typed is None):
            raise ValueError("Give one of address_id, group_id and components, or else typed.")
        return self


class TraceEntry(Schema):
    """One step of the filling."""

    kind: str = Field(description="What kind of step: cleared, wrote, shortened, lost …")
    field: str = Field(description="The field's key; empty for what concerns none")
    components: list[str] = Field(description="The components and facts that it is about")
    detail: str = Field(description="A sentence")
    rule: int | None = Field(default=None, description="The place of the rule, counted from 0")
    text: str = Field(default="", description="What stands in the field then")


class FilledAddress(Schema):
    """The address that a fill was made from, as formulas have it."""

    components: dict[str, str]
    line: str
    lines: list[str]
    latitude: float | None
    longitude: float | None
    facts: dict[str, str] = Field(default={}, description="`use`, `languages` and `id`")


class FillAnswer(Schema):
    """What filling does: new values of every field that the mapping owns."""

    model_config = example(
        {
            "values": {"piano_street": "Abbey Mews", "piano_unit": ""},
            "cleared": ["piano_unit"],
            "warnings": [],
            "trace": [
                {
                    "kind": "wrote",
                    "field": "piano_street",
                    "components": ["street"],
                    "detail": "wrote Abbey Mews",
                    "rule": 0,
                    "text": "Abbey Mews",
                }
            ],
        }
    )
    values: dict[str, str]
    labels: dict[str, str] = Field(
        default={}, description="Of links: what people know the record by"
    )
    cleared: list[str] = Field(description="Fields of the mapping that are empty now")
    warnings: list[str]
    trace: list[TraceEntry]
    address: FilledAddress | None = Field(
        default=None, description="Of one address that was picked; null for anything else"
    )
