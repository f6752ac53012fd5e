from dataclasses import replace

import pytest

from anchorline.core.address import Address, Facts
from anchorline.core.errors import DocumentError
from anchorline.core.forms import (
    SlotInput,
    fit_problems,
    read_form,
    with_brought_parts,
)
from anchorline.core.layouts.own import LayoutsInForce, Published, read_own_layout
from tests.core.form_checking import capture_slots, check_values

DOCUMENT = {
    "key": "visit",
    "kind": "web",
    "title": "Visit",
    "fields": [
        {"key": "name", "label": "Name", "required": True, "max_length": 10},
        {"key": "age", "label": "Age", "type": "number"},
        {"key": "day", "label": "Day", "type": "date"},
        {"key": "mail", "label": "Mail", "type": "email"},
        {"key": "phone", "label": "Phone", "type": "phone"},
        {"key": "kind", "label": "Kind", "type": "choice", "options": [{"value": "a"}]},
        {"key": "other", "label": "Other?", "type": "yes_no"},
        {"key": "note", "label": "Note", "type": "long_text"},
        {"slot": "home"},
        {"slot": "bill"},
    ],
    "slots": [
        {
            "key": "home",
            "label": "Home",
            "countries": ["GB", "US"],
            "parts": [
                {"key": f"home_{c}", "component": c}
                for c in ("number", "street", "town", "region_code", "postcode")
            ],
            "mapping": [
                {"components": [c], "into": f"home_{c}"}
                for c in ("number", "street", "town", "region_code", "postcode")
            ],
        },
        {
            "key": "bill",
            "label": "Bill",
            "countries": ["GB"],
            "shown_when": "other",
            "parts": [{"key": "bill_street", "component": "street"}],
            "mapping": [{"components": ["street"], "into": "bill_street"}],
        },
    ],
}
ABBEY = Address(
    "d:1",
    {"number": "12", "street": "Abbey Lane", "town": "Marl", "postcode": "QV1 4AB",
     "country_code": "GB"},
    Facts(52.0, -1.0, "residential", ("en",)),
)  # fmt: skip
FILLED = {
    "name": "Ada",
    "home_number": "12",
    "home_street": "Abbey Lane",
    "home_town": "Marl",
    "home_postcode": "QV1 4AB",
}


@pytest.fixture
def form(layouts):
    return read_form(DOCUMENT, layouts)


def find(address_id):
    return (ABBEY, "d@3") if address_id == "d:1" else None


@pytest.mark.parametrize(
    ("change", "pointer", "detail"),
    [
        ({"kind": "wab"}, "/kind", "no kind of form 'wab'. Did you mean web"),
        ({"key": "Bad Key"}, "/key", "cannot be a key"),
        ({"fields": [{"slot": "hom"}]}, "/fields/0/slot", "no slot 'hom'. Did you mean home"),
        ({"fields": [{"key": "x", "type": "txt", "label": "X"}]}, "/fields/0/type", "Did you mean text"),
        ({"fields": [{"key": "x"}]}, "/fields/0/label", "Give the field a label"),
        ({"fields": [{"key": "x", "label": "X", "type": "choice"}]}, "/fields/0/options", "at least one"),
        ({"fields": [{"key": "x", "label": "X"}, {"key": "x", "label": "Y"}]}, "/fields", "used 2 times"),
        ({"fields": [{"key": "x", "label": "X", "shown_when": "y = 1"}]},
         "/fields/0/shown_when", "no field “y”"),
    ],
)  # fmt: skip
def test_a_faulty_document_says_where_and_what(layouts, change, pointer, detail):
    with pytest.raises(DocumentError) as caught:
        read_form({**DOCUMENT, **change}, layouts)
    assert any(p.pointer == pointer and detail in p.detail for p in caught.value.problems), (
        caught.value.problems
    )


