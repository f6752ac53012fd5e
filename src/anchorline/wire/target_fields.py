"""The fields of targets as they are written down, and as they are seen."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from .base import Key, RequestSchema, ShortText

FieldType = Literal["text", "list", "radio", "switch", "hidden", "region"]
Length = Annotated[int, Field(ge=1, le=10_000)]
Pixels = Annotated[int, Field(ge=-100_000, le=100_000)]


class ListOptionSchema(RequestSchema):
    """An option of a list, or a radio button: its value, and what people read."""

    value: ShortText = ""
    text: ShortText = ""


class SeenPlaceSchema(RequestSchema):
    """Where a field stood when it was seen, for the picture of its screen."""

    left: Pixels
    top: Pixels
    width: Pixels
    height: Pixels


class TargetFieldSchema(RequestSchema):
    """A field of a target: what an address is written into."""

    key: Key
    label: ShortText | None = None
    type: FieldType = "text"
    several_lines: bool = Field(default=False, description="A text in it may have several lines")
    max_length: Length | None = None
    options: Annotated[list[ListOptionSchema], Field(max_length=600)] = Field(
        default=[], description="Of a list or radio buttons, as they were seen"
    )
    block: ShortText = Field(default="", description="The heading of the part that it stands in")
    place: SeenPlaceSchema | None = None


class SeenPieceSchema(RequestSchema):
    """One input of a field that is split over several."""

    name: ShortText = ""
    id: ShortText = ""
    max_length: Length | None = None
    position: Annotated[int, Field(ge=0, le=500)] = 0


class SeenFieldSchema(RequestSchema):
    """A field as it is seen on a page or a screen, without what stands in it."""

    type: FieldType = "text"
    name: ShortText = ""
    id: ShortText = ""
    autocomplete: ShortText = ""
    class_name: ShortText = ""
    label: ShortText = Field(default="", description="What people read beside it")
    is_named: bool = Field(default=True, description="The label is the screen's own")
    placeholder: ShortText = ""
    block: ShortText = Field(default="", description="The heading of the part that it stands in")
    position: Annotated[int, Field(ge=0, le=500)] = Field(
        default=0, description="Which of those with its name it is; 0 for the only one"
    )
    several_lines: bool = False
    options: Annotated[list[ListOptionSchema], Field(max_length=600)] = []
    max_length: Length | None = None
    pieces: Annotated[list[SeenPieceSchema], Field(max_length=4)] = []
    place: SeenPlaceSchema | None = None
    is_whole: bool = Field(default=False, description="All of the address goes into it")
    is_read_only: bool = False
