"""Program targets as they are written down: screens, fields, and how they are written."""

from __future__ import annotations

from dataclasses import fields
from typing import TYPE_CHECKING, Annotated, Any, Literal, Union, cast

from pydantic import Discriminator, Field, Tag, create_model, model_validator

from anchorline.core.targets.programs.steps import STEPS
from anchorline.core.targets.upgrade import upgraded

from .base import CountryCode, Key, RequestSchema, ShortText, example
from .target_addresses import TargetAddressSchema
from .target_fields import Length, TargetFieldSchema

FactKindName = Literal[
    "program", "title", "dialog", "tab", "window_class", "part_title", "text", "terminal",
    "field", "running",
]  # fmt: skip
TestName = Literal["is", "begins", "ends", "contains", "lacks"]
Empty = Literal["line", "box", "own", "erase", "no"]
FieldPlace = Literal["screen", "offered", "nowhere"]
KeyName = Annotated[ShortText, Field(max_length=40)]

EXAMPLE_PROGRAM: dict[str, Any] = {
    "key": "old-ledger",
    "kind": "program",
    "title": "Contacts of the old ledger",
    "screens": [
        {
            "key": "contact",
            "label": "A contact",
            "conditions": [
                {"kind": "program", "test": "is", "text": "ledger"},
                {"kind": "title", "test": "begins", "text": "Contact"},
            ],
        }
    ],
    "fields": [{"key": "street", "label": "Street"}, {"key": "town", "label": "Town"}],
    "addresses": [
        {
            "key": "home",
            "label": "Home address",
            "mapping": [
                {"lines": "street", "into": "street"},
                {"components": ["town"], "into": "town"},
            ],
        }
    ],
}


class ConditionSchema(RequestSchema):
    """A condition on what is seen of a screen."""

    kind: FactKindName
    test: TestName = "is"
    text: ShortText = ""


class ScreenSchema(RequestSchema):
    """One screen of a program, with what it is recognised by."""

    key: Key
    label: ShortText | None = None
    needs: Literal["all", "any"] = "all"
    conditions: Annotated[list[ConditionSchema], Field(max_length=50)] = []


class ProgramPieceSchema(RequestSchema):
    """One field of the screen of several that one text is split over."""

    max_length: Length | None = None


class ProgramFieldSchema(TargetFieldSchema):
    """A field of a screen, in the order of the key that goes from one to the next."""

    name: ShortText = Field(
        default="", description="What the program calls it, checked where it can be read"
    )
    further: Annotated[int, Field(ge=1, le=50)] = Field(
        default=1, description="How many fields it is further than the one before it"
    )
    empty: Empty | None = Field(
        default=None, description="How it is emptied; left out: `box` for one of lines, else `line`"
    )
    where: FieldPlace = Field(
        default="screen", description="`offered`: not on the screen, to be copied after a run"
    )
    pieces: Annotated[list[ProgramPieceSchema], Field(max_length=4)] = Field(
        default=[], description="Of a field that is split over several of the screen"
    )


_SETTINGS: dict[str, Any] = {
    "int": Annotated[int, Field(ge=1, le=600)],
    "str": ShortText,
    "bool": bool,
}


def _step_schema(name: str) -> type[RequestSchema]:
    """The schema of one kind of step, with the settings that its class has."""
    kind = STEPS[name]
    settings: dict[str, Any] = {
        one.name: (_SETTINGS[str(one.type)], one.default) for one in fields(kind)
    }
    schema: type[RequestSchema] = create_model(
        f"{kind.__name__}Step",
        __base__=RequestSchema,
        __doc__=(kind.__doc__ or "").split("\n\n", maxsplit=1)[0],
        do=(cast(Any, Literal)[name], ...),
        **settings,
    )
    return schema


def _kind_of_step(entry: object) -> str | None:
    do = entry.get("do") if isinstance(entry, dict) else getattr(entry, "do", None)
    kind = STEPS.get(do) if isinstance(do, str) else None
    return f"{kind.__name__}Step" if kind else None


if TYPE_CHECKING:
    StepSchema = RequestSchema
else:
    _SCHEMAS = tuple(_step_schema(name) for name in STEPS)
    StepSchema = Annotated[
        Union[tuple(Annotated[one, Tag(one.__name__)] for one in _SCHEMAS)],  # noqa: UP007
        Discriminator(
            _kind_of_step,
            custom_error_type="step",
            custom_error_message=f"Say what the step does: one of {', '.join(STEPS)}",
        ),
    ]


class WritingSchema(RequestSchema):
    """How the fields of an address are written."""

    steps: Annotated[list[StepSchema], Field(max_length=300)] = Field(
        default=[], description="Steps in place of those that the fields make"
    )
    by: Literal["keys", "paste", "accessible", "found"] = "keys"
    pace_ms: Annotated[int, Field(ge=0, le=1000)] = Field(default=2, description="Between two keys")
    clear_keys: KeyName = Field(default="", description="Of fields that are emptied by `own` keys")
    paste_key: KeyName = "Ctrl+V"
    next_key: KeyName = "Tab"
    previous_key: KeyName = "Shift+Tab"
    line_key: KeyName = "Return"
    jumps: bool = Field(default=False, description="A full field passes the focus on by itself")
    back_first: bool = Field(
        default=True, description="The window is brought to the front before writing"
    )
    check: Literal["field", "screen", "no"] = Field(
        default="field", description="What is read back: each field, the screen at the end, nothing"
    )


class ProgramAddressSchema(TargetAddressSchema):
    """One address of a screen, and how it is written."""

    writing: WritingSchema = WritingSchema()


class WordingSchema(RequestSchema):
    """How everything is written in this program; a rule that says it by itself is left as it is."""

    capitals: bool = False
    country_as: Literal["name", "local", "alpha_2", "alpha_3", "numeric", "nation"] | None = None
    home_country: CountryCode | None = Field(
        default=None, description="Of addresses in this country no country is written"
    )


class ProgramTargetDocument(RequestSchema):
    """A program target as it is written down."""

    model_config = example(EXAMPLE_PROGRAM) | {"extra": "forbid"}
    key: Key
    kind: Literal["program"]
    title: Annotated[ShortText, Field(min_length=1)]
    screens: Annotated[list[ScreenSchema], Field(max_length=50)] = []
    fields: Annotated[list[ProgramFieldSchema], Field(max_length=100)] = []
    addresses: Annotated[list[ProgramAddressSchema], Field(max_length=20)] = []
    wording: WordingSchema | None = None

    @model_validator(mode="before")
    @classmethod
    def _of_today(cls, given: Any) -> Any:
        """Documents of earlier releases are read as today's."""
        return upgraded(given) if isinstance(given, dict) else given