@pytest.mark.parametrize(
    ("change", "pointer", "detail"),
    [
        ({"countries": ["GX"]}, "/slots/0/countries/0", "no layout for country 'GX'"),
        ({"country": "FR"}, "/slots/0/country", "no country of this slot 'FR'"),
        ({"kinds": ["strete"]}, "/slots/0/kinds/0", "Did you mean street"),
        ({"mapping": [{"components": ["strete"], "into": "home_street"}]},
         "/slots/0/mapping/0/components/0", "Did you mean street"),
        ({"mapping": [{"components": ["street"], "into": "home_stret"}]},
         "/slots/0/mapping/0/into", "Did you mean home_street"),
        ({"mapping": [{"components": ["street"], "into": "name", "changes": ["uper"]}]},
         "/slots/0/mapping/0/changes/0", "Did you mean upper"),
        ({"parts": [{"key": "p", "component": "zip"}]}, "/slots/0/parts/0/component", "no component"),
    ],
)  # fmt: skip
def test_a_faulty_slot_says_where_and_what(layouts, change, pointer, detail):
    slots = [{**DOCUMENT["slots"][0], **change}, DOCUMENT["slots"][1]]
    with pytest.raises(DocumentError) as caught:
        read_form({**DOCUMENT, "slots": slots}, layouts)
    assert any(p.pointer == pointer and detail in p.detail for p in caught.value.problems), (
        caught.value.problems
    )


@pytest.mark.parametrize(
    ("key", "value", "kept"),
    [
        ("name", " Ada ", "Ada"),
        ("name", "=1+1<b>", "=1+1<b>"),
        ("age", "12", 12),
        ("age", 12.5, 12.5),
        ("name", "x" * 10, "x" * 10),
        ("day", "2028-02-29", "2028-02-29"),
        ("day", "2000-02-29", "2000-02-29"),
        ("day", "0001-01-01", "0001-01-01"),
        ("day", "9999-12-31", "9999-12-31"),
        ("phone", "+44 20 7946 0123", "+442079460123"),
        ("age", 2**53 - 1, 2**53 - 1),
        ("age", "12.0", 12),
        ("mail", "ada@example.org", "ada@example.org"),
        ("other", True, True),
        ("note", "two\nlines", "two\nlines"),
    ],
)
def test_good_values_are_kept_as_given(form, key, value, kept):
    values, problems = check_values(form, {"name": "Ada", key: value})
    assert problems == []
    assert (values[key], type(values[key])) == (kept, type(kept))


def test_a_whole_number_that_a_float_cannot_tell_from_its_neighbour_stays_one(form):
    values, _ = check_values(form, {"name": "Ada", "age": float(2**53 - 1)})
    assert type(values["age"]) is int
    for beyond in (2.0**53, -(2.0**53), 1e300):
        values, _ = check_values(form, {"name": "Ada", "age": beyond})
        assert (values["age"], type(values["age"])) == (beyond, float)


@pytest.mark.parametrize(
    ("key", "value", "detail"),
    [
        ("name", "", "This is needed."),
        ("name", "x" * 11, "11 characters long; at most 10"),
        ("name", "a\x00", "cannot be shown"),
        ("name", "a\nb", "one line only"),
        ("name", 5, "Give text here."),
        ("age", "twelve", "not a number"),
        ("age", True, "Give a number"),
        ("age", "nan", "ordinary number"),
        ("day", "2027-02-29", "not a date"),
        ("day", "1900-02-29", "not a date"),
        ("day", "0000-01-01", "not a date"),
        ("day", "2027-13-01", "not a date"),
        ("day", "2027-04-31", "not a date"),
        ("day", "31.12.2027", "not a date"),
        ("day", "20271231", "not a date"),
        ("day", "2027-W01-1", "not a date"),
        ("day", "٢٠٢٧-٠١-٠١", "not a date"),
        ("phone", "+441234", "not a phone number"),
        ("mail", "ada@", "not an e-mail"),
        ("phone", "+12", "not a phone number"),
        ("kind", "b", "no choice 'b'"),
        ("other", "yes", "true or false"),
        ("nane", "x", "no field 'nane'. Did you mean name"),
    ],
)
def test_bad_values_are_problems_at_their_field(form, key, value, detail):
    _, problems = check_values(form, {"name": "Ada", key: value})
    assert [p.pointer for p in problems] == [f"/values/{key}"]
    assert detail in problems[0].detail


