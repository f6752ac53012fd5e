"""Page targets: read from documents, with what is wrong at its place; paths by patterns."""

import json
import re
from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st

from anchorline.core.layouts import shipped_layouts
from anchorline.core.targets.pages import matches_path, read_page_target
from anchorline.core.targets.pages.page import Way

LAYOUTS = shipped_layouts()
PATHS = json.loads((Path(__file__).parents[2] / "vectors/paths.json").read_text())
STREET = {"key": "street", "label": "Street", "find": [{"name": "s"}]}
DELIVERY = {
    "key": "delivery", "label": "Delivery", "countries": ["GB"], "finder": {"at": "street"},
    "mapping": [{"lines": "street", "into": "street"}],
}  # fmt: skip


def document(**changes):
    return {
        "key": "shop", "kind": "page", "title": "Shop", "origins": ["https://Shop.example:443/"],
        "paths": ["/checkout*"], "fields": [STREET], "addresses": [DELIVERY], **changes,
    }  # fmt: skip


def problems(**changes):
    return {one.pointer: one.detail for one in read_page_target(document(**changes), LAYOUTS)[1]}


@pytest.mark.parametrize(("pattern", "path", "matches"), PATHS)
def test_a_path_is_as_a_pattern_has_it(pattern, path, matches):
    assert matches_path(pattern, path) == matches


@given(st.text("ab*/", max_size=6), st.text("ab/", max_size=8))
def test_patterns_are_those_of_plain_wildcards(pattern, path):
    wanted = ".*".join(map(re.escape, pattern.split("*")))
    assert matches_path(pattern, path) == bool(re.fullmatch(wanted, path))


def test_a_target_is_read_with_its_fields_and_addresses():
    target, faults = read_page_target(document(), LAYOUTS)
    assert not faults
    assert target.origins == ("https://shop.example",)
    assert (target.fields[0].ways, target.fields[0].writes) == ((Way("name", "s"),), "any")
    assert (target.addresses[0].sits, target.addresses[0].at) == ("before", "street")
    assert [rule.into for rule in target.address("delivery").mapping] == [("street",)]
    assert target.address("billing") is None


@pytest.mark.parametrize(
    ("changes", "pointer", "detail"),
    [
        ({"origins": []}, "/origins", "such as https://shop.example"),
        ({"origins": ["shop.example"]}, "/origins/0", "no web origin"),
        ({"paths": ["checkout"]}, "/paths/0", "write /checkout"),
        ({"addresses": []}, "/addresses", "Say which address"),
        ({"fields": [STREET | {"find": []}]}, "/fields/0/find", "css, name, id"),
        ({"fields": [STREET | {"find": [{"name": "a", "id": "b"}]}]}, "/fields/0/find/0", "one way"),
        ({"fields": [STREET | {"find": [{"autocomplete": "postcode"}]}]},
         "/fields/0/find/0/autocomplete", "Did you mean postal-code"),
        ({"fields": [STREET | {"writes": "number"}]}, "/fields/0/writes", "way to choose"),
        ({"fields": [STREET, STREET]}, "/fields", "used 2 times"),
        ({"addresses": [DELIVERY | {"finder": {"at": "stret"}}]}, "/addresses/0/finder/at",
         "Did you mean street"),
        ({"addresses": [DELIVERY | {"finder": {}}]}, "/addresses/0/finder/at", "such as street"),
        ({"addresses": [DELIVERY | {"finder": {"at": "street", "sits": "above"}}]},
         "/addresses/0/finder/sits", "place of the finder"),
        ({"addresses": [DELIVERY | {"countries": ["UK"]}]}, "/addresses/0/countries/0", "GB"),
        ({"addresses": [DELIVERY | {"mapping": [{"components": ["strete"], "into": "street"}]}]},
         "/addresses/0/mapping/0/components/0", "Did you mean street"),
    ],
)  # fmt: skip
def test_what_is_wrong_is_said_at_its_place(changes, pointer, detail):
    assert detail in problems(**changes)[pointer]
