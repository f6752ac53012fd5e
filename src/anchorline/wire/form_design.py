"""Making forms: types of fields, what one can begin from, and what links offer."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from .base import RequestSchema, Schema, Text, example
from .forms import FormDocument

_DOCUMENT = {
    "key": "customers",
    "kind": "record",
    "title": "Customers",
    "fields": [{"key": "name", "label": "Name"}],
}


class FieldTypeSchema(Schema):
    """A type of field."""

    name: str = Field(description="In documents")
    title: str
    says: str = Field(description="A sentence for whoever chooses one")
    holds_value: bool = Field(description="Whether anything is kept of it")
    is_filled: bool = Field(description="Whether people give its value")
    always_needed: bool
    needs_label: bool
    settings: list[str] = Field(description="Settings that have a meaning for it, beside the usual")


class FieldTypes(Schema):
    """All types of fields."""

    model_config = example(
        {
            "types": [
                {
                    "name": "number",
                    "title": "Number",
                    "says": "A number, perhaps with limits and a unit.",
                    "holds_value": True,
                    "is_filled": True,
                    "always_needed": False,
                    "needs_label": True,
                    "settings": ["least", "most", "decimals", "unit"],
                }
            ]
        }
    )
    types: list[FieldTypeSchema]


class ReadyMadeForm(Schema):
    """A form to begin from."""

    name: str
    title: str
    says: str
    document: FormDocument


class ReadyMadeForms(Schema):
    """All ready-made forms."""

    model_config = example(
        {
            "forms": [
                {
                    "name": "customer",
                    "title": "Customers",
                    "says": "Staff keep customers.",
                    "document": _DOCUMENT,
                }
            ]
        }
    )
    forms: list[ReadyMadeForm]


class TableRequest(RequestSchema):
    """The head of a table, perhaps with some rows, as it was copied from somewhere."""

    model_config = example({"text": "Name\tStreet\tPost code\tTown\tVisit on\n"}) | {
        "extra": "forbid"
    }
    text: Annotated[str, Field(min_length=1, max_length=200_000)]
    title: Annotated[Text, Field(max_length=200)] = ""
    plain: Annotated[list[int], Field(max_length=200)] = Field(
        default=[], description="Columns that stay fields of their own, by place, from 0"
    )
    left_out: Annotated[list[int], Field(max_length=200)] = Field(
        default=[], description="Columns that the form does not take"
    )


class ColumnGuess(Schema):
    """What one column is taken for."""

    column: str
    becomes: Literal["field", "part", "left_out"]
    key: str | None = Field(description="Of the field, or of the part of an address")
    type: str | None
    component: str | None
    slot: str | None = Field(description="Of the address that it is a part of")
    because: str = Field(description="Why, in a sentence")


class TableAnswer(Schema):
    """A form for the rows of a table, and why it looks as it does."""

    model_config = example(
        {
            "document": _DOCUMENT,
            "guesses": [
                {
                    "column": "Name",
                    "becomes": "field",
                    "key": "name",
                    "type": "text",
                    "component": None,
                    "slot": None,
                    "because": "Nothing speaks for another type.",
                }
            ],
        }
    )
    document: FormDocument
    guesses: list[ColumnGuess]


class LinkQuery(RequestSchema):
    """Which records to offer."""

    q: Annotated[str, Field(max_length=200)] = ""
    draft: bool = False
    id: Annotated[str, Field(max_length=40)] | None = Field(
        default=None, description="Instead: this record, for what is shown of it"
    )


class LinkChoice(Schema):
    """A record that can be chosen."""

    id: str
    label: str


class LinkChoices(Schema):
    """Records that can be chosen, the first twenty."""

    model_config = example({"records": [{"id": "r01a207d5a1cc54fc005bc2d0", "label": "Corn Hall"}]})
    records: list[LinkChoice]