def test_values_of_hidden_fields_are_left_out(form):
    values, problems = check_values(form, {"name": "Ada", "bill_street": "X"})
    assert (values, problems) == ({"name": "Ada"}, [])


def test_a_picked_address_is_captured_with_its_origin(form, layouts):
    values = dict(FILLED)
    inputs = {"home": SlotInput("GB", "d:1", "12 abb")}
    (captured,), problems = capture_slots(form, values, inputs, layouts, find)
    assert problems == []
    assert captured.components["street"] == "Abbey Lane"
    assert captured.components["country"] == "United Kingdom"
    assert (captured.address_id, captured.edition, captured.typed) == ("d:1", "d@3", "12 abb")
    assert captured.changed == ()
    assert captured.facts.latitude == 52.0


def test_what_was_changed_by_hand_is_named_and_kept(form, layouts):
    values = {**FILLED, "home_number": "12a"}
    inputs = {"home": SlotInput("GB", "d:1")}
    (captured,), _ = capture_slots(form, values, inputs, layouts, find)
    assert captured.changed == ("home_number",)
    assert captured.components["number"] == "12a"


def test_an_address_typed_by_hand_is_captured_in_canonical_spelling(form, layouts):
    values = {**FILLED, "home_postcode": "qv14ab"}
    (captured,), problems = capture_slots(form, values, {"home": SlotInput("GB")}, layouts, find)
    assert problems == []
    assert captured.address_id is None
    assert captured.components["postcode"] == values["home_postcode"] == "QV1 4AB"


@pytest.mark.parametrize(
    ("values", "inputs", "pointer", "detail"),
    [
        ({"name": "A"}, {}, "/slots/home", "Home: an address is needed."),
        (
            FILLED | {"home_postcode": "1"},
            {"home": SlotInput("GB")},
            "/values/home_postcode",
            "is not a Postcode",
        ),
        (FILLED, {}, "/slots/home/country_code", "of which country the address is: one of GB, US"),
        (FILLED, {"home": SlotInput("FR")}, "/slots/home/country_code", "no country of this slot"),
        (FILLED, {"home": SlotInput("GB", "d:9")}, "/slots/home/address_id", "no address 'd:9'"),
        (FILLED, {"home": SlotInput("US", "d:1")}, "/slots/home/address_id", "is in GB, not in US"),
        (FILLED, {"hom": SlotInput()}, "/slots/hom", "Did you mean home"),
        (FILLED, {"home": SlotInput("US")}, "/values/home_region_code", "needs a State"),
    ],
)
def test_a_slot_that_is_wrong_says_where(form, layouts, values, inputs, pointer, detail):
    _, problems = capture_slots(form, dict(values), inputs, layouts, find)
    assert any(p.pointer == pointer and detail in p.detail for p in problems), problems


ODD = Address(
    "d:2",
    {"number": "4", "street": "Oak St", "town": "Cedarton", "region": "Mechin",
     "postcode": "00011", "country_code": "US"},
)  # fmt: skip
ODD_FILLED = {
    "name": "Ada", "home_number": "4", "home_street": "Oak St", "home_town": "Cedarton",
    "home_postcode": "00011",
}  # fmt: skip


def capture_odd(form, layouts, **values):
    given = {"home": SlotInput("US", "d:2")}
    odd = {"d:2": (ODD, "d@3")}.get
    return capture_slots(form, {**ODD_FILLED, **values}, given, layouts, odd)


def test_what_the_reference_data_holds_can_be_sent_whatever_the_layout_thinks(form, layouts):
    (captured,), problems = capture_odd(form, layouts)
    assert problems == []
    assert captured.components["region"] == "Mechin"
    _, problems = capture_odd(form, layouts, home_postcode="1")
    assert [p.pointer for p in problems] == ["/values/home_postcode"]
    _, problems = capture_odd(form, layouts, home_street="")
    assert [p.pointer for p in problems] == ["/values/home_street"]


