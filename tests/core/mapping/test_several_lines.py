"""Fields of several lines, and the law that a part of an address is written once."""

from collections import Counter

import pytest
from hypothesis import given
from hypothesis import strategies as st

from anchorline.core.address import COMPONENTS
from tests.desk.addresses import ADDRESSES

from .filling import address, filled, warned

FLAT = {
    "unit": "Flat 3", "building": "Rowan Court", "number": "12a", "street": "Mill Lane",
    "town": "Marl", "postcode": "QV1 4AB",
}  # fmt: skip
REST = [{"fit": {"into": ["box"]}}]
# Every way in which a source takes what is left, beside another that takes what is left as well.
LEFT_TO_BOTH = [
    [{"lines": "street", "into": "street"}, {"fit": {"into": ["rest", "rest2"], "width": 60}}],
    [{"fit": {"into": ["rest", "rest2"], "width": 60}}, {"lines": "street", "into": "street"}],
    [{"lines": "street", "into": "street"}, *REST],
    [{"fit": {"into": ["rest"], "width": 40}}, *REST],
    [{"components": ["town"], "into": "town"}, {"lines": "street", "into": "street"}, *REST],
]


def box(rules, components, country="GB", **more):
    return filled(rules, address(components, country), several_lines=["box"], **more)


def test_a_field_of_lines_gets_the_country_s_own():
    made = box(REST, FLAT)
    assert made.values["box"] == "Flat 3, Rowan Court\n12a Mill Lane\nMarl\nQV1 4AB"
    assert made.carried == FLAT.keys()


@pytest.mark.parametrize(
    ("settings", "text"),
    [
        ({"lines": 4}, "Flat 3, Rowan Court\n12a Mill Lane\nMarl\nQV1 4AB"),
        ({"lines": 3}, "Flat 3, Rowan Court\n12a Mill Lane\nMarl, QV1 4AB"),
        ({"lines": 2, "width": 40}, "Flat 3, Rowan Court\n12a Mill Lane, Marl, QV1 4AB"),
        ({"lines": 1}, "Flat 3, Rowan Court, 12a Mill Lane, Marl, QV1 4AB"),
        ({"fewest": True, "width": 60}, "Flat 3, Rowan Court, 12a Mill Lane, Marl, QV1 4AB"),
        ({"width": 12}, "Flat 3\nRowan Court\n12a Mill Ln\nMarl\nQV1 4AB"),
    ],
)
def test_lines_are_joined_or_broken_only_where_there_is_no_room_for_them(settings, text):
    assert box([{"fit": {"into": ["box"], **settings}}], FLAT).values["box"] == text


def test_what_finds_no_room_in_so_many_lines_is_said():
    made = box([{"fit": {"into": ["box"], "lines": 2, "width": 12}}], FLAT)
    assert made.values["box"].count("\n") == 1
    assert any("no room for" in one for one in warned(made))


def test_rules_put_their_lines_behind_each_other_and_an_empty_one_leaves_no_blank_line():
    rules = [
        {"lines": "street", "into": "box"},
        {"components": ["district"], "into": "box", "if_written": "append", "join": "\n"},
        {"components": ["town"], "into": "box", "if_written": "append", "join": "\n"},
    ]
    mill = {"number": "4", "street": "Mill Lane", "town": "Marl"}
    assert box(rules, mill).values["box"] == "4 Mill Lane\nMarl"
    assert box(rules, {"town": "Marl"}).values["box"] == "Marl"
    rules[1]["keeps_place"] = True
    assert box(rules, mill).values["box"] == "4 Mill Lane\n\nMarl"
    rules[0]["keeps_place"] = True
    assert box(rules, {"town": "Marl"}).values["box"] == "\n\nMarl"


@pytest.mark.parametrize("rules", LEFT_TO_BOTH)
@given(at=st.integers(0, len(ADDRESSES) - 1), data=st.data())
def test_what_one_rule_has_taken_another_that_takes_the_rest_does_not_take_again(rules, at, data):
    country, whole = ADDRESSES[at]
    names = data.draw(st.sets(st.sampled_from(sorted(whole)), min_size=1))
    known = address({name: whole[name] for name in names}, country)
    made = filled(rules, known, several_lines=["box"])
    assert_written_once(made)


def assert_written_once(made):
    """No component stands in what two rules have written."""
    rules_of = {
        (name, step.rule)
        for step in made.trace
        if step.kind in ("wrote", "appended", "replaced")
        for name in step.sources
    }
    twice = [name for name, count in Counter(name for name, _ in rules_of).items() if count > 1]
    assert not twice, (twice, made.values)


def test_the_law_knows_a_breach():
    rules = [{"lines": "all", "into": "a"}, {"components": ["town"], "into": "b"}]
    with pytest.raises(AssertionError, match="town"):
        assert_written_once(filled(rules, address(FLAT)))


def test_of_what_is_left_to_a_rule_nothing_is_called_untaken():
    odd = {name: name.title() for name in COMPONENTS if name not in ("country", "country_code")}
    for rules in (REST, [{"components": ["town"], "into": "t"}, *REST]):
        made = filled(rules, address(odd), several_lines=["box"])
        assert [step for step in made.trace if step.kind == "not_taken"] == []
