"""Telephone numbers: read as people write them, kept in E.164, shown as in their country or abroad.

What numbers a country has, and how they are written, is that of the package phonenumbers.
"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass

import phonenumbers
from phonenumbers import PhoneNumberFormat, ValidationResult

# ITU-T E.164 and RFC 3966 allow less; what people paste is longer, with blanks and words.
LONGEST = 60


@dataclass(frozen=True, slots=True)
class PhoneNumber:
    """A number that can be.

    Attributes:
        e164: ITU-T E.164: a plus sign and digits.
        country_code: ISO 3166-1 alpha-2; empty for numbers of no country.
        national: as it is written inside its country.
        international: as it is written abroad.
    """

    e164: str
    country_code: str
    national: str
    international: str


def read_phone(text: str, country: str | None = None) -> PhoneNumber | None:
    """The number that a text says; None where it cannot be one.

    Args:
        country: ISO 3166-1 alpha-2 of numbers that do not begin with a plus sign.
    """
    try:
        number = phonenumbers.parse(text[:LONGEST], country)
    except phonenumbers.NumberParseException:
        return None
    # Numbers that can only be called from their own town are no numbers of a record.
    if phonenumbers.is_possible_number_with_reason(number) != ValidationResult.IS_POSSIBLE:
        return None

    def written(form: int) -> str:
        return str(phonenumbers.format_number(number, form))

    code = phonenumbers.region_code_for_number(number) or _any_region(number.country_code)
    return PhoneNumber(
        written(PhoneNumberFormat.E164),
        code,
        written(PhoneNumberFormat.NATIONAL),
        written(PhoneNumberFormat.INTERNATIONAL),
    )


def _any_region(dial_code: int | None) -> str:
    """The main country of a dial code, for numbers that no plan has given out."""
    code = phonenumbers.region_code_for_country_code(dial_code or 0)
    return "" if code in ("ZZ", "001") else str(code)


def dial_codes(countries: Iterable[str] = ()) -> dict[str, int]:
    """Dial codes by country, ISO 3166-1 alpha-2; of all countries that have one, or of some."""
    wanted = set(countries) or set(phonenumbers.SUPPORTED_REGIONS)
    return {
        code: phonenumbers.country_code_for_region(code)
        for code in sorted(wanted & set(phonenumbers.SUPPORTED_REGIONS))
    }