def test_the_country_is_the_picked_addresss_the_slots_own_or_the_only_one(form, layouts):
    (captured,), _ = capture_slots(
        form, dict(FILLED), {"home": SlotInput(address_id="d:1")}, layouts, find
    )
    assert captured.country_code == "GB"
    values = {**FILLED, "other": True, "bill_street": "Abbey Lane"}
    home = {"home": SlotInput("GB")}
    _, problems = capture_slots(form, values, home, layouts, find)
    assert problems == []
    # Where nothing was given there is nothing to name a country of.
    _, problems = capture_slots(form, {"name": "Ada"}, {}, layouts, find)
    assert [p.pointer for p in problems] == ["/slots/home"]


def test_a_regions_code_and_name_are_of_the_one_that_is_asked_for(form, layouts):
    part = replace(form.slot("home").parts[0], key="home_region", component="region")
    home = replace(form.slot("home"), parts=(*form.slot("home").parts, part))
    both = replace(form, items=(form.items[0], home))
    values = {**ODD_FILLED, "home_region": "Alabama", "home_region_code": "MT"}
    (captured,), problems = capture_slots(
        both, values, {"home": SlotInput("US")}, layouts, lambda _: None
    )
    assert problems == []
    assert (captured.components["region_code"], captured.components["region"]) == ("MT", "Montana")
    assert values["home_region"] == "Montana"


# Own layouts


NOTE = {"extra": "note_to_post", "label": {"en": "Note to the post"}, "after": "street"}


def under(layouts, **document):
    """An own layout for the United States, and the layouts in force with it."""
    base = {"key": "own", "title": "Own", "countries": ["US"]}
    own, problems = read_own_layout({**base, **document}, layouts)
    assert problems == []
    return own, LayoutsInForce(layouts, [Published(own, 4)])


def test_a_layout_brings_fields_for_what_it_adds_and_fills_those_of_components(form, layouts):
    _own, in_force = under(layouts, ask=[NOTE, {"component": "place", "add": True}])
    whole = with_brought_parts(form, in_force.on_form(form.key))
    home = whole.slot("home")
    assert [part.key for part in home.parts][-2:] == ["home_note_to_post", "home_place"]
    assert home.mapping[-1].source.takes == ("place",)
    assert {part.component for part in whole.slot("bill").parts} == {
        part.component for part in form.slot("bill").parts
    }
    assert with_brought_parts(form, layouts) is form


def test_a_brought_field_takes_no_key_that_the_form_has(form, layouts):
    _own, in_force = under(layouts, ask=[{**NOTE, "extra": "street_x"}])
    taken = replace(form.items[0], key="home_street_x")
    whole = with_brought_parts(
        replace(form, items=(taken, *form.items)), in_force.on_form(form.key)
    )
    assert whole.slot("home").parts[-1].key == "home_street_x_"


def test_an_extra_is_captured_with_the_version_of_its_layout(form, layouts):
    _own, in_force = under(layouts, ask=[NOTE])
    library = in_force.on_form(form.key)
    whole = with_brought_parts(form, library)
    values = {
        "home_street": "Oak St",
        "home_town": "Cedarton",
        "home_note_to_post": " Ring  twice ",
    }
    addresses, _problems = capture_slots(
        whole, values, {"home": SlotInput(country_code="US")}, library, find
    )
    assert addresses[0].components["note_to_post"] == "Ring twice"
    assert addresses[0].layout == "own@4"
    addresses, _problems = capture_slots(
        whole, values, {"home": SlotInput(country_code="GB")}, library, find
    )
    assert "note_to_post" not in addresses[0].components
    assert addresses[0].layout == ""


@pytest.mark.parametrize(
    ("document", "pointers"),
    [
        ({"ask": [{**NOTE, "required": True}]}, []),
        ({"ask": [{"component": "building", "required": True}]}, ["/ask/0/required"]),
        ({"ask": [{"component": "building", "required": True}], "forms": ["vist"]}, ["/forms/0"]),
        ({"ask": [{"component": "street", "required": True}]}, []),
    ],
)
def test_a_layout_that_a_form_cannot_satisfy_does_not_fit_it(form, layouts, document, pointers):
    own, in_force = under(layouts, **document)
    assert [p.pointer for p in fit_problems(own, in_force, [form])] == pointers
