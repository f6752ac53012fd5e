import pytest

from anchorline.core.forms import read_unfinished
from anchorline.core.forms.mapping_proposals import propose_rules

from .filling import LAYOUTS


def proposals(*fields, mapping=(), parts=(), **slot):
    at = {"key": "at", "label": "At", "countries": ["GB", "DE"], "parts": list(parts),
          "mapping": list(mapping), **slot}  # fmt: skip
    document = {"key": "f", "kind": "record", "title": "F", "fields": list(fields), "slots": [at]}
    form, problems = read_unfinished(document, LAYOUTS)
    assert not problems, problems
    return [(dict(one.rule), one.because) for one in propose_rules(form, form.slots[0], LAYOUTS)]


def field(key, label="", **more):
    return {"key": key, "label": label or key, **more}


@pytest.mark.parametrize(
    ("entry", "takes", "because"),
    [
        (field("f1", "City"), {"components": ["town"]}, "Its label says “City”."),
        (field("f1", "Postleitzahl"), {"components": ["postcode"]}, "Its label says “Postleitzahl”."),
        (field("f1", "市区町村"), {"components": ["town"]}, "Its label says “市区町村”."),
        (field("f1", "Straße"), {"lines": "street"}, "Its label says “Straße”."),
        (field("zip", "Z"), {"components": ["postcode"]}, "Its key says “zip”."),
        (field("f1", "P", help="The postcode"), {"components": ["postcode"]}, "Its help says “postcode”."),
        (field("f1", "State", max_length=2), {"components": ["region_code"]}, "Its label says “State”."),
        (field("f1", "Country", max_length=2), {"components": ["country_code"]}, "Its label says “Country”."),
        (field("address-level2", "A"), {"components": ["town"]}, "HTML's autofill token address-level2 says so."),
        (field("address-line1", "A"), {"lines": "street"}, "HTML's autofill token address-line1 says so."),
        (field("f1", "Latitude", type="number"), {"facts": ["latitude"]}, "Its label says “Latitude”."),
    ],
)  # fmt: skip
def test_a_field_is_recognised_with_the_reason(entry, takes, because):
    assert proposals(entry) == [({**takes, "into": entry["key"], "changes": []}, because)]


def test_numbered_lines_are_fitted_together_in_their_order_and_width():
    lines = [field(f"l{n}", f"Address line {n}", max_length=35) for n in (2, 1, 3)]
    (first, second) = proposals(*lines, field("pc", "Postcode"))
    assert first[0] == {"fit": {"into": ["l1", "l2", "l3"], "width": 35}, "changes": []}
    assert second[0]["components"] == ["postcode"]


def test_parts_of_the_slot_come_by_their_component_and_what_is_written_is_left():
    parts = [{"key": "at_town", "component": "town"}, {"key": "at_street", "component": "street"}]
    mapping = [{"components": ["town"], "into": "at_town"}]
    assert proposals(field("f1", "City"), parts=parts, mapping=mapping) == [
        ({"components": ["street"], "into": "at_street", "changes": []},
         "It stands for street in this address."),
    ]  # fmt: skip


def test_a_street_is_taken_once():
    """The first field takes number and street; a second one would only say them again."""
    found = proposals(field("f1", "Street"), field("f2", "House number"), field("f3", "Straße"))
    assert [rule["into"] for rule, _ in found] == ["f1"]


def test_words_that_only_end_like_a_line_are_no_lines_of_an_address():
    assert proposals(field("a", "Deadline 1"), field("b", "Pipeline 2")) == []


def test_what_is_no_address_is_left_alone():
    assert proposals(field("name", "Contact"), field("when", "When", type="date")) == []
