"""What all schemas share."""

from __future__ import annotations

from datetime import UTC, date, datetime
from typing import Annotated, Any

from pydantic import AfterValidator, AwareDatetime, BaseModel, BeforeValidator, ConfigDict, Field

from anchorline.core.address import COMPONENTS
from anchorline.core.text import has_control_characters


class Schema(BaseModel):
    """A response, or a part of one."""

    model_config = ConfigDict(extra="ignore", defer_build=True)


class RequestSchema(BaseModel):
    """A request: a name it does not know is refused, so that no misspelling is silent."""

    model_config = ConfigDict(extra="forbid", defer_build=True)


class PageQuery(RequestSchema):
    """Which page of a list."""

    limit: Annotated[int, Field(ge=1, le=500)] = 100
    after: Annotated[str, Field(max_length=2000)] | None = Field(
        default=None, description="The cursor that the page before has answered"
    )


class PageSchema(Schema):
    """A page of a list."""

    after: str | None = Field(
        default=None, description="The cursor of the page after this one; null: it is the last"
    )


def _printable(text: str) -> str:
    if has_control_characters(text) or "\x00" in text:
        raise ValueError("This holds control characters; take them out.")
    return text


def _read_time(value: object) -> object:
    """A time that was sent as a text: JSON has no other way."""
    if not isinstance(value, str):
        return value
    try:
        return datetime.fromisoformat(value)
    except ValueError:
        raise ValueError("Write the time as 2027-03-01T10:42:00Z (RFC 3339).") from None


def _in_utc(time: datetime) -> datetime:
    try:
        return time.astimezone(UTC)
    except OverflowError:
        raise ValueError("This is a time that there is not in UTC.") from None


def _read_day(value: object) -> object:
    """A day that was sent as a text."""
    if not isinstance(value, str):
        return value
    try:
        return date.fromisoformat(value)
    except ValueError:
        raise ValueError("Write the day as 2027-03-01 (ISO 8601).") from None


LONGEST_TEXT = 4000
Text = Annotated[str, Field(max_length=LONGEST_TEXT), AfterValidator(_printable)]
ShortText = Annotated[str, Field(max_length=200), AfterValidator(_printable)]
Time = Annotated[AwareDatetime, BeforeValidator(_read_time), AfterValidator(_in_utc)]
Day = Annotated[date, BeforeValidator(_read_day)]
Key = Annotated[str, Field(min_length=1, max_length=64)]
CountryCode = Annotated[
    str, Field(min_length=2, max_length=2, description="ISO 3166-1 alpha-2", examples=["GB"])
]
ComponentMap = Annotated[
    dict[str, Text],
    Field(
        description="Components by name, and extras that an own layout asks for; "
        "unknown names are refused.",
        examples=[{"number": "12", "street": "Kiln Crescent", "town": "Brackwater"}],
        max_length=40,
        json_schema_extra={
            "propertyNames": {
                "anyOf": [{"enum": list(COMPONENTS)}, {"pattern": "^[a-z][a-z_]{1,30}$"}]
            }
        },
    ),
]


def example(value: dict[str, Any]) -> ConfigDict:
    """The configuration of a schema with an example."""
    return ConfigDict(json_schema_extra={"examples": [value]})
