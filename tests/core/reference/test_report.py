"""No cell of the report of rows left out is taken for a formula, in whatever width it is written."""

import csv
import io
import unicodedata

import pytest
from hypothesis import given
from hypothesis import strategies as st

from anchorline.core.reference import BadRow
from anchorline.core.reference.report import report_lines


def cell_of(text):
    _header, line = report_lines([BadRow(2, text, "bad-country", "country_code", "reason", text)])
    (cells,) = csv.reader(io.StringIO(line, newline=""))
    assert cells[1] == cells[5]
    return cells[1]


@pytest.mark.parametrize("sign", "=+-@＝＋－＠﹦﹢﹣﹫\t\r\n⁼₌⁺₊")
def test_a_cell_that_would_begin_a_formula_begins_with_an_apostrophe(sign):
    assert cell_of(f"{sign}1+1") == f"'{sign}1+1"


@pytest.mark.parametrize("text", ["", "1-2", "Marl", "'=1", " =1", "é", "本町", "…"])
def test_other_cells_stay_as_they_are(text):
    assert cell_of(text) == text


@given(st.text(max_size=5))
def test_no_cell_begins_with_a_sign_of_a_formula_in_any_width(text):
    assert unicodedata.normalize("NFKC", cell_of(text)[:1]) not in tuple("=+-@\t\r\n")
