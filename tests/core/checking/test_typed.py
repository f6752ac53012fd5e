import pytest
from hypothesis import given
from hypothesis import strategies as st

from anchorline.core.checking import components_from_text, number_left_over
from anchorline.core.layouts import shipped_layouts
from anchorline.core.text import compact, tokens


@pytest.mark.parametrize(
    ("country", "typed", "components"),
    [
        ("GB", "", {}),
        ("GB", " , ,", {}),
        ("GB", "mill lane", {"street": "mill lane"}),
        ("GB", "41 mill lane", {"number": "41", "street": "mill lane"}),
        ("GB", "41a Mill Lane, Brackwater",
         {"number": "41a", "street": "Mill Lane", "town": "Brackwater"}),
        ("GB", "qv14ab", {"postcode": "QV1 4AB"}),
        ("GB", "41 mill lane brackwater qv1 4ab",
         {"number": "41", "street": "mill lane brackwater", "postcode": "QV1 4AB"}),
        ("GB", "Flat 3, 41 Mill Lane, Far End, Brackwater, QV1 4AB, United Kingdom",
         {"unit": "Flat 3", "number": "41", "street": "Mill Lane", "district": "Far End",
          "town": "Brackwater", "postcode": "QV1 4AB"}),
        ("GB", "Flat, Brackwater", {"street": "Flat", "town": "Brackwater"}),
        ("PL", "m. 3, Zielona 12, Filno",
         {"unit": "m. 3", "street": "Zielona", "number": "12", "town": "Filno"}),
        ("DE", "Griernstraße 12 b", {"street": "Griernstraße 12 b"}),
        ("DE", "Griernstraße 12, 10115 Filberg",
         {"street": "Griernstraße", "number": "12", "postcode": "10115", "town": "Filberg"}),
        ("DE", "10115 Filberg", {"postcode": "10115", "street": "Filberg"}),
        ("US", "12345 Main St, Cedarton, AL 00011",
         {"number": "12345", "street": "Main St", "town": "Cedarton", "region": "Alabama",
          "region_code": "AL", "postcode": "00011"}),
        ("FR", "3-5 rue Verte\n00120 Vaubrac",
         {"number": "3-5", "street": "rue Verte", "postcode": "00120", "town": "Vaubrac"}),
        ("HK", "12 Long Road, Kowloon",
         {"number": "12", "street": "Long Road", "region": "九龍", "region_code": "KL"}),
    ],
)  # fmt: skip
def test_a_typed_text_is_laid_into_components_as_its_country_writes_them(
    layouts, country, typed, components
):
    assert components_from_text(layouts.require(country), typed) == components


WORDS = st.lists(
    st.text(alphabet="abZé12,-/ 99", min_size=1, max_size=8), min_size=0, max_size=12
).map(" ".join)


@given(WORDS, st.sampled_from(["GB", "DE", "US", "JP", "IE", "HK", "EG"]))
def test_nothing_that_was_typed_is_lost(typed, country):
    found = components_from_text(shipped_layouts().require(country), typed)
    assert all(value.strip() for value in found.values())
    there = compact("".join(found.values()))
    assert all(token in there for token in tokens(typed))


@pytest.mark.parametrize(
    ("country", "typed", "number"),
    [
        ("GB", "41 mill lane", "41"),
        ("GB", "mill lane 41b", "41b"),
        ("GB", "mill lane", ""),
        ("GB", "41 mill lane qv1 4ab", "41"),
        ("GB", "mill lane qv1 4ab", ""),
        ("DE", "Griernstr. 3-5 10115", "3-5"),
        ("GB", "2 mill 2 lane", "2"),
        ("GB", "", ""),
    ],
)
def test_a_number_that_the_group_does_not_have_is_left_over(layouts, country, typed, number):
    known = {"street": "Mill Lane", "town": "Brackwater"}
    assert number_left_over(layouts.require(country), typed, known) == number


def test_a_number_in_the_name_of_the_street_is_not_left_over(layouts):
    known = {"street": "22 March Street", "town": "Brackwater"}
    assert number_left_over(layouts.require("GB"), "22 march 7", known) == "7"
