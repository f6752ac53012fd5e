"""Addresses of a record that is filled again, places that go with them, and facts in fields."""

from dataclasses import replace

import pytest

from anchorline.core.address import Address, Facts
from anchorline.core.forms import (
    Position,
    check_submission,
    find_or_captured,
    kept_as_before,
    read_form,
)
from anchorline.core.forms.captured import Captured
from anchorline.core.forms.position import kept_position
from anchorline.core.forms.slot_settings import SlotMap, SlotSettings
from anchorline.core.mapping import FACTS, KnownAddress
from anchorline.core.sphere import metres_between

HERE = Facts(51.5, -2.75, "business", ("en", "cy"))
KEPT = Captured(
    "home",
    "GB",
    {"street": "Abbey Mews", "number": "16"},
    HERE,
    "d:1",
    "demo@1",
    "abb",
    ("home_unit",),
)
ADDRESS = Address("d:1", {"street": "Abbey Mews", "country_code": "GB"}, HERE)


def test_an_address_that_no_edition_has_any_more_is_found_as_it_was_captured():
    find = find_or_captured(lambda _id: None, [KEPT])
    assert find("d:1") == (Address("d:1", KEPT.components, HERE), "demo@1")
    assert find("d:2") is None


def test_an_address_that_is_still_there_is_found_as_it_is_now():
    assert find_or_captured(lambda _id: (ADDRESS, "demo@2"), [KEPT])("d:1") == (ADDRESS, "demo@2")


@pytest.fixture
def form(layouts):
    slot = {"key": "home", "label": "Home", "countries": ["GB"],
            "parts": [{"key": "home_street", "component": "street"}],
            "mapping": [{"components": ["street"], "into": "home_street"}]}  # fmt: skip
    return read_form({"key": "f", "kind": "record", "title": "F", "slots": [slot]}, layouts)


OLD = {"home_street": "Abbey Mews", "name": "Ada"}


def test_what_nobody_touched_stays_as_it_was_captured_also_where_an_edition_says_more_by_now(form):
    components = {**KEPT.components, "district": "Northside"}
    now = replace(KEPT, components=components, edition="demo@2", typed="16", changed=("home_unit",))
    assert kept_as_before(form, [KEPT], [now], OLD, {**OLD, "name": "Eva"}) == [KEPT]


def test_a_pin_that_was_moved_is_no_address_that_nobody_touched(form):
    now = replace(KEPT, position=Position(1.0, 2.0, "pin"))
    assert kept_as_before(form, [KEPT], [now], OLD, OLD) == [now]


def test_what_was_changed_once_stays_named(form):
    now = replace(
        KEPT, components={"street": "Abbey Lane"}, changed=("home_street",), edition="demo@2"
    )
    (joined,) = kept_as_before(form, [KEPT], [now], OLD, {"home_street": "Abbey Lane"})
    assert joined.changed == ("home_unit", "home_street")
    assert joined.components == {"street": "Abbey Lane"}


@pytest.mark.parametrize("now", [
    replace(KEPT, address_id="d:2"), replace(KEPT, slot="work"),
    replace(KEPT, address_id=None, components={}),
])  # fmt: skip
def test_another_address_is_kept_as_it_is_now(form, now):
    assert kept_as_before(form, [KEPT], [now], OLD, {}) == [now]


def test_a_pin_is_kept_with_its_distance_where_there_is_a_map():
    pin = Position(51.5001, -2.75, "pin")
    kept = kept_position(pin, SlotSettings(map=SlotMap()), HERE)
    assert kept == replace(pin, distance_m=11)
    assert kept_position(pin, SlotSettings(location=True, keeps_position=True), HERE) is None


def test_where_a_person_is_is_kept_where_the_form_says_so_alone():
    device = Position(51.5, -2.75, "device", 12.0)
    assert kept_position(device, SlotSettings(location=True, map=SlotMap()), HERE) is None
    kept = kept_position(device, SlotSettings(location=True, keeps_position=True), Facts())
    assert kept == device


def test_distances_are_those_of_a_sphere():
    assert metres_between(51.5, -2.75, 51.5, -2.75) == 0
    assert metres_between(0, 0, 0, 1) == 111195
    assert metres_between(0, 179.5, 0, -179.5) == 111195


def test_every_fact_is_a_text(layouts):
    components = {
        "number": "16",
        "street": "Abbey Mews",
        "town": "Brackwater",
        "country_code": "GB",
    }
    known = KnownAddress(components, layouts.require("GB"), HERE, "d:1")
    texts = {name: known.fact(name) for name in FACTS}
    assert texts == {
        "latitude": "51.5", "longitude": "-2.75", "use": "business", "languages": "en, cy", "id": "d:1",
        "line": "16 Abbey Mews, Brackwater", "lines": "16 Abbey Mews\nBRACKWATER",
    }  # fmt: skip


def test_where_nothing_is_known_facts_are_empty(layouts):
    known = KnownAddress({"country_code": "GB"}, layouts.require("GB"))
    assert {known.fact(name) for name in FACTS} == {""}


def test_an_address_that_was_typed_into_lines_is_kept_by_its_components(layouts):
    slot = {
        "key": "s", "label": "S", "countries": ["GB"],
        "parts": [{"key": "a", "label": "A"}, {"key": "b", "label": "B"},
                  {"key": "pc", "component": "postcode"}],
        "mapping": [{"fit": {"into": ["a", "b"], "width": 35}},
                    {"components": ["postcode"], "into": "pc"}],
    }  # fmt: skip
    form = read_form(
        {"key": "f", "kind": "record", "title": "F", "fields": [], "slots": [slot]}, layouts
    )
    typed = {"a": "12 Mill Lane", "b": "Brackwater", "pc": "qv1 4ab"}
    checked = check_submission(form, typed, {}, layouts, lambda _id: None, 0)
    assert not checked.problems
    (captured,) = checked.captured
    assert captured.components == {
        "number": "12", "street": "Mill Lane", "town": "Brackwater", "postcode": "QV1 4AB",
        "country": "United Kingdom", "country_code": "GB",
    }  # fmt: skip
