import pytest
from hypothesis import given
from hypothesis import strategies as st

from anchorline.core.address import COMPONENTS
from anchorline.core.mapping import Receiver, fill, mapping_fills
from anchorline.core.mapping.back import back

from .filling import LAYOUTS, address, rules_of

MILL = {"number": "12a", "street": "Mill Lane", "town": "Marl", "postcode": "QV1 4AB"}
HERE = frozenset({"country", "country_code"})


def there_and_back(entries, components, country="GB"):
    rules = rules_of(entries)
    receivers = {key: Receiver(key, key) for key in mapping_fills(entries)}
    made = fill(rules, receivers, address(components, country))
    found = back(rules, receivers, made.values, LAYOUTS.require(country), LAYOUTS)
    return found, {n: t for n, t in found.components.items() if n not in HERE}


# Texts as addresses have them: no blanks at their ends or two beside each other.
WORDS = st.text(alphabet="abÉ12,-", min_size=1, max_size=6)
ADDRESSES = st.dictionaries(
    st.sampled_from([name for name in COMPONENTS if name not in HERE]),
    st.lists(WORDS, min_size=1, max_size=3).map(" ".join),
    max_size=10,
)


@given(ADDRESSES, st.randoms())
def test_filling_and_going_back_is_the_same_address_where_nothing_is_lost(components, random):
    names = [name for name in COMPONENTS if name not in HERE]
    random.shuffle(names)
    entries = [{"components": [name], "into": f"f_{name}"} for name in names]
    found, came_back = there_and_back(entries, components)
    assert came_back == components
    assert found.differing == ()


@pytest.mark.parametrize(
    ("country", "entries", "components"),
    [
        ("GB", [{"components": ["number", "street"], "into": "a"},
                {"components": ["town"], "into": "b"}], {"number": "12a", "street": "Mill Lane", "town": "Marl"}),
        ("DE", [{"components": ["street", "number"], "into": "a"}],
         {"street": "Am Mühlweg", "number": "12"}),
        ("GB", [{"components": ["town", "district"], "join": ", ", "into": "a"}],
         {"town": "Marl", "district": "Upper End"}),
        ("US", [{"components": ["region"], "into": "a", "changes": [{"region": "code"}]}],
         {"region": "California"}),
        ("GB", [{"lines": "street", "into": "a"}, {"components": ["town"], "into": "b"}],
         {"number": "12a", "street": "Mill Lane", "town": "Marl"}),
        ("GB", [{"fit": {"into": ["a", "b"], "width": 30}}], MILL),
    ],
)  # fmt: skip
def test_what_was_joined_is_read_as_its_country_writes_it(country, entries, components):
    found, came_back = there_and_back(entries, components, country)
    assert {n: came_back.get(n) for n in components} == components
    assert found.differing == ()


def test_what_comes_out_otherwise_is_named():
    entries = [{"components": ["town"], "into": "a", "changes": [{"first": 3}]}]
    found, came_back = there_and_back(entries, {"town": "Marling"})
    assert (came_back, found.differing) == ({}, ("a",))


def test_capitals_come_back_in_capitals_and_do_not_differ():
    entries = [{"components": ["town"], "into": "a", "changes": ["upper"]}]
    found, came_back = there_and_back(entries, {"town": "Marl"})
    assert (came_back, found.differing) == ({"town": "MARL"}, ())
