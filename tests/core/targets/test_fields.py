"""What a field can hold: options, pieces, lengths. Pages are held to the same vectors (embed/test)."""

import json
from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st

from anchorline.core.faults import Faults
from anchorline.core.targets.fields import length_of, read_field
from anchorline.core.targets.options import Option, fitting, plain
from anchorline.core.targets.pieces import joined, split

VECTORS = Path(__file__).parents[2] / "vectors"
OPTIONS = json.loads((VECTORS / "options.json").read_text("utf-8"))
PIECES = json.loads((VECTORS / "pieces.json").read_text("utf-8"))


@pytest.mark.parametrize("case", OPTIONS, ids=lambda case: f"{case['text']}-{case['writes']}")
def test_an_option_is_meant_by_its_value_its_text_or_a_word_in_one_of_them(case):
    options = [Option(*one) for one in case["options"]]
    found = fitting(options, case["text"], case["writes"])
    assert (found.value if found else None) == case["value"]


@pytest.mark.parametrize(("text", "lengths", "pieces"), PIECES)
def test_a_text_is_split_by_its_own_groups_or_by_the_lengths(text, lengths, pieces):
    assert split(text, lengths) == pieces


@given(
    st.text("AB12 -", max_size=12), st.lists(st.integers(1, 5) | st.none(), min_size=2, max_size=4)
)
def test_splitting_loses_no_character(text, lengths):
    pieces = split(text, lengths)
    assert len(pieces) == len(lengths)
    assert plain(joined(pieces)) == plain(text)


def test_a_list_refuses_what_it_has_no_option_for():
    entry = {"key": "c", "type": "list", "options": [{"value": "GB", "text": "United Kingdom"}]}
    field = read_field(entry, "", Faults())
    assert field.refuses("GB") == field.refuses("") == ""
    assert field.refuses("Ireland") == "It has no option for “Ireland”."
    unknown = read_field({"key": "c", "type": "list"}, "", Faults())
    assert unknown.refuses("Ireland") == "", "of a list whose options nobody knows nothing is said"


@pytest.mark.parametrize(
    ("entry", "length"),
    [
        ({"max_length": 8}, 8),
        ({}, None),
        ({"pieces": [{"max_length": 3}, {"max_length": 4}]}, 8),
        ({"pieces": [{"max_length": 3}, {}], "max_length": 9}, 9),
    ],
)
def test_a_split_field_takes_what_its_pieces_take_and_what_stands_between(entry, length):
    assert length_of(entry) == length
