"""Making forms: types of fields, changes, versions, who edits, and what one can begin from."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Literal

from pydantic import Field

from .base import RequestSchema, Schema, Text, example
from .forms import FormDocument
from .problems import ProblemPlace

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


class DraftQuery(RequestSchema):
    """How a draft is kept."""

    unfinished: bool = Field(
        default=False,
        description="Keep it although something in it is wrong, which the answer then names; "
        "it cannot be published before that is mended",
    )


class ChangesRequest(RequestSchema):
    """What to compare: left out, the draft with what is published."""

    model_config = example({}) | {"extra": "forbid"}
    document: FormDocument | None = Field(default=None, description="Instead of the draft")
    since: Annotated[int, Field(ge=1, le=2**31 - 1)] | None = Field(
        default=None, description="A version, instead of the published one"
    )
    until: Annotated[int, Field(ge=1, le=2**31 - 1)] | None = Field(
        default=None, description="A version, instead of the draft"
    )


class ChangeSchema(Schema):
    """One change."""

    kind: Literal["added", "removed", "changed", "moved"]
    pointer: str = Field(description="Into the new document; into the old one where it is removed")
    detail: str
    records: int | None = Field(
        description="Of a removed field or slot: how many records keep something in it"
    )


class Changes(Schema):
    """What changes, and what stands against publishing it."""

    model_config = example(
        {
            "changes": [
                {
                    "kind": "removed",
                    "pointer": "/fields/3",
                    "detail": "“Fax” is removed: 214 records keep their value.",
                    "records": 214,
                }
            ],
            "problems": [],
            "is_new": False,
        }
    )
    changes: list[ChangeSchema]
    problems: list[ProblemPlace] = Field(description="What stands against publishing")
    unreadable: int = Field(
        default=0, description="How many of these, the first ones, stand against keeping it, too"
    )
    is_new: bool = Field(description="Whether nothing is published to compare with")


class FormVersionSchema(Schema):
    """A published version."""

    number: int
    published_at: datetime
    published_by: str
    in_force: bool
    records: int = Field(description="How many records were made with it")
    changes: list[str] = Field(description="What it changed, in sentences; the first few")
    more_changes: int = Field(description="How many further ones there are")


class FormVersions(Schema):
    """Versions of a form, the newest first."""

    model_config = example(
        {
            "versions": [
                {
                    "number": 2,
                    "published_at": "2026-03-01T12:00:00Z",
                    "published_by": "robin@example.org",
                    "in_force": True,
                    "records": 12,
                    "changes": ["“Phone” is now required."],
                    "more_changes": 0,
                }
            ]
        }
    )
    versions: list[FormVersionSchema]


class FormRestoreRequest(RequestSchema):
    """The version to go back to."""

    model_config = example({"version": 1}) | {"extra": "forbid"}
    version: Annotated[int, Field(ge=0, le=2**31 - 1)] = Field(
        description="0: none is published any more, so that nobody can fill the form"
    )


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


class EditorRequest(RequestSchema):
    """An open page in which a draft is edited."""

    model_config = example({"page": "p8f3k2a9"}) | {"extra": "forbid"}
    page: Annotated[str, Field(pattern=r"^[a-z0-9]{6,32}$")]
    leaves: bool = Field(default=False, description="The page is being closed")


class EditorSchema(Schema):
    """Somebody who has the draft open."""

    name: str
    since: datetime


class Editors(Schema):
    """Who else has the draft open, and its newest revision."""

    model_config = example({"editors": [], "revision": 7})
    editors: list[EditorSchema]
    revision: int
