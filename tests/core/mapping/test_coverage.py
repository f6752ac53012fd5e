from anchorline.core.faults import Faults
from anchorline.core.mapping import Receiver, fill, read_rules
from anchorline.core.mapping.coverage import STATES, Sampled, cover
from anchorline.core.mapping.examples import Example, run_example

from .filling import address, rules_of

RULES = [
    {"components": ["street"], "into": "street", "changes": ["shorten"]},
    {"components": ["town"], "into": "town"},
    {"components": ["unit"], "into": "unit"},
    {"components": ["organisation"], "into": "unit", "if_written": "leave"},
]
RECEIVERS = {
    "street": Receiver("street", "Street", 9),
    "town": Receiver("town", "Town", refuses=lambda text: "Not here." if text == "Bell" else ""),
    "unit": Receiver("unit", "Unit"),
}
SAMPLE = [
    ("GB", {"street": "Mill Row", "town": "Marl"}),
    ("GB", {"street": "Mill Lane End", "town": "Bell", "building": "Rowan"}),
    ("GB", {"street": "Bell Lane A", "unit": "3", "organisation": "Works"}),
    ("IE", {"street": "Mill Lane"}),
]


def sampled():
    for number, (country, components) in enumerate(SAMPLE):
        yield Sampled(f"d:{number}", components["street"], address(components, country))


def covered():
    *_, last = cover(rules_of(RULES), RECEIVERS, sampled())
    return last


def test_each_field_of_each_address_is_in_one_state():
    coverage = covered()
    assert coverage.addresses == {"GB": 3, "IE": 1}
    assert coverage.cells["street", "GB"] == {"filled": 1, "lost": 1, "shortened": 1}
    assert coverage.cells["town", "GB"] == {"filled": 1, "wrong": 1, "empty": 1}
    assert coverage.cells["unit", "GB"] == {"empty": 2, "lost": 1}
    assert coverage.cells["street", "IE"] == {"filled": 1}
    assert sum(coverage.total(state) for state in STATES) == 3 * len(SAMPLE)
    assert coverage.untaken == {"building": {"GB": 1}}


def test_the_worst_are_kept_with_what_is_said_of_them():
    bad = covered().bad
    (wrong,) = bad["town", "GB", "wrong"]
    assert (wrong.reference, wrong.label, wrong.text, wrong.detail) == (
        "d:1", "Mill Lane End", "Bell", "Not here.",
    )  # fmt: skip
    (left,) = bad["unit", "GB", "lost"]
    assert left.detail == "Unit: 'Works' (organisation) was left out"
    (short,) = bad["street", "GB", "shortened"]
    assert short.text == "Bell Ln A"


def test_a_link_that_is_set_when_the_form_is_sent_is_filled():
    find = [{"components": ["town"], "into": "name"}]
    link = rules_of([{"link": {"form": "town", "find": find}, "into": "place"}])
    receivers = {"place": Receiver("place", "Place", type="link", form="town")}
    *_, last = cover(link, receivers, sampled())
    assert last.cells["place", "GB"] == {"filled": 2, "empty": 1}


def test_no_more_than_a_few_of_a_kind_are_kept():
    many = (
        Sampled(f"d:{n:02}", "", address({"street": "Mill Lane " + "x" * n})) for n in range(20)
    )
    *_, last = cover(rules_of(RULES), RECEIVERS, many)
    kept = last.bad["street", "GB", "lost"]
    assert len(kept) == 5
    assert "d:19" in {one.reference for one in kept}, "the longest loss"


def test_an_example_says_where_something_else_stands():
    example = Example("Mill", address({"street": "Mill Lane"}), {"street": "Mill Road", "unit": ""})
    run = run_example(rules_of(RULES), RECEIVERS, example)
    assert [(d.field, d.expected, d.found) for d in run.differences] == [
        ("street", "Mill Road", "Mill Lane")
    ]
    kept = Example("Mill", example.known, fill(rules_of(RULES), RECEIVERS, example.known).values)
    assert not run_example(rules_of(RULES), RECEIVERS, kept).differences


def test_an_example_of_a_field_that_no_rule_fills_any_more_differs():
    faults = Faults()
    gone = Example("Mill", address({"street": "S"}), {"gone": "S"})
    run = run_example(read_rules([], "", faults), RECEIVERS, gone)
    assert [(d.field, d.found) for d in run.differences] == [("gone", "")]


def test_links_of_an_example_are_not_looked_at():
    """Which records there are is no matter of the mapping."""
    find = [{"components": ["town"], "into": "name"}]
    link = rules_of([{"link": {"form": "town", "find": find}, "into": "place"}])
    receivers = {"place": Receiver("place", "Place", type="link", form="town")}
    example = Example("Mill", address({"town": "Marl"}), {"place": "r-1"})
    assert not run_example(link, receivers, example).differences
