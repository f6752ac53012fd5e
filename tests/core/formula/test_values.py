"""Numbers, texts and dates as formulas take one for another."""

from datetime import date

import pytest
from hypothesis import given
from hypothesis import strategies as st

from anchorline.core.formula import Date, Problem
from anchorline.core.formula.calendar import day_of, serial_of
from anchorline.core.formula.values import compared, plain, to_date, to_number, to_text

VALUES = (
    st.none() | st.booleans() | st.text(max_size=5) | st.integers(-10_000, 60_000).map(Date)
    | st.floats(allow_nan=False, allow_infinity=False).map(float)
)  # fmt: skip


@given(st.dates())
def test_days_have_the_numbers_that_spreadsheets_give_them(day):
    serial = serial_of(day.year, day.month, day.day)
    assert serial == (day - date(1899, 12, 30)).days
    assert day_of(serial) == (day.year, day.month, day.day)
    assert to_date(to_text(Date(serial))) == Date(serial)


@given(st.integers(1, 9998), st.integers(-30, 30), st.integers(-400, 400))
def test_months_and_days_beyond_their_end_run_on(year, month, day):
    start = serial_of(year, month, 1)
    assert serial_of(year, month, day) == start + day - 1
    assert serial_of(year, month + 12, 1) == serial_of(year + 1, month, 1)


@given(st.floats(allow_nan=False, allow_infinity=False))
def test_a_number_is_read_back_from_what_is_written_of_it(number):
    text = plain(number)
    again = to_number(text)
    if isinstance(again, Problem):  # the digits of the largest double round up beyond it
        assert abs(number) > 1.7e308
    else:
        assert again == pytest.approx(number, rel=1e-14, abs=1e-300)
        assert plain(again) == text


@given(VALUES, VALUES)
def test_comparing_turns_round_with_its_sides(one, other):
    assert compared(one, other) == -compared(other, one)
    assert compared(one, one) == 0


@pytest.mark.parametrize(
    "text", ["", ".", "1e", "1 2", "0x1", "١", "1,5", "--1", "NaN", "inf", "1_0"]
)
def test_what_is_written_like_no_number_is_none(text):
    assert to_number(text) == Problem("not-a-number")


@pytest.mark.parametrize("text", ["2026-02-29", "2026-13-01", "26-01-01", "2026-1-1", "0000-01-01"])
def test_what_is_written_like_no_date_is_none(text):
    assert isinstance(to_date(text), Problem)
