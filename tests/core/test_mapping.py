import pytest
from hypothesis import given
from hypothesis import strategies as st

from anchorline.core.address import COMPONENTS
from anchorline.core.forms import read_form
from anchorline.core.layouts import shipped_layouts
from anchorline.core.mapping import fill_slot
from anchorline.core.mapping.changes import ascii_letters, shorten

TEXT = st.text(alphabet="abc é,", max_size=12)
ADDRESSES = st.dictionaries(st.sampled_from(COMPONENTS), TEXT, max_size=10)


def form_with(mapping, **lengths):
    keys = sorted({rule["into"] for rule in mapping})
    return read_form(
        {
            "key": "f",
            "kind": "record",
            "title": "F",
            "fields": [{"key": k, "label": k, "max_length": lengths.get(k, 200)} for k in keys],
            "slots": [{"key": "s", "label": "S", "countries": ["GB"], "mapping": mapping}],
        },
        shipped_layouts(),
    )


def fill(mapping, components, before=None, **lengths):
    form = form_with(mapping, **lengths)
    return fill_slot(form, form.slots[0], components, before or {})


def test_components_are_joined_and_empty_ones_leave_no_trace():
    mapping = [{"components": ["unit", "building", "street"], "join": ", ", "into": "line"}]
    assert fill(mapping, {"unit": "Flat 3", "street": "Abbey Lane"}).values == {
        "line": "Flat 3, Abbey Lane"
    }
    assert fill(mapping, {"building": " "}).values == {"line": ""}


def test_every_owned_field_is_cleared_first_and_named_where_it_stays_empty():
    mapping = [{"components": ["unit"], "into": "a"}, {"components": ["town"], "into": "b"}]
    filled = fill(mapping, {"town": "Marl"}, {"a": "Flat 9", "b": "Old"})
    assert filled.values == {"a": "", "b": "Marl"}
    assert filled.cleared == ["a"]
    assert filled.trace[0].detail == "cleared what stood there: Flat 9"


def test_the_first_rule_with_something_to_say_keeps_the_field():
    mapping = [{"components": ["po_box"], "into": "a"}, {"components": ["street"], "into": "a"}]
    assert fill(mapping, {"street": "S"}).values == {"a": "S"}
    both = fill(mapping, {"street": "S", "po_box": "12"})
    assert both.values == {"a": "12"}
    assert "an earlier rule" in both.trace[-1].detail


def test_changes_are_made_in_order_and_what_is_cut_is_said():
    mapping = [{"components": ["street"], "into": "a", "changes": ["ascii", "upper", "shorten"]}]
    filled = fill(mapping, {"street": "Größwein Straße am Wehr"}, a=16)
    assert filled.values == {"a": "GROSSWEIN"}
    assert filled.warnings == ["a: shortened to 16 characters, without 'STRASSE AM WEHR'"]


def test_text_too_long_for_the_field_is_kept_and_said():
    filled = fill([{"components": ["street"], "into": "a"}], {"street": "x" * 12}, a=10)
    assert filled.values == {"a": "x" * 12}
    assert filled.warnings == ["a: 12 characters, the field takes 10"]


@pytest.mark.parametrize(
    ("text", "length", "short"),
    [
        ("Abbey Lane", 10, "Abbey Lane"),
        ("Abbey Lane", 9, "Abbey"),
        ("Abbey Lane", 5, "Abbey"),
        ("Abbey Lane", 6, "Abbey"),
        ("Abbey Lane", 4, "Abbe"),
        (" Abbey Lane", 3, " Ab"),
        ("Abbey Mill Lane", 10, "Abbey Mill"),
        ("Abbey Mill Lane", 11, "Abbey Mill"),
        ("Abbey, Lane", 7, "Abbey"),
        ("Abbeylane", 4, "Abbe"),
        ("Abbey", None, "Abbey"),
    ],
)
def test_shortening_cuts_at_a_word(text, length, short):
    assert shorten(text, length) == short


@given(st.text(max_size=40), st.integers(1, 20))
def test_shortened_text_fits_and_is_a_beginning(text, length):
    short = shorten(text, length)
    assert len(short) <= length
    assert text.startswith(short)


@given(st.text(max_size=30))
def test_plain_letters_are_left_alone_and_marks_taken_off(text):
    assert ascii_letters("Größe ÅØÆ 東", None) == "Grosse AOAe 東"
    once = ascii_letters(text, None)
    assert ascii_letters(once, None) == once


@given(ADDRESSES, ADDRESSES)
def test_filling_twice_leaves_no_part_of_the_first_address(first, second):
    mapping = [{"components": [name], "into": f"f_{name}"} for name in COMPONENTS]
    before = fill(mapping, first).values
    after = fill(mapping, second, before)
    assert after.values == fill(mapping, second).values
    assert set(after.cleared) == {k for k, v in after.values.items() if not v}
