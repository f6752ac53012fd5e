"""Telephone numbers: dial codes, and checking one."""

from __future__ import annotations

from typing import Annotated

from pydantic import Field

from .base import CountryCode, RequestSchema, Schema, ShortText, example


class DialCodes(Schema):
    """Dial codes of all countries that have one."""

    model_config = example({"dial_codes": {"GB": 44, "IE": 353}})
    dial_codes: dict[str, int] = Field(description="By ISO 3166-1 alpha-2")


class PhoneCheck(RequestSchema):
    """A number as somebody wrote it."""

    model_config = example({"number": "020 555 0123", "country_code": "GB"})
    number: Annotated[ShortText, Field(min_length=1, max_length=60)]
    country_code: CountryCode | None = Field(
        default=None, description="Of numbers that do not begin with a plus sign"
    )


class PhoneAnswer(Schema):
    """What the number comes to; `number` is null where it cannot be one."""

    model_config = example(
        {
            "e164": "+44205550123",
            "country_code": "GB",
            "national": "(020) 555 0123",
            "international": "+44 20 555 0123",
        }
    )
    e164: str | None = Field(description="ITU-T E.164; null where it cannot be a number")
    country_code: str = ""
    national: str = ""
    international: str = ""
