"""The rules of a mapping, as they are written down."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from .base import Key, RequestSchema, ShortText, Text
from .formulas import FormulaText, TriedFacts

Joint = Annotated[ShortText, Field(max_length=20)]
SettingValue = (
    bool | int | ShortText | Annotated[dict[ShortText, ShortText], Field(max_length=1000)]
)
_Settings = SettingValue | Annotated[dict[ShortText, SettingValue], Field(max_length=10)]
ChangeSchema = Annotated[
    ShortText
    | Annotated[
        dict[
            ShortText, SettingValue | Annotated[dict[ShortText, SettingValue], Field(max_length=10)]
        ],
        Field(min_length=1, max_length=1),
    ],
    Field(description="The name of a change, or an object of its name and its settings"),
]
Changes = Annotated[list[ChangeSchema], Field(max_length=10)]
LineKeys = Annotated[list[Key], Field(min_length=1, max_length=12)]


class InnerGroupSchema(RequestSchema):
    """Components that are joined before a group that they stand in is."""

    components: Annotated[list[ShortText], Field(max_length=20)]
    join: Joint | None = None
    changes: Changes = []


class GroupSchema(InnerGroupSchema):
    """Components that are joined before they are joined with others."""

    components: Annotated[  # type: ignore[assignment]  # a list is what the inner ones hold
        list[ShortText | InnerGroupSchema], Field(max_length=20)
    ]


class FitSchema(RequestSchema):
    """Components packed into several fields, in the order of their country."""

    into: LineKeys
    width: Annotated[int, Field(ge=1, le=1000)] | None = Field(
        default=None, description="Characters of a line; left out: what each field takes"
    )
    components: Annotated[list[ShortText], Field(max_length=20)] = Field(
        default=[], description="Left out: all that no other rule takes"
    )
    overflow: Key | None = Field(default=None, description="The field for what finds no room")
    join: Joint | None = Field(
        default=None,
        description="Between two of the country's lines that share one; `, ` if left out",
    )
    lines: Annotated[int, Field(ge=1, le=12)] | None = Field(
        default=None, description="Of one field that takes several lines: how many at the most"
    )
    fewest: bool = Field(
        default=False, description="There: as few lines as it takes, and not the country's own"
    )


class TextRuleSchema(RequestSchema):
    """A rule that comes to one text.

    Exactly one of `components`, `facts`, `lines` and `formula` says what is taken.
    """

    components: Annotated[list[ShortText | GroupSchema], Field(max_length=20)] | None = None
    facts: Annotated[list[ShortText], Field(max_length=10)] | None = Field(
        default=None,
        description="latitude, longitude, use, languages, id, line, lines",
    )
    lines: Literal["all", "street"] | Annotated[int, Field(ge=1, le=12)] | None = Field(
        default=None, description="Of the country: all, the one with the street, or one by number"
    )
    formula: FormulaText | None = Field(
        default=None, description="Over components and facts by their names"
    )
    into: Key | None = None
    join: Joint | None = None
    changes: Changes = []
    when: FormulaText | None = Field(
        default=None, description="The rule applies while this formula is yes"
    )
    otherwise: bool = Field(
        default=False, description="The rule applies only where the ones above it did not"
    )
    if_written: Literal["append", "instead", "leave"] | None = Field(
        default=None, description="What happens where an earlier rule has written the field"
    )
    keeps_place: bool = Field(
        default=False, description="With `append`: an empty text is put behind as well"
    )


class LinkRuleSchema(RequestSchema):
    """A record of another form that has what the address says."""

    form: Key
    find: Annotated[list[TextRuleSchema], Field(max_length=10)] = Field(
        default=[], description="Rules into fields of the other form by which it is found"
    )
    creates: bool = Field(default=False, description="Whether a record is made where none is found")
    more: Annotated[list[TextRuleSchema], Field(max_length=40)] = Field(
        default=[], description="Further rules for a record that is made"
    )


class RuleSchema(TextRuleSchema):
    """What is taken of an address, how it is changed, and into which field it goes.

    Exactly one of `components`, `facts`, `lines`, `formula`, `fit` and `link` says what is taken.
    All but `fit` have `into`.
    """

    fit: FitSchema | None = None
    link: LinkRuleSchema | None = None


class ExampleSchema(RequestSchema):
    """An address with what the mapping must make of it, run at every publish."""

    name: Annotated[ShortText, Field(min_length=1)]
    components: Annotated[dict[ShortText, Text], Field(max_length=40)]
    facts: TriedFacts | None = None
    address_id: Annotated[str, Field(max_length=160)] = ""
    values: Annotated[dict[Key, Text], Field(max_length=200)] = Field(
        description="What must stand in fields; an empty text for one that must be empty"
    )
