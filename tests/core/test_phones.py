"""Telephone numbers as people write them."""

import phonenumbers
import pytest
from hypothesis import given
from hypothesis import strategies as st

from anchorline.core.phones import dial_codes, read_phone


@pytest.mark.parametrize(
    ("text", "country", "e164"),
    [
        ("+44 20 7946 0123", None, "+442079460123"),
        ("020 7946 0123", "GB", "+442079460123"),
        ("+44 020 7946 0123", None, "+442079460123"),
        ("0044 20 7946 0123", "GB", "+442079460123"),
        ("(202) 555-0123", "US", "+12025550123"),
        ("0039 06 1234 5678", "DE", "+390612345678"),
        ("＋８１ ３ １２３４ ５６７８", None, "+81312345678"),
        ("020 7946 0123", None, None),
        ("12", "GB", None),
        ("call me", "GB", None),
        ("+44 20 7946 0123 4567 8901", None, None),
        ("", "GB", None),
        ("020 7946 0123", "XX", None),
    ],
)
def test_a_number_is_read_as_it_is_written(text, country, e164):
    number = read_phone(text, country)
    assert (number.e164 if number else None) == e164


@pytest.mark.parametrize("country", sorted(phonenumbers.SUPPORTED_REGIONS))
def test_what_is_shown_of_a_number_reads_as_the_same_number(country):
    example = phonenumbers.example_number(country)
    e164 = phonenumbers.format_number(example, phonenumbers.PhoneNumberFormat.E164)
    number = read_phone(e164)
    assert number is not None
    assert number.e164 == e164
    assert read_phone(number.international) == number
    assert read_phone(number.national, country).e164 == e164


@given(st.text(max_size=80), st.sampled_from([None, "GB", "JP", "ZZ"]))
def test_no_text_is_too_odd(text, country):
    number = read_phone(text, country)
    assert number is None or number.e164.startswith("+")


def test_dial_codes_of_all_countries_and_of_some():
    assert dial_codes(["GB", "US", "XX"]) == {"GB": 44, "US": 1}
    assert len(dial_codes()) > 200
